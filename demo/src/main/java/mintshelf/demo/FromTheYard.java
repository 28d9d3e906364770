package mintshelf.demo;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.LocalDate;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import mintshelf.app.ground.Actor;
import mintshelf.app.sight.Numbered;
import mintshelf.app.sight.Packed;
import mintshelf.app.store.content.ContentStore;
import mintshelf.app.store.structure.LinkStore;
import mintshelf.app.use.hold.CheckIn;
import mintshelf.app.use.structure.KeepPack;
import mintshelf.app.use.structure.PackStructure.Asked;
import mintshelf.app.use.structure.ReadBack;
import mintshelf.core.reference.PackNames.Layout;
import mintshelf.core.structure.StructureView;
import mintshelf.demo.model.Models;

/** A pack that came back: the foundry that quoted for the counterweight sent it with a draft angle for its mould. */
final class FromTheYard extends Chapter {
    private static final String NUMBER = "TG40-2020";

    FromTheYard(Book book) {
        super(book);
    }

    void tell() {
        Actor tomasz = hands.actor("tomasz");
        long top = item(tomasz, "TG40-2000");
        long weight = item(tomasz, NUMBER);
        hands.at(daysAgo(7, 11, 0));
        KeepPack packs = hands.bean(KeepPack.class);
        Asked asked = new Asked(
                StructureView.LATEST,
                Optional.empty(),
                Optional.empty(),
                LocalDate.ofInstant(daysAgo(7, 11, 0), ZONE),
                Layout.ONE_FOLDER,
                false,
                false,
                false);
        long pack = packs.keep(
                tomasz,
                top,
                Hands.key(),
                asked,
                "Holm & Daughters, foundry",
                "to quote for the counterweight in cast iron");
        say();
        Map<String, byte[]> files = new HashMap<>();
        String mine = "";
        for (Packed one : packs.files(packs.kept(tomasz, pack), new HashMap<>())) {
            files.put(one.path(), bytes(one));
            if (one.path().contains(NUMBER)) mine = one.path();
        }
        Parts.Part part = part("2020");
        files.put(
                mine,
                Models.part(NUMBER, part.title(), "EN-GJL-250", part.mass(), part.shape(), "2026-11-19T10:20:00"));
        hands.at(daysAgo(3, 9, 40));
        ReadBack.Back back =
                hands.bean(ReadBack.class).read(tomasz, pack, hands.bring(tomasz, "holm-back.zip", zip(files)));
        List<CheckIn.Row> rows = back.rows().stream()
                .filter(ReadBack.Row::comes)
                .map(r -> new CheckIn.Row(
                        r.entry().orElseThrow().seen().spine().id(), Optional.of(r.upload()), r.hold(), ""))
                .toList();
        if (rows.size() != 1 || rows.get(0).item() != weight)
            throw new IllegalStateException("The pack came back otherwise: " + back.rows());
        hands.bean(CheckIn.class)
                .take(tomasz, rows, Hands.key(), "Came back from the foundry: cast iron, draft 2 degrees", false);
        say();
    }

    private byte[] bytes(Packed one) {
        if (one.made().isPresent()) return one.made().get().get().orElseThrow();
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try {
            hands.bean(ContentStore.class)
                    .send(one.content().id(), 0, one.content().size(), out);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toByteArray();
    }

    private static byte[] zip(Map<String, byte[]> files) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            for (Map.Entry<String, byte[]> one : files.entrySet()) {
                zip.putNextEntry(new ZipEntry(one.getKey()));
                zip.write(one.getValue());
                zip.closeEntry();
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toByteArray();
    }

    private long item(Actor actor, String number) {
        return hands.bean(Numbered.class).all(actor, number).stream()
                .map(s -> s.spine().id())
                .filter(i -> hands.bean(LinkStore.class).aspect(i).equals("MODEL"))
                .findFirst()
                .orElseThrow();
    }
}
