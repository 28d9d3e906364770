package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Sheets;
import mintshelf.app.store.document.FactStore;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.structure.LinkStore;
import mintshelf.app.store.structure.ReferenceStore;
import mintshelf.app.use.begin.BeginDocument;
import mintshelf.app.use.begin.BeginDocument.Wish;
import mintshelf.app.use.document.DropDocument;
import mintshelf.app.use.document.KeepFacts;
import mintshelf.app.use.revision.StartRevisions;
import mintshelf.core.document.Document;
import org.junit.jupiter.api.Test;

/** New documents begin from templates and from documents that are there. */
class BeginTest {
    private final Server server = Server.shared();
    private final BeginDocument begin = server.bean(BeginDocument.class);
    private final FactStore facts = server.bean(FactStore.class);
    private final VersionStore versions = server.bean(VersionStore.class);
    private final Actor priya = server.actor("priya");

    private static Wish wish(String number, String title) {
        return new Wish(Optional.empty(), Optional.empty(), number, title, Map.of(), true);
    }

    private Document make(Actor actor, long from, Wish wish) {
        String target = begin.make(actor, from, Server.key(), wish);
        return server.document(Long.parseLong(target.replaceAll("\\D", "")));
    }

    private long drawing(long shelf) {
        byte[] sheet = Review.sheet("begin " + UUID.randomUUID());
        long item = server.file("priya", shelf, "drawing", "BG" + shelf + "-10 plate.dxf", sheet, false);
        server.bean(KeepFacts.class)
                .keep(
                        priya,
                        item,
                        Server.key(),
                        "Gland plate",
                        Map.of("mass", "0.62", "surface", "bead blasted"),
                        Map.of());
        return item;
    }

    private Map<String, String> said(Document made) {
        return server.bean(Sheets.class)
                .said(versions.version(made.id(), made.head().number())
                        .orElseThrow()
                        .content());
    }

    @Test
    void aCopyHasItsOwnNumberTitleBlockAndFacts() {
        long shelf = server.shelf();
        long from = drawing(shelf);
        BeginDocument.View view = begin.view(priya, from, wish("", ""));
        assertThat(view.cleared()).extracting(f -> f.name()).containsExactly("mass");
        assertThat(view.kind().code()).isEqualTo("drawing");
        Document made = make(priya, from, wish("", "Gland plate, long"));
        assertThat(made.number()).isEqualTo(view.coming().orElseThrow());
        assertThat(made.title()).isEqualTo("Gland plate, long");
        assertThat(made.fileName()).isEqualTo(made.number() + ".dxf");
        assertThat(made.head().number()).isEqualTo(1);
        assertThat(made.holder()).hasValueSatisfying(h -> assertThat(h.person()).isEqualTo(priya.person()));
        assertThat(facts.facts(made.current().id()))
                .containsEntry("surface", "bead blasted")
                .containsEntry("material", "316L")
                .doesNotContainKey("mass");
        assertThat(said(made)).containsEntry("title", "Gland plate, long");
        assertThat(new String(
                        server.bytes(
                                versions.version(made.id(), 1).orElseThrow().content()),
                        Review.WINDOWS))
                .contains(made.number() + "\r\n  2\r\nNUMBER");
        assertThat(server.bean(LinkStore.class).around(List.of(made.id())))
                .anySatisfy(l -> assertThat(l.kind() + " " + l.target()).isEqualTo("STARTED_FROM " + from));
        assertThat(server.document(from).head().number())
                .as("the other one stays as it is")
                .isEqualTo(1);

        Document second = make(priya, made.id(), wish("BG" + shelf + "-77", "Third"));
        assertThat(second.number()).isEqualTo("BG" + shelf + "-77");
        assertThat(said(second)).containsEntry("title", "Third");
    }

    @Test
    void oneKeyMakesOneDocument() {
        long from = drawing(server.shelf());
        String key = Server.key();
        String first = begin.make(priya, from, key, wish("", "Once"));
        assertThat(begin.make(priya, from, key, wish("", "Once"))).isEqualTo(first);
    }

