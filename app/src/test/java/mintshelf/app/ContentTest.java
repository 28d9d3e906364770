package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.store.content.BrokenContent;
import mintshelf.app.store.content.ContentStore;
import mintshelf.app.store.content.Laid;
import mintshelf.app.store.content.PieceStore;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.content.Upload;
import mintshelf.app.store.content.UploadMoved;
import mintshelf.app.store.content.UploadStore;
import mintshelf.app.use.content.CollectContent;
import mintshelf.app.use.content.ReceiveContent;
import mintshelf.core.base.ContentHash;
import mintshelf.core.content.ChunkCutter;
import mintshelf.core.content.CutSize;
import mintshelf.database.schema.Tables;
import org.junit.jupiter.api.Test;

class ContentTest {
    private final Server server = Server.shared();
    private final ReceiveContent receive = server.bean(ReceiveContent.class);
    private final UploadStore uploads = server.bean(UploadStore.class);
    private final ContentStore contents = server.bean(ContentStore.class);
    private final Actor priya = server.actor("priya");

    private static byte[] random(int size, long seed) {
        byte[] bytes = new byte[size];
        new Random(seed).nextBytes(bytes);
        return bytes;
    }

    private static byte[] text(int size, long seed) {
        Random random = new Random(seed);
        byte[] bytes = new byte[size];
        for (int i = 0; i < size; i++) bytes[i] = (byte) (random.nextInt(12) == 0 ? '\n' : '0' + random.nextInt(10));
        return bytes;
    }

    private StoredContent store(byte[] bytes) {
        String token = server.bring("priya", "x.bin", bytes);
        return server.bean(UnitOfWork.class)
                .run(() -> uploads.seal(uploads.uploads(List.of(token), true)).get(token));
    }

