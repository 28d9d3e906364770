package mintshelf.core.takein;

import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Texts;
import mintshelf.core.document.FileName;
import mintshelf.core.filing.FilingRule;
import mintshelf.core.numbering.NumberKey;
import mintshelf.core.revision.RevisionSeries;
import mintshelf.core.takein.TakeRules.Stands;

/**
 * What each file says by itself: first what somebody mended by hand, then its line of the table, its sheet, its name. How files stand to
 * each other is asked in {@link Histories}.
 */
final class Drafts {
    private static final int TITLE = 200;

    /** What programs leave lying beside the files that people made. */
    private static final Pattern LEFTOVER = Pattern.compile(
            "(?:^|/)(?:thumbs\\.db|desktop\\.ini|\\.ds_store|~\\$[^/]*|\\._[^/]*|[^/]*\\.(?:bak|tmp|lck|dwl2?|swp|log))$|(?:^|/)__macosx/",
            Pattern.CASE_INSENSITIVE);

    private static final Map<String, Stands> STAGES = stages();

    private final TakeRules rules;
    private final Grounds grounds;

    Drafts(TakeRules rules, Grounds grounds) {
        this.rules = rules;
        this.grounds = grounds;
    }

    private static Map<String, Stands> stages() {
        Map<String, Stands> stages = new HashMap<>();
        for (Stands stands : Stands.values()) stages.put(stands.words(), stands);
        List.of("preparing", "in work", "draft", "pending").forEach(w -> stages.put(w, Stands.IN_PREPARATION));
        List.of("in force", "valid", "issued", "approved").forEach(w -> stages.put(w, Stands.RELEASED));
        List.of("replaced", "outdated").forEach(w -> stages.put(w, Stands.SUPERSEDED));
        List.of("invalid", "obsolete").forEach(w -> stages.put(w, Stands.WITHDRAWN));
        return stages;
    }

    /**
     * @param line what the table says of the file
     * @param mended what somebody said of it by hand, which goes before all else
     */
    Draft of(Found file, Optional<TakeTable.Line> line, Map<Column, String> mended) {
        Draft draft = new Draft(file);
        Says says = new Says(line, mended);
        Optional<String> leave = says.of(Column.LEAVE_OUT).filter(l -> !l.equalsIgnoreCase("no"));
        if (leave.isPresent()) {
            draft.leaveOut("take.left_out", "Left out by hand or by the table.", "");
        } else if (!file.unread().isEmpty()) {
            draft.stop("take.unread", file.unread(), "Bring it once more, or leave it out.");
        } else if (file.size() == 0) {
            draft.leaveOut("take.empty", "The file is empty.", "");
        } else if (LEFTOVER.matcher(file.path()).find()) {
            draft.leaveOut("take.leftover", "What a program left beside the files.", "");
        } else {
            said(draft, says);
        }
        return draft;
    }

    /** What a person or the table says; the person first. */
    private record Says(Optional<TakeTable.Line> line, Map<Column, String> mended) {
        Optional<String> of(Column column) {
            String hand = mended.getOrDefault(column, "");
            if (!hand.isEmpty()) return Optional.of(hand);
            return line.map(l -> l.of(column)).filter(s -> !s.isEmpty());
        }

        String from(Column column) {
            return mended.getOrDefault(column, "").isEmpty() ? "the table" : "you";
        }
    }

