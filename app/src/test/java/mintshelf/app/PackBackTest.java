package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import java.util.zip.ZipOutputStream;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.store.content.Upload;
import mintshelf.app.store.content.UploadStore;
import mintshelf.app.store.hold.StrayStore;
import mintshelf.app.use.hold.CheckIn;
import mintshelf.app.use.structure.KeepPack;
import mintshelf.app.use.structure.PackStructure.Asked;
import mintshelf.app.use.structure.ReadBack;
import mintshelf.app.use.structure.ReadBack.Back;
import mintshelf.app.use.structure.ReadBack.Fate;
import mintshelf.app.use.structure.ReadBack.Row;
import mintshelf.core.reference.PackNames.Layout;
import mintshelf.core.structure.StructureView;
import org.junit.jupiter.api.Test;

/** What comes back of a pack becomes versions, strays and new documents, with the names that the shelf's files have. */
class PackBackTest extends InDesign {
    private final KeepPack packs = server.bean(KeepPack.class);
    private final ReadBack reads = server.bean(ReadBack.class);

    /** Written as somebody's drive has it: the pack writes the name anew. */
    private final long above = server.file(
            "priya",
            shelf,
            "part-model",
            "above" + mark + ".stp",
            from + "6000",
            StructureTest.assembly("above", "C:\\\\work\\\\" + name(1010, " part.stp"), 1, name(1100, " part.stp"), 2),
            false);

    private long pack() {
        return packs.keep(
                priya,
                above,
                Server.key(),
                new Asked(
                        StructureView.LATEST,
                        Optional.empty(),
                        Optional.empty(),
                        LocalDate.of(2100, 1, 1),
                        Layout.ONE_FOLDER,
                        true,
                        true,
                        false),
                "the yard",
                "to look at");
    }

    private Map<String, byte[]> archive(long pack) throws IOException, InterruptedException {
        Map<String, byte[]> files = new LinkedHashMap<>();
        try (ZipInputStream zip = new ZipInputStream(Web.as(server, "priya").stream("/packs/" + pack + "/files.zip"))) {
            for (ZipEntry entry = zip.getNextEntry(); entry != null; entry = zip.getNextEntry())
                files.put(entry.getName(), zip.readAllBytes());
        }
        return files;
    }

    private String bring(Map<String, byte[]> files) throws IOException {
        return server.bring("priya", "back.zip", zipped(files));
    }