    private byte[] read(StoredContent content, long from, long to) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        contents.send(content.id(), from, to, out);
        return out.toByteArray();
    }

    @Test
    void whatIsReceivedIsReadBackWholeAndInRanges() throws IOException {
        for (byte[] bytes : new byte[][] {random(9_000_000, 1), text(6_000_000, 2), {7}}) {
            StoredContent content = store(bytes);
            assertThat(content.hash()).isEqualTo(ContentHash.compute(bytes));
            assertThat(read(content, 0, bytes.length)).isEqualTo(bytes);
            int from = bytes.length / 3;
            int to = bytes.length - bytes.length / 4;
            assertThat(read(content, from, to)).isEqualTo(Arrays.copyOfRange(bytes, from, to));
        }
    }

    @Test
    void aBrokenConnectionIsPickedUpWhereTheServerStands() throws IOException {
        byte[] bytes = text(21_000_000, 3);
        String token = receive.open(priya, "cone.stp", bytes.length);
        InputStream cut = new InputStream() {
            private int at;

            @Override
            public int read() throws IOException {
                if (at >= 12_600_000) throw new IOException("connection lost");
                return bytes[at++] & 0xff;
            }

            @Override
            public int read(byte[] b, int off, int len) throws IOException {
                if (at >= 12_600_000) throw new IOException("connection lost");
                int n = Math.min(len, 12_600_000 - at);
                System.arraycopy(bytes, at, b, off, n);
                at += n;
                return n;
            }
        };
        assertThatThrownBy(() -> receive.receive(priya, token, 0, cut)).isInstanceOf(IOException.class);
        long stands = receive.upload(priya, token).received();
        assertThat(stands).isBetween(4_000_000L, 12_600_000L);
        Upload done = receive.receive(
                priya, token, stands, new ByteArrayInputStream(bytes, (int) stands, bytes.length - (int) stands));
        assertThat(done.state()).isEqualTo(Upload.State.COMPLETE);
        assertThat(done.hash()).contains(ContentHash.compute(bytes));
    }

    @Test
    void boundariesAreTheSameHoweverTheBytesCame() throws IOException {
        byte[] bytes = text(5_000_000, 4);
        StoredContent whole = store(bytes);
        long before = lastPack();
        String token = receive.open(priya, "again.txt", bytes.length);
        int at = 0;
        while (at < bytes.length) {
            int n = Math.min(1_300_000, bytes.length - at);
            at = (int) receive.receive(priya, token, at, new ByteArrayInputStream(bytes, at, n))
                    .received();
        }
        StoredContent again = server.bean(UnitOfWork.class)
                .run(() -> uploads.seal(uploads.uploads(List.of(token), true)).get(token));
        assertThat(again.id()).isEqualTo(whole.id());
        assertThat(newBytes(before)).as("every piece was found").isZero();
    }

    @Test
    void aConnectionThatBreaksAtOnceDoesNotDecideHowAFileIsCut() throws IOException {
        byte[] bytes = text(3_000_000, 12);
        System.arraycopy(random(30_000, 13), 0, bytes, 0, 30_000); // noise in front, text behind
        StoredContent whole = store(bytes);
        String token = receive.open(priya, "broken.txt", bytes.length);
        assertThat(receive.receive(priya, token, 0, new ByteArrayInputStream(bytes, 0, 30_000))
                        .received())
                .isZero();
        receive.receive(priya, token, 0, new ByteArrayInputStream(bytes));
        Upload again = uploads.upload(token).orElseThrow();
        assertThat(contents.cut(again.content())).isEqualTo(contents.cut(whole.id()));
    }

    @Test
    void aVersionWithFewEditsStoresFewNewPieces() throws IOException {
        byte[] bytes = text(4_000_000, 5);
        store(bytes);
        long before = lastPack();
        int pieces = server.db().fetchCount(Tables.PIECE);
        Random random = new Random(6);
        for (int i = 0; i < 10; i++) bytes[random.nextInt(bytes.length)] = 'x';
        StoredContent second = store(bytes);
        assertThat(server.db().fetchCount(Tables.PIECE) - pieces).isBetween(1, 22);
        assertThat(newBytes(before)).isBetween(1L, 22L * CutSize.SMALL.most());
        assertThat(read(second, 0, bytes.length)).isEqualTo(bytes);
    }

    @Test
    void aPackThatWasAlteredIsNotSentAndNothingMoreIsLaidOnIt() throws IOException {
        byte[] bytes = random(300_000, 7);
        StoredContent content = store(bytes);
        server.db()
                .execute(
                        "update pack set bytes = concat(left(bytes, 100), 'x', substr(bytes, 102)) where id in (select pack from content_stretch where content = ?)",
                        content.id());
        assertThatThrownBy(() -> read(content, 0, bytes.length)).isInstanceOf(BrokenContent.class);
        byte[] more = Arrays.copyOf(bytes, bytes.length + 1);
        StoredContent anew = store(more);
        assertThat(read(anew, 0, more.length)).isEqualTo(more);
        server.db().execute("delete from content_stretch where content = ?", content.id());
        server.db().execute("delete from upload where content = ?", content.id());
        server.db().execute("delete from content where id = ?", content.id());
    }

    @Test
    void whatNobodyWaitsForIsCollectedAndWhatIsHeldStays() throws IOException {
        byte[] kept = random(200_000, 8);
        StoredContent content = store(kept);
        byte[] lost = random(400_000, 9);
        String token = receive.open(priya, "lost.bin", lost.length);
        receive.receive(priya, token, 0, new ByteArrayInputStream(lost, 0, lost.length));
        server.db().execute("update upload set lease_until = '2020-01-01' where token = ?", token);
        server.bean(CollectContent.class).collect();
        assertThatThrownBy(() -> receive.upload(priya, token)).isInstanceOf(NotThere.class);
        assertThat(read(content, 0, kept.length)).isEqualTo(kept);
    }

    @Test
    void aContentWhosePackWasLetGoMeanwhileIsLaidAnew() throws IOException {
        byte[] bytes = text(900_000, 21);
        StoredContent first = store(bytes);
        PieceStore pieces = server.bean(PieceStore.class);
        bytes[450_000] = 'x';
        List<int[]> cuts = new ChunkCutter(CutSize.SMALL).cuts(bytes, bytes.length, true);
        Laid laid = pieces.lay(bytes, cuts, true);
        server.bean(UnitOfWork.class).run(() -> uploads.freeUnlessHeld(first.id()));
        assertThat(pieces.collect(2000)).isPositive();
        String token = receive.open(priya, "late.txt", bytes.length);
        Upload late = receive.upload(priya, token);
        assertThatThrownBy(() -> server.bean(UnitOfWork.class)
                        .run(() -> uploads.append(late, 0, laid, Optional.empty(), Instant.now())))
                .isInstanceOf(UploadMoved.class);
        Upload sent = receive.receive(priya, token, 0, new ByteArrayInputStream(bytes));
        assertThat(sent.hash()).contains(ContentHash.compute(bytes));
    }

    @Test
    void aContentThatIsPutTogetherOfManyOldOnesPointsIntoFewOfThemAndIsReadWhole() throws IOException {
        // Forty contents, each in a pack of its own, and then one of a stretch of each.
        byte[] mixed = new byte[40 * 60_000];
        for (int i = 0; i < 40; i++) {
            byte[] one = text(120_000, 100 + i);
            store(one);
            System.arraycopy(one, 30_000, mixed, i * 60_000, 60_000);
        }
        StoredContent content = store(mixed);
        assertThat(read(content, 0, mixed.length)).isEqualTo(mixed);
        assertThat(read(content, 1_000_001, 1_300_000)).isEqualTo(Arrays.copyOfRange(mixed, 1_000_001, 1_300_000));
        int packs = server.db()
                .fetchSingle("select count(distinct pack) from content_stretch where content = ?", content.id())
                .get(0, Integer.class);
        assertThat(packs).isBetween(16, 20);
    }

    private long lastPack() {
        return server.db().fetchSingle("select coalesce(max(id), 0) from pack").get(0, Long.class);
    }

    private long newBytes(long after) {
        return server.db()
                .fetchSingle("select coalesce(sum(length), 0) from pack where id > ?", after)
                .get(0, Long.class);
    }

    @Test
    void uploadsAreTheirOwnersAloneAndBounded() {
        String token = receive.open(priya, "x", 10);
        assertThatThrownBy(() -> receive.upload(server.actor("tomasz"), token)).isInstanceOf(NotThere.class);
        assertThatThrownBy(() -> receive.open(priya, "x", 400_000_001))
                .isInstanceOf(Refused.class)
                .hasMessageContaining("file.large");
        assertThatThrownBy(() -> receive.open(priya, "x", 0))
                .isInstanceOf(Refused.class)
                .hasMessageContaining("file.empty");
        assertThatThrownBy(() -> receive.open(server.actor("rafael"), "x", 5))
                .isInstanceOf(Refused.class)
                .hasMessageContaining("access");
    }

    @Test
    void twoSendersOfTheSameBytesMakeOneContent() throws Exception {
        byte[] bytes = random(2_000_000, 10);
        var pool = Executors.newFixedThreadPool(6);
        try {
            List<Future<StoredContent>> all = new ArrayList<>();
            for (int i = 0; i < 6; i++) all.add(pool.submit(() -> store(bytes)));
            Set<Long> ids = new HashSet<>();
            for (var each : all) ids.add(each.get().id());
            assertThat(ids).hasSize(1);
        } finally {
            pool.shutdown();
        }
    }
}
