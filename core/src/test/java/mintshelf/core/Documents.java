package mintshelf.core;

import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import mintshelf.core.access.Access;
import mintshelf.core.access.Grant;
import mintshelf.core.access.Place;
import mintshelf.core.access.Right;
import mintshelf.core.access.Role;
import mintshelf.core.access.Scope;
import mintshelf.core.base.ContentHash;
import mintshelf.core.document.Document;
import mintshelf.core.document.Head;
import mintshelf.core.document.Holder;
import mintshelf.core.document.Revision;
import mintshelf.core.document.Stage;
import mintshelf.core.revision.StageClass;

/** Documents and people for tests of rules. */
public final class Documents {
    public static final Place PLACE = new Place(1, List.of(10L), 7);
    public static final ContentHash CONTENT = ContentHash.compute(new byte[] {1});
    public static final long PRIYA = 5;
    public static final long TOMASZ = 6;
    private static final Instant THEN = Instant.parse("2026-11-17T08:00:00Z");

    private Documents() {}

    public static Access person(long id, Right... rights) {
        Role role = new Role("r", "R", Set.copyOf(Arrays.asList(rights)));
        return new Access(id, "Person " + id, List.of(new Grant(1, "x", role, Scope.EVERYWHERE, "everywhere")));
    }

    public static Revision revision(String label, StageClass stageClass) {
        String code = stageClass == StageClass.PREPARING
                ? "preparation"
                : stageClass.name().toLowerCase(Locale.ROOT);
        return new Revision(
                label.charAt(0),
                1,
                Optional.of(label),
                new Stage(1, code, "In " + code, stageClass, 1),
                stageClass.isPending(),
                stageClass == StageClass.RELEASED,
                THEN,
                "");
    }

    public static Holder heldBy(long person) {
        return new Holder(99, person, "Person " + person, THEN, "BENCH-3", "", 400);
    }

    /** A document at version 4; its head belongs to the pending revision where there is one. */
    public static Document document(Optional<Revision> pending, Optional<Revision> released, Optional<Holder> holder) {
        long head = pending.or(() -> released).map(Revision::id).orElse(1L);
        return new Document(
                3,
                "TG40-3030",
                "Gland plate",
                "tg40-3030.dxf",
                PLACE,
                30,
                new Head(400, 4, head, CONTENT, CONTENT),
                pending,
                released,
                Optional.empty(),
                holder,
                false);
    }

    /** The same as a part without a file. */
    public static Document part(Document d) {
        return new Document(
                d.id(),
                d.number(),
                d.title(),
                d.fileName(),
                d.place(),
                d.line(),
                d.head(),
                d.pending(),
                d.released(),
                d.lastEnded(),
                d.holder(),
                d.dropped(),
                d.trial(),
                true);
    }

    public static Document preparing(Optional<Holder> holder) {
        return document(Optional.of(revision("A", StageClass.PREPARING)), Optional.empty(), holder);
    }

    public static Document released() {
        return document(Optional.empty(), Optional.of(revision("A", StageClass.RELEASED)), Optional.empty());
    }

    /** The document with another latest version. */
    public static Document withHead(Document d, Head head) {
        return new Document(
                d.id(),
                d.number(),
                d.title(),
                d.fileName(),
                d.place(),
                d.line(),
                head,
                d.pending(),
                d.released(),
                d.lastEnded(),
                d.holder(),
                d.dropped());
    }

    /** The document with a latest version of a revision, brought or written by the shelf. */
    public static Document withHead(Document d, Revision revision, boolean written) {
        return withHead(
                d,
                new Head(
                        d.head().version(),
                        d.head().number(),
                        revision.id(),
                        d.head().content(),
                        d.head().digest(),
                        written));
    }
}