    private void said(Draft draft, Says says) {
        Found file = draft.file;
        Reading reading = Reading.of(file.name());
        kind(draft, says);
        String number = number(draft, says, reading);
        String title = title(draft, says, reading);
        String revision = revision(draft, says, reading);
        draft.why = "number from " + number + ", title from " + title
                + (draft.label.isEmpty() ? "" : ", revision from " + revision);
        says.of(Column.STAGE).ifPresent(said -> {
            Stands stands = STAGES.get(Texts.key(said));
            draft.said = Optional.ofNullable(stands);
            if (stands == null) {
                draft.stop(
                        "take.stage",
                        "“" + Texts.shorten(said, 40) + "” is no stage.",
                        "Write released, superseded, withdrawn or in preparation.");
            }
        });
        date(draft, says);
        draft.signers = says.of(Column.SIGNERS).map(s -> Texts.shorten(s, 300)).orElse("");
        sheet(draft);
        former(draft, says);
        folder(draft, says);
        draft.facts.putAll(file.says());
        draft.facts.keySet().removeAll(List.of("number", "title", "revision", RevisionTable.KEY));
        says.line().ifPresent(l -> draft.facts.putAll(l.facts()));
        draft.kind.ifPresent(k -> draft.stops.addAll(grounds.facts(k.id(), draft.facts)));
    }

    private void kind(Draft draft, Says says) {
        Optional<String> named = says.of(Column.KIND);
        if (named.isPresent()) {
            draft.kind = grounds.kindNamed(named.get());
            if (draft.kind.isEmpty()) {
                draft.stop(
                        "take.kind",
                        "“" + Texts.shorten(named.get(), 40) + "” is no kind that you may file here.",
                        "Write the name of one as the house rules have it.");
            }
            return;
        }
        draft.kind = FilingRule.first(
                        grounds.rules(), draft.file.name(), draft.file.kind().name())
                .flatMap(r -> grounds.kind(r.kind()));
        if (draft.kind.isPresent()) return;
        if (rules.leaveUnknown()) {
            draft.leaveOut(
                    "take.unknown", "No filing rule knows what it is; the rules above leave such files out.", "");
        } else {
            draft.stop(
                    "take.kind_missing",
                    "No filing rule knows what it is.",
                    "Choose its kind, or leave files of no kind out by the rule above.");
        }
    }

    private String number(Draft draft, Says says, Reading reading) {
        Optional<String> said = says.of(Column.NUMBER);
        String from = says.from(Column.NUMBER);
        if (said.isEmpty()) {
            said = Optional.of(draft.file.says().getOrDefault("number", "")).filter(n -> !n.isBlank());
            from = "the title block";
        }
        if (said.isEmpty()) {
            said = reading.number();
            from = "the file name";
        }
        if (said.isEmpty()) return "the series, drawn when it is filed";
        draft.known = true;
        Outcome<NumberKey> number = NumberKey.of(said.get());
        number.refusal().ifPresent(draft.stops::add);
        if (number instanceof Outcome.Granted<NumberKey> granted) draft.number = Optional.of(granted.value());
        String named = reading.number().orElse("");
        if (draft.number.isPresent() && !named.isEmpty() && !from.equals("the file name")) {
            boolean other = NumberKey.of(named) instanceof Outcome.Granted<NumberKey> n
                    && !n.value().key().equals(draft.number.get().key());
            if (other && from.equals("the title block")) {
                draft.hint(
                        "take.numbers_differ",
                        "Its title block says " + draft.number.get().number() + ", its name " + named + ".",
                        "The title block is believed; say another in the table.");
            }
        }
        return from;
    }

    private static String title(Draft draft, Says says, Reading reading) {
        Optional<String> said = says.of(Column.TITLE);
        String sheet = Texts.line(draft.file.says().getOrDefault("title", ""));
        String title = said.orElse(sheet.isEmpty() ? reading.title() : sheet);
        if (title.length() > TITLE) {
            draft.hint("take.title_long", "Its title is longer than " + TITLE + " letters and is cut.", "");
        }
        draft.title = Texts.shorten(title, TITLE);
        return said.isPresent() ? says.from(Column.TITLE) : sheet.isEmpty() ? "the file name" : "the title block";
    }

