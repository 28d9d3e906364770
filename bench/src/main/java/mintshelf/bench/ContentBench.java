package mintshelf.bench;

import java.nio.charset.StandardCharsets;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import mintshelf.app.Server;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.store.content.UploadStore;

/** How fast contents come in and how much room they take. */
final class ContentBench {
    private static final int SIZE = 100_000_000;
    private static final int PAIRS = 9;

    private ContentBench() {}

    /** The same bytes received, hashed and sealed, against plain inserts of 1 MiB each in batches of 16; pairs in turn. */
    static void checkInAgainstPlainInserts() {
        Server server = Server.shared();
        for (boolean text : new boolean[] {true, false}) {
            double[] ratios = new double[PAIRS];
            double[] ours = new double[PAIRS];
            for (int i = -1; i < PAIRS; i++) {
                byte[] bytes = bytes(SIZE, text, i + (text ? 1000 : 0));
                double plain = plain(server, bytes);
                long start = System.nanoTime();
                store(server, bytes);
                double seconds = (System.nanoTime() - start) / 1e9;
                if (i < 0) continue;
                ours[i] = seconds;
                ratios[i] = plain / seconds;
            }
            Bench.say(
                    "100 MB of %s: speed against plain inserts, median of %d pairs %.2f (%.2f to %.2f); %.0f MB/s",
                    text ? "text" : "noise",
                    PAIRS,
                    Bench.percentile(ratios, 0.5),
                    Bench.percentile(ratios, 0),
                    Bench.percentile(ratios, 1),
                    SIZE / 1e6 / Bench.percentile(ours, 0.5));
        }
    }

    private static double plain(Server server, byte[] bytes) {
        long start = System.nanoTime();
        try (Connection connection = Server.database().connect(server.schema())) {
            try (Statement statement = connection.createStatement()) {
                statement.execute(
                        "create table if not exists plain (id bigint auto_increment primary key, bytes mediumblob)");
                statement.execute("truncate plain");
            }
            start = System.nanoTime();
            connection.setAutoCommit(false);
            try (PreparedStatement insert = connection.prepareStatement("insert into plain (bytes) values (?)")) {
                int batch = 0;
                for (int at = 0; at < bytes.length; at += 1 << 20) {
                    insert.setBytes(1, Arrays.copyOfRange(bytes, at, Math.min(bytes.length, at + (1 << 20))));
                    insert.addBatch();
                    if (++batch % 16 == 0) insert.executeBatch();
                }
                insert.executeBatch();
            }
            connection.commit();
        } catch (SQLException e) {
            throw new IllegalStateException(e);
        }
        return (System.nanoTime() - start) / 1e9;
    }

    private static void store(Server server, byte[] bytes) {
        String token = server.bring("priya", "bench.bin", bytes);
        UploadStore uploads = server.bean(UploadStore.class);
        server.bean(UnitOfWork.class).run(() -> uploads.seal(uploads.uploads(List.of(token), true)));
    }

    private static byte[] bytes(int size, boolean text, long seed) {
        Random random = new Random(seed);
        byte[] bytes = new byte[size];
        if (!text) {
            random.nextBytes(bytes);
            return bytes;
        }
        int at = 0;
        int line = 0;
        while (at < size) {
            byte[] row = ("#" + line++ + "=CARTESIAN_POINT('',(" + random.nextInt(100000) / 100.0 + ","
                            + random.nextInt(100000) / 100.0 + ",0.));\n")
                    .getBytes(StandardCharsets.US_ASCII);
            int n = Math.min(row.length, size - at);
            System.arraycopy(row, 0, bytes, at, n);
            at += n;
        }
        return bytes;
    }

    /** Ten versions of a 50 MB text with a hundred small edits each: plain and packed payload against the first version's. */
    static void tenVersionsOfOneFile() {
        Server server = Server.empty();
        try {
            server.add("ines", "I", "data-manager");
            server.add("priya", "P", "designer");
            byte[] bytes = bytes(50_000_000, true, 7);
            store(server, bytes);
            double plain = sum(server, "sum(length)");
            double packed = sum(server, "sum(length(bytes))");
            Random random = new Random(8);
            for (int version = 2; version <= 10; version++) {
                for (int edit = 0; edit < 100; edit++)
                    bytes[random.nextInt(bytes.length)] = (byte) ('0' + random.nextInt(10));
                store(server, bytes);
            }
            Bench.say(
                    "payload of ten versions: %.2f times the first, packed %.2f times",
                    sum(server, "sum(length)") / plain, sum(server, "sum(length(bytes))") / packed);
            server.db().execute("analyze table pack, piece, content_stretch");
            double table = server.db()
                    .fetchSingle(
                            "select sum(data_length + index_length) from information_schema.tables where table_schema = ? and table_name in ('pack', 'piece', 'content_stretch')",
                            server.schema())
                    .get(0, Double.class);
            Bench.say("tables of pieces: %.0f MB for %.0f MB in ten versions of 50 MB", table / 1e6, 500.0);
        } finally {
            server.stop();
        }
    }

    private static double sum(Server server, String what) {
        return server.db().fetchSingle("select " + what + " from pack").get(0, Double.class);
    }
}