    private static byte[] zipped(Map<String, byte[]> files) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            for (Map.Entry<String, byte[]> one : files.entrySet()) {
                zip.putNextEntry(new ZipEntry(one.getKey()));
                zip.write(one.getValue());
                zip.closeEntry();
            }
        }
        return out.toByteArray();
    }

    private static byte[] changed(byte[] step, String from, String to) {
        String text = new String(step, StandardCharsets.US_ASCII);
        assertThat(text).contains(from);
        return text.replace(from, to).getBytes(StandardCharsets.US_ASCII);
    }

    private static Row row(Back back, String path) {
        return back.rows().stream()
                .filter(r -> r.path().endsWith(path))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void whatIsAsItWasSentIsLeftAsideThoughItsNamesWereWrittenForThePack() throws Exception {
        long pack = pack();
        Back back = reads.read(priya, pack, bring(archive(pack)));
        assertThat(back.rows()).allMatch(r -> r.fate() == Fate.SAME);
        assertThat(back.rows()).hasSize(packs.kept(priya, pack).entries().size());
        assertThat(back.ours()).isGreaterThanOrEqualTo(4);
        assertThat(back.takes()).isFalse();
        // So it is in a folder of theirs: neither its files nor what was laid beside them are new.
        Map<String, byte[]> theirs = new LinkedHashMap<>();
        archive(pack).forEach((path, bytes) -> theirs.put("theirs/" + path, bytes));
        Back again = reads.read(priya, pack, bring(theirs));
        assertThat(again.rows()).allMatch(r -> r.fate() == Fate.SAME);
        assertThat(again.ours()).isEqualTo(back.ours());
    }

    @Test
    void whatChangedBecomesAVersionUnderOnesHoldElseAStray() throws Exception {
        long pack = pack();
        Map<String, byte[]> files = archive(pack);
        Map<String, byte[]> came = new LinkedHashMap<>();
        String top = "above" + mark + ".stp";
        // Packed into a folder of theirs.
        came.put("back/" + top, changed(files.get(top), "'above'", "'above, stronger'"));
        came.put(
                "back/" + name(1010, " part.stp"),
                changed(files.get(name(1010, " part.stp")), from + "1010", from + "1010 b"));
        came.put(
                "back/" + name(1100, " part.stp"),
                changed(files.get(name(1100, " part.stp")), from + "1100", from + "1100 b"));
        came.put("back/bracket.stp", StructureTest.assembly("bracket"));
        came.put("../evil.stp", StructureTest.assembly("evil"));
        came.put("back/empty.stp", new byte[0]);
        server.checkOut("priya", above);
        server.checkOut("tomasz", group);
        Back back = reads.read(priya, pack, bring(came));
        assertThat(row(back, top).fate()).isEqualTo(Fate.VERSION);
        assertThat(row(back, name(1010, " part.stp")).fate()).isEqualTo(Fate.STRAY);
        assertThat(row(back, name(1010, " part.stp")).says()).contains("nobody holds it");
        assertThat(row(back, name(1100, " part.stp")).says()).contains("held by Tomasz Okrent");
        assertThat(row(back, "bracket.stp").fate()).isEqualTo(Fate.FRESH);
        assertThat(row(back, "evil.stp").fate()).isEqualTo(Fate.NOT);
        assertThat(row(back, "empty.stp").fate()).isEqualTo(Fate.NOT);
        Map<String, String> form = new LinkedHashMap<>();
        form.put("actKey", Server.key());
        form.put("comment", "Came back from the yard");
        for (Row row : back.rows()) {
            if (row.fate() == Fate.FRESH) form.put("fresh", row.upload());
            if (!row.comes()) continue;
            long id = row.entry().orElseThrow().seen().spine().id();
            form.merge("item", Long.toString(id), (a, b) -> a + "," + b);
            form.put("upload." + id, row.upload());
            form.put("hold." + id, Long.toString(row.hold()));
        }
        var answer = Web.as(server, "priya").post("/packs/" + pack + "/take-back", form);
        assertThat(answer.headers().firstValue("Location").orElse("")).contains("/filings/");
        assertThat(server.document(above).head().number()).isEqualTo(2);
        assertThat(text(above)).contains("above, stronger", "C:\\\\work\\\\" + name(1010, " part.stp"));
        assertThat(meant(refersTo(server.document(above)))).contains(part, group);
        assertThat(server.bean(StrayStore.class).kept(part)).hasSize(1);
        assertThat(server.bean(StrayStore.class).kept(group)).hasSize(1);
        assertThat(server.document(part).head().number()).isEqualTo(1);
        assertThat(Web.as(server, "priya")
                        .get("/documents/" + above + "/record")
                        .body())
                .contains("Came back from the yard");
    }

    @Test
    void whatMovedOnMeanwhileIsNotOverwrittenThoughItIsHeld() throws Exception {
        long pack = pack();
        Map<String, byte[]> files = archive(pack);
        server.checkOut("priya", part);
        server.checkIn("priya", part, StructureTest.assembly("moved on " + mark), true);
        String file = name(1010, " part.stp");
        Back back =
                reads.read(priya, pack, bring(Map.of(file, changed(files.get(file), from + "1010", from + "1010 c"))));
        assertThat(row(back, file).fate()).isEqualTo(Fate.STRAY);
        assertThat(row(back, file).hold()).isZero();
        assertThat(row(back, file).says()).contains("sent as version 1 and is at version 2");
    }

    @Test
    void aFolderComesBackFileByFile() throws Exception {
        long pack = pack();
        Map<String, byte[]> files = archive(pack);
        String top = "above" + mark + ".stp";
        String file = name(1010, " part.stp");
        files.put(top, changed(files.get(top), "'above'", "'above, stronger'"));
        List<String> paths = new ArrayList<>();
        List<String> tokens = new ArrayList<>();
        for (Map.Entry<String, byte[]> one : files.entrySet()) {
            paths.add("theirs/" + one.getKey());
            tokens.add(server.bring("priya", one.getKey().replaceFirst(".*/", ""), one.getValue()));
        }
        paths.addAll(List.of("theirs/bracket.stp", "theirs/empty.stp", "theirs/his.stp", "../evil.stp"));
        tokens.add(server.bring("priya", "bracket.stp", StructureTest.assembly("bracket")));
        tokens.add("");
        tokens.add(server.bring("tomasz", "his.stp", StructureTest.assembly("his")));
        tokens.add(server.bring("priya", "evil.stp", StructureTest.assembly("evil")));
        server.checkOut("priya", above);
        Back back = reads.read(priya, pack, paths, tokens);
        assertThat(row(back, top).fate()).isEqualTo(Fate.VERSION);
        assertThat(row(back, file).fate()).isEqualTo(Fate.SAME);
        assertThat(row(back, "bracket.stp").fate()).isEqualTo(Fate.FRESH);
        for (String none : List.of("empty.stp", "his.stp", "evil.stp"))
            assertThat(row(back, none).fate()).as(none).isEqualTo(Fate.NOT);
        assertThat(back.ours()).isGreaterThanOrEqualTo(4);
        // What is not needed is in nobody's way; what can be taken waits, as does what is somebody else's.
        UploadStore uploads = server.bean(UploadStore.class);
        for (int i = 0; i < paths.size(); i++) {
            String path = paths.get(i);
            boolean waits = path.endsWith(top) || path.endsWith("bracket.stp") || path.endsWith("his.stp");
            uploads.upload(tokens.get(i))
                    .ifPresent(u -> assertThat(u.state())
                            .as(path)
                            .isEqualTo(waits ? Upload.State.COMPLETE : Upload.State.DROPPED));
        }
        // The page sent again says the same.
        Web web = Web.as(server, "priya");
        Map<String, List<String>> form = Map.of("path", paths, "upload", tokens);
        for (int i = 0; i < 2; i++)
            assertThat(web.postAll("/packs/" + pack + "/back", form).body())
                    .contains("new version", "new: can be filed", "as it was sent", "It did not come")
                    .doesNotContain("kept as a stray");
        assertThatThrownBy(() -> reads.read(priya, pack, List.of("a.stp"), List.of()))
                .isInstanceOf(NotThere.class);
        List<String> many = Collections.nCopies(ReadBack.MOST + 1, "a.stp");
        assertThatThrownBy(() -> reads.read(priya, pack, many, many)).isInstanceOf(Refused.class);
        assertThatThrownBy(() -> reads.read(server.actor("tomasz"), pack, paths, tokens))
                .isInstanceOf(NotThere.class);
    }

    @Test
    void whatWasTakenIsNotGivenUpByAPageSentAgain() throws Exception {
        long pack = pack();
        Map<String, byte[]> files = archive(pack);
        String top = "above" + mark + ".stp";
        String token = server.bring("priya", top, files.get(top));
        Upload seen = server.bean(UploadStore.class).upload(token).orElseThrow();
        server.checkOut("priya", above);
        long hold = server.document(above).holder().orElseThrow().hold();
        server.bean(CheckIn.class)
                .take(priya, List.of(new CheckIn.Row(above, token, hold)), Server.key(), "as packed", false);
        // As somebody would who had looked before it was taken.
        server.bean(UnitOfWork.class).run(() -> server.bean(UploadStore.class).drop(seen));
        assertThat(text(above)).contains("'above'");
    }

    @Test
    void brokenAndEncryptedFilesAndBombsAreNotTakenOthersAre() throws Exception {
        long pack = pack();
        Map<String, byte[]> files = archive(pack);
        String top = "above" + mark + ".stp";
        String part = name(1010, " part.stp");
        Map<String, byte[]> came = new LinkedHashMap<>();
        came.put(top, changed(files.get(top), "'above'", "'above, stronger'"));
        came.put(part, files.get(part));
        byte[] whole = zipped(came);
        int second = at(whole, "PK\001\002", at(whole, "PK\001\002", 0) + 4);
        byte[] encrypted = whole.clone();
        encrypted[second + 8] |= 1;
        byte[] broken = whole.clone();
        broken[second + 16] ^= 0x55; // the sum that is said of it
        byte[] longer = whole.clone();
        longer[second + 24] = (byte) (longer[second + 24] - 9); // more comes than is said
        for (byte[] one : List.of(encrypted, broken, longer)) {
            Back back = reads.read(priya, pack, server.bring("priya", "back.zip", one));
            assertThat(row(back, part).fate()).isEqualTo(Fate.NOT);
            assertThat(row(back, part).says()).isNotEmpty();
            assertThat(row(back, top).fate()).isEqualTo(Fate.STRAY);
        }
        came.put("zeros.stp", new byte[(64 << 20) + 1]);
        Back back = reads.read(priya, pack, bring(came));
        assertThat(row(back, "zeros.stp").says()).contains("unpacks to more");
        assertThat(row(back, part).fate()).isEqualTo(Fate.SAME);
    }

    private static int at(byte[] bytes, String what, int from) {
        return new String(bytes, StandardCharsets.ISO_8859_1).indexOf(what, from);
    }

    @Test
    void whatIsNoArchiveOrNotOnesOwnIsRefused() throws Exception {
        long pack = pack();
        assertThatThrownBy(() -> reads.read(
                        priya, pack, server.bring("priya", "a.zip", "no zip".getBytes(StandardCharsets.UTF_8))))
                .isInstanceOf(Refused.class);
        String his = server.bring("tomasz", "back.zip", "PK".getBytes(StandardCharsets.UTF_8));
        assertThatThrownBy(() -> reads.read(priya, pack, his)).isInstanceOf(Refused.class);
        assertThatThrownBy(() -> reads.read(server.actor("tomasz"), pack, his)).isInstanceOf(NotThere.class);
        Web web = Web.as(server, "priya");
        assertThat(web.get("/packs/" + pack).body()).contains("/packs/" + pack + "/back");
        assertThat(web.get("/packs/" + pack + "/back").body().toLowerCase(Locale.ROOT))
                .contains("what came back");
        assertThat(web.post("/packs/" + pack + "/back", Map.of("upload", bring(Map.of())))
                        .body())
                .containsAnyOf("No file came back", "no ZIP archive");
        assertThat(web.post("/packs/" + pack + "/take-back", Map.of("actKey", Server.key()))
                        .statusCode())
                .isEqualTo(409);
        assertThat(List.of(web.get("/packs/999999999/back").statusCode())).containsExactly(404);
    }
}
