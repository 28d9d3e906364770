package mintshelf.app.store.document;

import static mintshelf.database.schema.Tables.FOLDER;
import static mintshelf.database.schema.Tables.ITEM;

import mintshelf.core.access.Access;
import mintshelf.core.access.Right;
import mintshelf.core.access.Scope;
import org.jooq.Condition;
import org.jooq.impl.DSL;

/** What of the documents a person may see, as a condition: all that is in a scope, or of it what is or was released. */
public final class Visible {
    private Visible() {}

    /** For queries over ITEM. Nothing is visible without a grant. */
    public static Condition to(Access access) {
        if (seesAll(access)) return DSL.trueCondition(); // spares the database a question for each document
        Condition all = DSL.or(
                access.giving(Right.SEE_ALL).stream().map(g -> in(g.scope())).toList());
        Condition released = DSL.or(access.giving(Right.SEE_RELEASED).stream()
                .map(g -> in(g.scope()))
                .toList());
        return DSL.or(all, released.and(ITEM.OUT_AT.isNotNull()));
    }

    /** For queries over ITEM: the documents of which the person may see work in preparation. */
    public static Condition inPreparationTo(Access access) {
        return DSL.or(
                access.giving(Right.SEE_ALL).stream().map(g -> in(g.scope())).toList());
    }

    /** For queries over ITEM: whether the person may see work in preparation on all of a shelf, so that no row need be asked. */
    public static boolean seesAllOf(Access access, long shelf) {
        return access.giving(Right.SEE_ALL).stream()
                .map(g -> g.scope())
                .anyMatch(s -> s.equals(Scope.EVERYWHERE) || s.equals(Scope.shelf(shelf)));
    }

    /** Whether the person sees work in preparation everywhere. */
    public static boolean seesAll(Access access) {
        return access.mayEverywhere(Right.SEE_ALL);
    }

    /** Whether the person sees nothing of work in preparation, wherever. */
    public static boolean seesReleasedOnly(Access access) {
        return !access.maySomewhere(Right.SEE_ALL);
    }

    private static Condition in(Scope scope) {
        Condition in = DSL.trueCondition();
        if (scope.shelf().isPresent()) in = in.and(ITEM.SHELF.eq(scope.shelf().getAsLong()));
        if (scope.kind().isPresent()) in = in.and(ITEM.KIND.eq(scope.kind().getAsLong()));
        if (scope.folder().isPresent()) {
            var below = DSL.name("below");
            in = in.and(ITEM.FOLDER.in(DSL.withRecursive(below)
                    .as(DSL.select(FOLDER.ID)
                            .from(FOLDER)
                            .where(FOLDER.ID.eq(scope.folder().getAsLong()))
                            .unionAll(DSL.select(FOLDER.as("child").ID)
                                    .from(FOLDER.as("child"))
                                    .join(DSL.table(below))
                                    .on(FOLDER.as("child").PARENT.eq(DSL.field(DSL.name("below", "id"), Long.class)))))
                    .select(DSL.field(DSL.name("below", "id"), Long.class))
                    .from(DSL.table(below))));
        }
        return in;
    }
}
