package mintshelf.app.use.relocate;

import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import mintshelf.app.effect.DrawNumbers;
import mintshelf.app.effect.Recorder;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.DocumentStore;
import mintshelf.app.store.document.NumberStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.document.Document;
import mintshelf.core.document.FileName;
import mintshelf.core.document.RelocateRules;
import mintshelf.core.numbering.NumberKey;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.stereotype.Service;

/**
 * Gives a document another number, or its file another name. No version is made; the old number and the old name keep finding it, and are
 * given to no other.
 */
@Service
public class Rename {
    private final Sight sight;
    private final DocumentStore documents;
    private final NumberStore numbers;
    private final DrawNumbers draw;
    private final HouseStore house;
    private final Recorder recorder;
    private final Acts acts;
    private final Clock clock;

    public Rename(
            Sight sight,
            DocumentStore documents,
            NumberStore numbers,
            DrawNumbers draw,
            HouseStore house,
            Recorder recorder,
            Acts acts,
            Clock clock) {
        this.sight = sight;
        this.documents = documents;
        this.numbers = numbers;
        this.draw = draw;
        this.house = house;
        this.recorder = recorder;
        this.acts = acts;
        this.clock = clock;
    }

    /** A document that could be renamed, and what is in the way. */
    public record View(Seen seen, List<String> former, List<Refusal> inTheWay) {}

    public View view(Actor actor, long item) {
        Seen seen = sight.of(actor, item);
        if (!seen.all()) throw new NotThere();
        return new View(seen, numbers.former(List.of(item)).getOrDefault(item, List.of()), inTheWay(actor, seen));
    }

    private static List<Refusal> inTheWay(Actor actor, Seen seen) {
        if (seen.spine().isChangePaper()) {
            return List.of(Refusal.of(
                    "change.paper",
                    seen.document().number() + " is a " + seen.spine().kindName() + "; changes write it.",
                    "It keeps its number."));
        }
        return RelocateRules.changing(actor.access(), seen.document());
    }

    /**
     * Renames.
     *
     * @param number as it is to be; as it was for the same
     * @param name of the file, with its ending, which stays
     * @param why a reason, for the record
     */
    public void rename(
            Actor actor, long item, String key, int expectedVersion, String number, String name, String why) {
        try {
            acts.once(actor, key, () -> {
                Seen seen = sight.locked(actor, item);
                if (!seen.all()) throw new NotThere();
                Sight.expectVersion(seen, expectedVersion);
                inTheWay(actor, seen).stream().findFirst().ifPresent(r -> {
                    throw new Refused(r);
                });
                List<String> did = new ArrayList<>();
                number(actor, seen, number, did);
                if (!seen.document().part()) file(seen, name, did);
                if (did.isEmpty()) {
                    throw Refused.because("rename.same", "It is called so already.", "Change its number or its name.");
                }
                documents.touch(item, clock.instant());
                recorder.note(actor, item, "document.renamed", seen.version(), String.join(" and ", did), reason(why));
                return "";
            });
        } catch (DuplicateKeyException e) {
            throw Refused.because(
                    "number.used",
                    "The number or the file name was taken at this moment.",
                    "Choose another one; nothing was changed.");
        }
    }

    private static String reason(String why) {
        return Texts.optional("The reason", why, 500).orElseThrow(Refused::new);
    }

    private void number(Actor actor, Seen seen, String said, List<String> did) {
        Document document = seen.document();
        NumberKey now = NumberKey.of(document.number()).orElseThrow(Refused::new);
        NumberKey wanted = NumberKey.of(said).orElseThrow(Refused::new);
        if (wanted.number().equals(now.number())) return;
        Kind kind = house.kind(document.place().kind());
        // Its own, written otherwise, and one that it had before, are its own to take.
        boolean own = numbers.item(kind.aspect(), wanted)
                .filter(i -> i == document.id())
                .isPresent();
        NumberKey number = own
                ? wanted
                : draw.take(actor.person(), kind, document.place().shelf(), said, Map.of())
                        .orElseThrow(Refused::new);
        numbers.rename(kind.aspect(), document.id(), number, clock.instant());
        documents.renumber(document.id(), number);
        did.add("gave it the number " + number.number() + " in place of " + now.number());
    }

    private void file(Seen seen, String said, List<String> did) {
        Document document = seen.document();
        FileName now = FileName.of(document.fileName());
        FileName wanted = FileName.of(said);
        if (wanted.name().equals(now.name())) return;
        if (!wanted.name().equals(said.strip())) {
            throw Refused.because(
                    "name.file_system",
                    "“" + said.strip() + "” can be no file on a disk.",
                    "Leave out < > : \" / \\ | ? *; nothing was changed.");
        }
        if (!wanted.extension().equals(now.extension())) {
            throw Refused.because(
                    "name.ending",
                    "Its ending says what it is: “" + now.extension() + "”.",
                    "Keep the ending; nothing was changed.");
        }
        long folder = seen.spine().folder();
        if (!wanted.key().equals(now.key()) && documents.fileNameIsTaken(folder, wanted)) {
            throw Refused.because(
                    "file.name",
                    "A file named “" + wanted.name() + "” is in this folder already.",
                    "Choose another name; nothing was changed.");
        }
        documents.rename(document.id(), wanted);
        if (!wanted.key().equals(now.key())) documents.rememberName(document.id(), now, clock.instant());
        did.add("called its file " + wanted.name() + " in place of " + now.name());
    }
}
