package mintshelf.app.use.mail;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.sight.RoundSight;
import mintshelf.app.sight.RoundSight.RoundView;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.use.mail.Enclosures.Enclosed;
import mintshelf.app.use.mail.Enclosures.Enclosure;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Texts;
import mintshelf.core.content.ContentKind;
import mintshelf.core.document.Document;
import mintshelf.core.signoff.Ask;
import mintshelf.core.signoff.SignOff;

/**
 * A mail before it is packed: the question or the news first, then the documents with their links, then the trail as sentences.
 *
 * @param picture whose sheet is shown small
 * @param link text and address of the page with the buttons
 * @param files that go with it
 * @param ofFiles what is said of them, and of those that do not go
 */
record Letter(
        String subject,
        String first,
        Optional<StoredContent> picture,
        List<String[]> documents,
        String note,
        List<String> trail,
        String[] link,
        List<Enclosure> files,
        List<String> ofFiles) {

    Letter(
            String subject,
            String first,
            Optional<StoredContent> picture,
            List<String[]> documents,
            String note,
            List<String> trail,
            String[] link) {
        this(subject, first, picture, documents, note, trail, link, List.of(), List.of());
    }

    /** The same with a file, or with the word that there is none. */
    Letter with(Enclosed enclosed) {
        if (enclosed.says().isEmpty()) return this;
        return new Letter(
                subject,
                first,
                picture,
                documents,
                note,
                trail,
                link,
                enclosed.file().stream().toList(),
                List.of(enclosed.says()));
    }

    /**
     * @param forWhom name of whom the receiver stands in for; empty for nobody
     * @param again whether it was asked before
     * @param differences what the first sheet changes, in short; empty where there is nothing to compare
     */
    static Letter asking(
            RoundView view,
            Ask ask,
            String forWhom,
            boolean again,
            String origin,
            String due,
            Optional<String> differences) {
        String named = named(view);
        String question = (again ? "It still waits: will you sign " : "Will you sign ") + named
                + (forWhom.isEmpty() ? "" : " for " + forWhom) + " as "
                + ask.line().meaning() + ", by " + due + "?";
        Letter letter = of(view, question, question, origin, "Look at the sheet and answer");
        if (differences.isEmpty()) return letter;
        List<String> trail = new ArrayList<>(List.of(differences.get()));
        trail.addAll(letter.trail());
        return new Letter(
                letter.subject(),
                letter.first(),
                letter.picture(),
                letter.documents(),
                letter.note(),
                trail,
                letter.link());
    }

    /** News of a document that no round stands behind; {@code to} is the page that it leads to. */
    static Letter news(Seen seen, String says, String origin, String to) {
        Document d = seen.document();
        String[] document = {
            d.number() + d.current().label().map(l -> " " + l).orElse("") + ", version " + seen.version() + ": "
                    + d.title(),
            origin + "/documents/" + d.id()
        };
        StoredContent content = seen.spine().content();
        boolean shown =
                content.kind() == ContentKind.DXF && seen.version() == d.head().number();
        return new Letter(
                Texts.shorten(Texts.line(says), 150),
                says + (says.endsWith(".") ? "" : "."),
                shown ? Optional.of(content) : Optional.empty(),
                List.<String[]>of(document),
                "",
                List.of(),
                new String[] {"Look at it", origin + to});
    }

    /** Of something that concerns no document. */
    static Letter word(String says, String link) {
        return new Letter(
                Texts.shorten(Texts.line(says), 150),
                says + (says.endsWith(".") ? "" : "."),
                Optional.empty(),
                List.of(),
                "",
                List.of(),
                new String[] {"Look at it", link});
    }

    /**
     * Several notices in one mail: each with its sentence and its link.
     *
     * @param largest how many bytes of files go with it
     */
    static Letter together(List<Letter> parts, String origin, long largest) {
        List<String[]> lines = new ArrayList<>();
        List<Enclosure> files = new ArrayList<>();
        Set<String> said = new LinkedHashSet<>();
        long size = 0;
        for (Letter p : parts) {
            lines.add(new String[] {p.note().isEmpty() ? p.first() : p.first() + " “" + p.note() + "”", p.link()[1]});
            if (p.files().isEmpty()) said.addAll(p.ofFiles());
            for (Enclosure file : p.files()) {
                // A revision may be told of twice; its file goes once.
                if (files.stream().anyMatch(f -> f.name().equals(file.name()))) continue;
                if (size + file.content().size() > largest) {
                    said.add(file.name() + " did not go into this mail with the others: fetch it there.");
                    continue;
                }
                size += file.content().size();
                files.add(file);
                said.addAll(p.ofFiles());
            }
        }
        return new Letter(
                Texts.shorten(parts.get(0).subject(), 110) + " (and " + (parts.size() - 1) + " more)",
                Numbers.count(parts.size(), "notice", "notices") + " of Mint Shelf:",
                Optional.empty(),
                lines,
                "",
                List.of(),
                new String[] {"All of it stands on Today", origin + "/today"},
                files,
                List.copyOf(said));
    }

    /** The link that sets a password. */
    static Letter inviting(String says, String link) {
        return new Letter(
                says,
                says + ".",
                Optional.empty(),
                List.of(),
                "",
                List.of("The link sets your password. It works once, for 14 days."),
                new String[] {"Set your password", link});
    }

    static Letter telling(RoundView view, String says, String origin) {
        return of(view, Texts.shorten(Texts.line(says), 150), says + ".", origin, "Look at the round");
    }

    private static Letter of(RoundView view, String subject, String first, String origin, String link) {
        List<String[]> documents = new ArrayList<>();
        for (RoundSight.RoundLine line : view.lines()) {
            Document d = line.seen().document();
            documents.add(new String[] {
                d.number() + d.current().label().map(l -> " " + l).orElse("") + ", version "
                        + line.item().number() + ": " + d.title(),
                origin + "/documents/" + d.id()
            });
        }
        List<String> trail = new ArrayList<>();
        trail.add(view.round().byName() + " sent it.");
        for (SignOff s : view.round().signOffs()) {
            trail.add(s.signer() + " " + s.decision().words()
                    + (s.remark().isEmpty() ? "." : ": " + Texts.line(s.remark()))
                    + (s.stands() ? "" : " That fell: " + s.fellWhy() + "."));
        }
        return new Letter(
                subject,
                first,
                view.lines().stream()
                        .map(l -> l.seen().spine().content())
                        .filter(c -> c.kind() == ContentKind.DXF)
                        .findFirst(),
                documents,
                view.round().note(),
                trail,
                new String[] {link, origin + "/rounds/" + view.round().id()});
    }

    private static String named(RoundView view) {
        Document first = view.lines().get(0).seen().document();
        String one = first.number() + first.current().label().map(l -> " " + l).orElse("");
        return view.lines().size() == 1 ? one : one + " and " + (view.lines().size() - 1) + " more";
    }

    String text() {
        StringBuilder text = new StringBuilder(first).append("\n\n");
        text.append(link[0]).append(": ").append(link[1]).append("\n\n");
        documents.forEach(d -> text.append(d[0]).append("\n  ").append(d[1]).append('\n'));
        if (!note.isEmpty()) text.append("\n“").append(note).append("”\n");
        text.append('\n');
        trail.forEach(t -> text.append(t).append('\n'));
        ofFiles.forEach(t -> text.append(t).append('\n'));
        return text.append("\nThe link opens a page; nothing is signed by following it.\n")
                .toString();
    }

    String html(boolean withPicture) {
        StringBuilder html = new StringBuilder("<html><body style=\"font-family:sans-serif;color:#1c2a26\"><p><b>")
                .append(escape(first))
                .append("</b></p>");
        if (withPicture) {
            html.append("<p><a href=\"")
                    .append(escape(link[1]))
                    .append(
                            "\"><img src=\"cid:sheet\" width=\"360\" alt=\"The sheet\" style=\"border:1px solid #b9c6bf\"></a></p>");
        }
        html.append("<p><a href=\"")
                .append(escape(link[1]))
                .append("\">")
                .append(escape(link[0]))
                .append("</a></p><ul>");
        documents.forEach(d -> html.append("<li><a href=\"")
                .append(escape(d[1]))
                .append("\">")
                .append(escape(d[0]))
                .append("</a></li>"));
        html.append("</ul>");
        if (!note.isEmpty()) html.append("<p>“").append(escape(note)).append("”</p>");
        html.append("<p>");
        trail.forEach(t -> html.append(escape(t)).append("<br>"));
        ofFiles.forEach(t -> html.append(escape(t)).append("<br>"));
        return html.append(
                        "</p><p style=\"color:#5a6a64\">The link opens a page; nothing is signed by following it.</p>")
                .append("</body></html>")
                .toString();
    }

    private static String escape(String text) {
        return text.replace("&", "&amp;")
                .replace("<", "&lt;")
                .replace(">", "&gt;")
                .replace("\"", "&quot;");
    }
}