    private static String revision(Draft draft, Says says, Reading reading) {
        Optional<String> said = says.of(Column.REVISION);
        String from = says.from(Column.REVISION);
        if (said.isEmpty()) {
            // A dash stands on sheets that are no revision yet.
            said = Optional.of(draft.file.says().getOrDefault("revision", "").strip())
                    .filter(r -> !r.matches("[-–—._ ]*"));
            from = "the title block";
        }
        if (said.isEmpty()) {
            said = Optional.of(reading.revision()).filter(r -> !r.isEmpty());
            from = "the file name";
        }
        String label = said.orElse("");
        if (!label.isEmpty() && draft.kind.isPresent()) {
            RevisionSeries series = draft.kind.get().series();
            // As the series writes it, whatever letters were typed.
            Optional<String> known = Stream.of(label, label.toUpperCase(Locale.ROOT))
                    .flatMap(l -> series.position(l).stream())
                    .flatMap(at -> series.label(at).stream())
                    .findFirst();
            if (known.isEmpty()) {
                draft.stop(
                        "take.revision",
                        "“" + Texts.shorten(label, 20) + "” is no revision of the series " + series.says() + ".",
                        "Say one that is, or choose a kind with another series.");
            }
            label = known.orElse(label);
        }
        draft.label = Texts.shorten(label, 20);
        return from;
    }

    private void date(Draft draft, Says says) {
        says.of(Column.DATE).ifPresent(said -> {
            draft.date = TakenDays.read(said);
            if (draft.date.isEmpty()) {
                draft.stop(
                        "take.date",
                        "“" + Texts.shorten(said, 30) + "” is no day that is clear.",
                        "Write year, month and day: 2019-03-14.");
            } else if (draft.date.get().isAfter(grounds.today())) {
                draft.stop("take.date", "The day " + said + " has not come yet.", "Correct it.");
            }
        });
    }

    /** What its sheet's revision table says of its own revision, where nobody says it; the rows before it are its history. */
    private void sheet(Draft draft) {
        List<Map<String, String>> rows = RevisionTable.rows(draft.file.says().getOrDefault(RevisionTable.KEY, ""));
        int before = 0;
        for (Map<String, String> row : rows) {
            if (row.getOrDefault("revision", "").equalsIgnoreCase(draft.label)) {
                own(draft, row);
                break;
            }
            before++;
        }
        if (before > 0) {
            draft.why +=
                    ", " + Numbers.count(before, "earlier revision", "earlier revisions") + " from its revision table";
        }
    }

    private void own(Draft draft, Map<String, String> row) {
        boolean signed =
                draft.signers.isEmpty() && !row.getOrDefault("approved", "").isBlank();
        if (signed) draft.signers = Texts.shorten(row.getOrDefault("approved", ""), 300);
        if (draft.date.isPresent()
                || draft.said.filter(s -> s == Stands.IN_PREPARATION).isPresent()) return;
        draft.date = TakenDays.read(row.getOrDefault("date", "")).filter(d -> !d.isAfter(grounds.today()));
        if (draft.date.isPresent()) draft.why += ", day from its revision table";
    }

    private void former(Draft draft, Says says) {
        says.of(Column.FORMER).ifPresent(said -> {
            for (String one : said.split("[;,]")) {
                if (one.isBlank()) continue;
                Outcome<NumberKey> key = NumberKey.of(one);
                key.refusal().ifPresent(draft.stops::add);
                if (!(key instanceof Outcome.Granted<NumberKey> number)) continue;
                boolean own = draft.number
                        .filter(n -> n.key().equals(number.value().key()))
                        .isPresent();
                if (!own) draft.former.add(number.value().number());
            }
        });
    }

    private void folder(Draft draft, Says says) {
        Optional<String> said = says.of(Column.FOLDER);
        String wanted = said.map(f -> f.replace('\\', '/')).orElse(rules.folders() ? draft.file.folder() : "");
        draft.folder = wanted.isBlank() ? "" : FileName.path(wanted);
        for (String part : draft.folder.split("/")) {
            if (draft.folder.isEmpty()) break;
            FileName.folder("The folder", part).refusal().ifPresent(draft.stops::add);
        }
        if (draft.folder.split("/").length > 20) {
            draft.stop("take.deep", "It lies more than 20 folders deep.", "Say another folder in the table.");
        }
    }
}