    @Test
    void whatWasTypedIsSaidAndWhatIsNoValueIsRefused() {
        long from = drawing(server.shelf());
        Document made = make(
                priya,
                from,
                new Wish(Optional.empty(), Optional.empty(), "", "Typed", Map.of("mass", "1.5", "surface", ""), false));
        assertThat(facts.facts(made.current().id()))
                .containsEntry("mass", "1.5")
                .doesNotContainKey("surface");
        assertThat(made.holder()).isEmpty();
        assertThatThrownBy(() -> make(
                        priya,
                        from,
                        new Wish(Optional.empty(), Optional.empty(), "", "Typed", Map.of("mass", "heavy"), false)))
                .isInstanceOf(Refused.class);
        assertThatThrownBy(() -> make(priya, from, wish("", " "))).isInstanceOf(Refused.class);
        assertThatThrownBy(() -> make(priya, from, wish(server.document(from).number(), "Taken")))
                .isInstanceOfSatisfying(
                        Refused.class, r -> assertThat(r.refusal().code()).isEqualTo("number.used"));
    }

    @Test
    void aKindThatAFolderDoesNotTakeIsNotAnotherOne() {
        long from = drawing(server.shelf());
        Wish unknown = new Wish(Optional.empty(), Optional.of(1L << 40), "", "Which", Map.of(), false);
        assertThatThrownBy(() -> make(priya, from, unknown)).isInstanceOf(NotThere.class);
        assertThat(begin.view(priya, from, unknown).kinds())
                .as("the page offers what there is")
                .isNotEmpty();
    }

    @Test
    void aTemplateInForceMakesWhatTheFilingRulesSay() {
        long shelf = server.shelf();
        long template = server.file(
                "priya",
                shelf,
                "template",
                "TP" + shelf + "-10 sheet.dxf",
                Review.sheet("tp " + UUID.randomUUID()),
                false);
        assertThat(begin.templates(priya, 0, 1000))
                .extracting(s -> s.spine().id())
                .doesNotContain(template);
        server.release("priya", template);
        server.bean(StartRevisions.class).start(priya, List.of(template), Server.key(), "a new frame", "", true);
        assertThat(begin.templates(priya, 0, 1000))
                .extracting(s -> s.spine().id())
                .contains(template);
        BeginDocument.View view = begin.view(priya, template, wish("", ""));
        assertThat(view.template()).isTrue();
        assertThat(view.kind().code()).isEqualTo("drawing");
        Document made = make(priya, template, wish("", "From the sheet"));
        assertThat(made.place().kind()).isEqualTo(server.kind("drawing"));
        assertThat(said(made)).containsEntry("title", "From the sheet");
        // The template moves on: what is in force is copied, not what is under way.
        assertThat(begin.view(priya, template, wish("", "")).version()).isEqualTo(1);
    }

    @Test
    void whatItRefersToStaysReferredTo() {
        long shelf = server.shelf();
        long part = server.file("priya", shelf, "part " + shelf + ".txt", "part " + UUID.randomUUID(), false);
        long parent = server.file("priya", shelf, "whole " + shelf + ".txt", "whole " + UUID.randomUUID(), false);
        server.refer(server.document(parent).head().version(), part, "part " + shelf + ".txt");
        Document made = make(priya, parent, wish("WH" + shelf + "-20", "Whole again"));
        assertThat(server.bean(ReferenceStore.class).of(made.head().version()))
                .singleElement()
                .satisfies(r -> assertThat(r.component().orElseThrow().item()).isEqualTo(part));
    }

    @Test
    void onlyWhoMayFileBeginsAnything() {
        long shelf = server.shelf();
        long from = server.released(shelf, "BN" + shelf + "-10 eye.txt");
        assertThatThrownBy(() -> begin.view(server.actor("rafael"), from, wish("", "")))
                .isInstanceOf(NotThere.class);
        assertThatThrownBy(() -> begin.make(server.actor("rafael"), from, Server.key(), wish("", "Mine")))
                .isInstanceOf(NotThere.class);
        assertThatThrownBy(() -> begin.templates(server.actor("rafael"), 0, 10)).isInstanceOf(NotThere.class);
        long dropped = server.file("priya", shelf, "BN" + shelf + "-20 eye.txt", "x " + shelf, false);
        server.bean(DropDocument.class).drop(priya, dropped, Server.key(), "by mistake");
        assertThatThrownBy(() -> make(server.actor("ines"), dropped, wish("", "Again")))
                .isInstanceOfSatisfying(
                        Refused.class, r -> assertThat(r.refusal().code()).isEqualTo("copy.nothing"));
        assertThatThrownBy(() ->
                        make(priya, from, new Wish(Optional.of(1L << 40), Optional.empty(), "", "x", Map.of(), true)))
                .isInstanceOf(NotThere.class);
    }
}
