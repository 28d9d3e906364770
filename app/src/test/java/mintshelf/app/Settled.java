package mintshelf.app;

import static mintshelf.database.schema.Tables.OUTPUT;
import static mintshelf.database.schema.Tables.VERSION;
import static org.assertj.core.api.Assertions.assertThat;

import mintshelf.app.store.output.OutputStore;
import mintshelf.app.store.search.NodeIndex;
import mintshelf.app.use.output.MakeOutputs;
import mintshelf.app.use.search.ReadWords;

/** Waits for what is made beside acts. Pages that are to be the same before and after something are read when it is there. */
final class Settled {
    private Settled() {}

    /** Words that are read and outputs that are made of a document's versions. */
    static void of(Server server, long item) throws InterruptedException {
        server.bean(ReadWords.class).run();
        server.bean(MakeOutputs.class).run();
        server.bean(NodeIndex.class).catchUp();
        // One that another thread has begun is made by that.
        for (int i = 0; waits(server, item); i++) {
            assertThat(i).as("a minute").isLessThan(600);
            Thread.sleep(100);
        }
    }

    private static boolean waits(Server server, long item) {
        return server.db()
                .fetchExists(server.db()
                        .selectFrom(OUTPUT.join(VERSION).on(VERSION.ID.eq(OUTPUT.VERSION)))
                        .where(VERSION.ITEM.eq(item), OUTPUT.STATE.eq(OutputStore.State.WAITING.name())));
    }
}
