package mintshelf.app.use.house;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.HouseRules;
import mintshelf.app.ground.ReadingRoom;
import mintshelf.app.sight.FactNames;
import mintshelf.app.sight.FileFacts;
import mintshelf.app.sight.Numbered;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.document.FactStore;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.house.KindFact;
import mintshelf.core.document.Document;
import mintshelf.core.document.Revision;
import mintshelf.core.fact.FactDefinition;
import mintshelf.core.fact.FactSource;
import mintshelf.core.route.Route;
import org.springframework.stereotype.Service;

/** What the rules make of a document that is here: where its facts come from, where it stands, who could do what, whom it asks. */
@Service
public class TryDocument {
    private final Numbered numbered;
    private final RevisionStore revisions;
    private final HouseStore house;
    private final FactStore facts;
    private final FactNames names;
    private final FileFacts files;
    private final ReadingRoom room;
    private final TriedAnswers answers;

    TryDocument(
            Numbered numbered,
            RevisionStore revisions,
            HouseStore house,
            FactStore facts,
            FactNames names,
            FileFacts files,
            ReadingRoom room,
            TriedAnswers answers) {
        this.numbered = numbered;
        this.revisions = revisions;
        this.house = house;
        this.facts = facts;
        this.names = names;
        this.files = files;
        this.room = room;
        this.answers = answers;
    }

    /** Of the document with this number, where it is one that the actor sees; the one that was filed first, where a drawing and its model share it. */
    public Optional<Tried> of(Actor actor, String number, long person) {
        HouseRules.ask(actor);
        return numbered.all(actor, number).stream().findFirst().map(seen -> of(actor, seen, answers.actor(person)));
    }

    private Tried of(Actor actor, Seen seen, Actor who) {
        Document document = seen.document();
        Revision revision = seen.current();
        Kind kind = house.kind(document.place().kind());
        Route route = house.edition(revision.stage().edition());
        return new Tried(
                document.fileName(),
                Optional.of(kind),
                "as it was filed",
                document.number(),
                "its own",
                List.of(),
                Optional.empty(),
                document.title(),
                "as the record has it",
                TriedAnswers.labels(kind, revision.label().orElse("")),
                revision.label().isPresent() ? "where it stands, and what comes next" : "taken at release",
                facts(actor, seen),
                Optional.of(route),
                Optional.of(revision.stage()),
                true,
                answers.may(who, document.place()),
                answers.asks(
                        route, revision.stage().code(), revisions.authors(revision.id()), List.of(document.place())),
                who.name());
    }

    private List<Tried.Fact> facts(Actor actor, Seen seen) {
        List<KindFact> sheet =
                house.factSheets().getOrDefault(seen.document().place().kind(), List.of());
        Map<String, String> values = facts.facts(seen.current().id());
        Map<String, FactNames.Shown> shown =
                names.shown(actor, sheet.stream().map(KindFact::fact).toList(), values);
        Map<String, String> said = room.apart(() -> files.of(seen.spine().content()));
        return sheet.stream()
                .map(f -> new Tried.Fact(
                        f.fact().label(),
                        shown.getOrDefault(f.fact().name(), FactNames.Shown.NOTHING)
                                .text(),
                        why(f, values, said, seen),
                        f.required()))
                .toList();
    }

    private static String why(KindFact of, Map<String, String> values, Map<String, String> said, Seen seen) {
        FactDefinition fact = of.fact();
        String value = values.getOrDefault(fact.name(), "");
        String place = FileFacts.place(seen.spine().content().kind());
        String there = said.getOrDefault(fact.name(), "");
        boolean read = fact.use().source().isRead();
        String differs = read && !there.isEmpty() && !there.equals(value) ? "; " + place + " says “" + there + "”" : "";
        if (value.isEmpty()) return of.required().words() + differs;
        if (fact.use().source() == FactSource.COMPUTED)
            return "put together from " + fact.use().formula();
        return there.equals(value) && read ? "from " + place : "typed" + differs;
    }
}
