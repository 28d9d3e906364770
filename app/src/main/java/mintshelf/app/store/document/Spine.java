package mintshelf.app.store.document;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.shelf.ShelfStore.Folder;
import mintshelf.core.change.PaperType;
import mintshelf.core.document.Document;
import mintshelf.core.document.Head;

/**
 * A document as lists and pages show it.
 *
 * @param paper what it is in a change; empty for what people bring
 * @param releasedVersion number of the version that the released revision was released with
 * @param content of the head version
 * @param path its folder and those above it, the lowest first
 * @param strays how many strays are kept beside it
 * @param remarks how many remarks on its sheets are open
 * @param out what of it is out of the house; empty when it was never released
 * @param hidesRevising whether its shelf or kind keeps from readers that it is being revised
 */
public record Spine(
        Document document,
        String kindName,
        String kindCode,
        Optional<PaperType> paper,
        String glyph,
        String authorName,
        long author,
        Instant changed,
        Optional<Integer> releasedVersion,
        StoredContent content,
        List<Folder> path,
        int strays,
        int remarks,
        Optional<Out> out,
        boolean hidesRevising) {
    /**
     * What who sees released versions only knows of a document.
     *
     * @param title that it was released with last
     * @param at when anything of that moved last
     * @param head the version that is in force
     * @param content of that version
     */
    public record Out(String title, Instant at, Head head, StoredContent content) {}

    /** As it is known outside the house: nothing of work in preparation, of holds, strays and remarks, the title that was released. */
    public Spine released() {
        Document d = document;
        return new Spine(
                new Document(
                        d.id(),
                        d.number(),
                        out.orElseThrow().title(),
                        d.fileName(),
                        d.place(),
                        d.line(),
                        out.get().head(),
                        Optional.empty(),
                        d.released(),
                        d.lastEnded(),
                        Optional.empty(),
                        d.dropped(),
                        0,
                        d.part()),
                kindName,
                kindCode,
                paper,
                glyph,
                authorName,
                author,
                out.get().at(),
                releasedVersion,
                out.get().content(),
                path,
                0,
                0,
                out,
                hidesRevising);
    }

    /**
     * As it stands on the line of a trial: strays and remarks are those of its main line.
     *
     * @param tried the document there, {@code latest} its content there
     */
    public Spine onTrial(Document tried, StoredContent latest) {
        return new Spine(
                tried,
                kindName,
                kindCode,
                paper,
                glyph,
                authorName,
                author,
                changed,
                releasedVersion,
                latest,
                path,
                0,
                0,
                out,
                hidesRevising);
    }

    public long id() {
        return document.id();
    }

    public long folder() {
        return path.get(0).id();
    }

    public boolean isOrder() {
        return paper.filter(p -> p == PaperType.ORDER).isPresent();
    }

    public boolean isRequest() {
        return paper.filter(p -> p == PaperType.REQUEST).isPresent();
    }

    /** The address of its own page. */
    public String page() {
        return (isOrder() ? "/orders/" : isRequest() ? "/requests/" : "/documents/") + id();
    }

    public boolean isNotice() {
        return paper.filter(p -> p == PaperType.NOTICE).isPresent();
    }

    /** Whether the shelf writes what it holds: a paper of a change, or a part without a file. No file refers to it, none is brought for it. */
    public boolean isWritten() {
        return isChangePaper() || document.part();
    }

    /** Whether it is a paper of a change, which its own page moves. */
    public boolean isChangePaper() {
        return paper.isPresent();
    }
}
