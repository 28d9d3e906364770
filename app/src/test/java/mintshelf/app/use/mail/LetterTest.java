package mintshelf.app.use.mail;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import javax.xml.parsers.DocumentBuilderFactory;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.use.mail.Enclosures.Enclosed;
import mintshelf.app.use.mail.Enclosures.Enclosure;
import mintshelf.core.base.ContentHash;
import mintshelf.core.content.ContentKind;
import org.junit.jupiter.api.Test;
import org.w3c.dom.Document;
import org.w3c.dom.NodeList;

class LetterTest {
    private static Letter letter(String first, String title, String note, List<String> trail) {
        return new Letter(
                first,
                first,
                Optional.empty(),
                List.<String[]>of(
                        new String[] {"TG40-3030 B, version 7: " + title, "https://shelf.example/documents/7"}),
                note,
                trail,
                new String[] {"Look at the sheet and answer", "https://shelf.example/rounds/12"});
    }

    @Test
    void theQuestionComesFirstThenTheLinkTheDocumentsTheNoteTheTrail() {
        String text = letter(
                        "Will you sign TG40-3030 B as checker, by Thu 19 Nov 2026?",
                        "Gland plate",
                        "the bore is new",
                        List.of("Priya Malhan sent it.", "Hedda Lysgaard signed."))
                .text();
        assertThat(text.lines().findFirst()).contains("Will you sign TG40-3030 B as checker, by Thu 19 Nov 2026?");
        assertThat(text)
                .containsSubsequence(
                        "Look at the sheet and answer: https://shelf.example/rounds/12",
                        "TG40-3030 B, version 7: Gland plate",
                        "  https://shelf.example/documents/7",
                        "“the bore is new”",
                        "Priya Malhan sent it.",
                        "Hedda Lysgaard signed.",
                        "nothing is signed by following it");
        assertThat(letter("x", "y", "", List.of()).text())
                .as("no note, no quotes")
                .doesNotContain("“");
    }

    @Test
    void whatPeopleWroteIsTextInTheMarkupAndNothingElse() throws Exception {
        Letter hostile = letter(
                "<b>\"first\"</b> & more",
                "<img src=x onerror=alert(1)>",
                "</p><script>alert(2)</script>",
                List.of("Priya: <a href=\"https://evil.example\">here</a>"));
        String html = hostile.html(true);
        Document page = DocumentBuilderFactory.newInstance()
                .newDocumentBuilder()
                .parse(new ByteArrayInputStream(html.replaceAll("<img ([^>]*)>", "<img $1/>")
                        .replace("<br>", "<br/>")
                        .getBytes(StandardCharsets.UTF_8)));
        assertThat(page.getElementsByTagName("script").getLength()).isZero();
        NodeList pictures = page.getElementsByTagName("img");
        assertThat(pictures.getLength()).isEqualTo(1);
        assertThat(pictures.item(0).getAttributes().getNamedItem("src").getNodeValue())
                .isEqualTo("cid:sheet");
        NodeList links = page.getElementsByTagName("a");
        for (int i = 0; i < links.getLength(); i++) {
            assertThat(links.item(i).getAttributes().getNamedItem("href").getNodeValue())
                    .startsWith("https://shelf.example/");
        }
        assertThat(page.getDocumentElement().getTextContent())
                .contains("<b>\"first\"</b> & more", "<img src=x onerror=alert(1)>", "</p><script>alert(2)</script>");
    }

    @Test
    void withoutAPictureNoneIsAskedFor() {
        assertThat(letter("x", "y", "", List.of()).html(false)).doesNotContain("<img", "cid:");
    }

    @Test
    void anInvitationSaysHowLongItsLinkWorks() {
        Letter letter =
                Letter.inviting("Ines Kallmar invites you to Mint Shelf", "https://shelf.example/set-password/abc");
        assertThat(letter.subject()).isEqualTo("Ines Kallmar invites you to Mint Shelf");
        assertThat(letter.text())
                .startsWith("Ines Kallmar invites you to Mint Shelf.\n")
                .contains("Set your password: https://shelf.example/set-password/abc")
                .contains("It works once, for 14 days.");
        assertThat(letter.documents()).isEmpty();
    }

    private static Letter of(String name, int size, String says) {
        Optional<Enclosure> file = size < 0
                ? Optional.empty()
                : Optional.of(new Enclosure(
                        7, name, new StoredContent(1, ContentHash.compute(new byte[0]), size, ContentKind.PDF)));
        return letter("Released " + name, "y", "", List.of()).with(new Enclosed(file, says));
    }

    @Test
    void aFileThatGoesWithItIsSaidInTextAndMarkup() {
        Letter letter = of("TG40-3030 B.pdf", 10, "With it: TG40-3030 B.pdf <1 kB>.");
        assertThat(letter.files()).hasSize(1);
        assertThat(letter.text()).contains("With it: TG40-3030 B.pdf <1 kB>.");
        assertThat(letter.html(false)).contains("With it: TG40-3030 B.pdf &lt;1 kB&gt;.");
        Letter none = letter("x", "y", "", List.of());
        assertThat(none.with(Enclosed.NOTHING)).isSameAs(none);
    }

    /** Of several in one mail each file goes once, and only as many as a mail holds; what does not go is said. */
    @Test
    void filesOfSeveralGoTogetherUpToWhatAMailHolds() {
        Letter all = Letter.together(
                List.of(
                        of("A.pdf", 60, "With it: A."),
                        of("A.pdf", 60, "With it: A."),
                        of("B.pdf", 60, "With it: B."),
                        of("C.pdf", 40, "With it: C."),
                        of("D.pdf", -1, "There is no PDF of D.")),
                "https://shelf.example",
                100);
        assertThat(all.files()).extracting(Enclosure::name).containsExactly("A.pdf", "C.pdf");
        assertThat(all.ofFiles())
                .containsExactly(
                        "With it: A.",
                        "B.pdf did not go into this mail with the others: fetch it there.",
                        "With it: C.",
                        "There is no PDF of D.");
        assertThat(all.text()).contains("5 notices", "There is no PDF of D.");
    }
}
