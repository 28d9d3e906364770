package mintshelf.core.takein;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import mintshelf.core.document.FileName;
import mintshelf.core.numbering.NumberKey;
import mintshelf.core.revision.RevisionSeries;
import mintshelf.core.takein.Grounds.Known;
import mintshelf.core.takein.TakeRules.Stands;

/** Which files are revisions of one document, and whether they make a history. */
final class Histories {
    private final TakeRules rules;
    private final Grounds grounds;

    Histories(TakeRules rules, Grounds grounds) {
        this.rules = rules;
        this.grounds = grounds;
    }

    /**
     * A document with its revisions, the oldest first.
     *
     * @param stands how each of them stands
     */
    record History(List<Draft> revisions, List<Stands> stands) {
        Draft latest() {
            return revisions.get(revisions.size() - 1);
        }

        boolean stops() {
            return revisions.stream().anyMatch(d -> !d.stops.isEmpty());
        }
    }

    /** Notes in the drafts what is in the way between them; gives the documents in the order of their first files. */
    List<History> of(List<Draft> drafts) {
        leaveDoubles(drafts);
        Map<String, List<Draft>> documents = new LinkedHashMap<>();
        List<Draft> kindless = new ArrayList<>();
        for (Draft draft : drafts) {
            if (!draft.takesPart()) continue;
            if (draft.number.isPresent() && draft.kind.isEmpty()) {
                kindless.add(draft);
                continue;
            }
            String own = draft.number.isPresent()
                    ? draft.kind.get().aspect() + " " + draft.number.get().key()
                    : "file " + draft.file.at();
            documents.computeIfAbsent(own, k -> new ArrayList<>()).add(draft);
        }
        // Of what kind it is nobody knows yet, but whose number it has: the others of that number wait for it.
        for (Draft draft : kindless) {
            String number = draft.number.orElseThrow().key();
            documents.entrySet().stream()
                    .filter(e -> e.getKey().endsWith(" " + number))
                    .map(Map.Entry::getValue)
                    .filter(all -> all.get(0)
                            .number
                            .filter(n -> n.key().equals(number))
                            .isPresent())
                    .findFirst()
                    .orElseGet(() -> documents.computeIfAbsent("file " + draft.file.at(), k -> new ArrayList<>()))
                    .add(draft);
        }
        List<History> histories = new ArrayList<>();
        documents.values().forEach(all -> histories.add(history(all)));
        numbers(histories);
        names(histories);
        return histories;
    }

    /** The same bytes as the same revision of the same document, or with no number of their own, are taken in once. */
    private void leaveDoubles(List<Draft> drafts) {
        Map<String, Draft> first = new HashMap<>();
        Map<String, Draft> same = new HashMap<>();
        for (Draft draft : drafts) {
            if (!draft.takesPart() || draft.file.content().isEmpty()) continue;
            String content = draft.file.content();
            Draft other = first.putIfAbsent(content, draft);
            Draft twin = same.putIfAbsent(
                    content + " " + draft.number.map(NumberKey::key).orElse("") + " " + draft.label, draft);
            if (twin != null && draft.known) {
                draft.leaveOut("take.double", "The same file as " + twin.file.path() + ", with the same number.", "");
            } else if (other != null && !draft.known && rules.leaveDoubles()) {
                draft.leaveOut(
                        "take.double", "The same content as " + other.file.path() + ", and no number of its own.", "");
            } else if (other != null) {
                draft.hint(
                        "take.double",
                        "The same content as " + other.file.path() + ".",
                        "Look whether it is meant twice.");
            }
            grounds.withContent(content).ifPresent(here -> {
                boolean itself = draft.number
                        .filter(n -> n.number().equalsIgnoreCase(here))
                        .isPresent();
                if (itself || (!draft.known && rules.leaveDoubles())) {
                    draft.leaveOut("take.here", "It is on the shelf already, as " + here + ".", "");
                } else {
                    draft.hint(
                            "take.here",
                            "Its content is on the shelf already, as " + here + ".",
                            "Leave it out if that one will do.");
                }
            });
        }
    }

    private History history(List<Draft> all) {
        List<Draft> sorted = new ArrayList<>(all);
        if (sorted.size() > 1) order(sorted);
        List<Stands> stands = new ArrayList<>();
        for (int i = 0; i < sorted.size(); i++) {
            Draft draft = sorted.get(i);
            boolean last = i == sorted.size() - 1;
            Stands usual = last ? rules.stands() : Stands.SUPERSEDED;
            Stands is = draft.said.orElse(usual);
            // What was released stays so until a later one is out.
            boolean later = !last && later(sorted.subList(i + 1, sorted.size()));
            if (is == Stands.RELEASED && later) is = Stands.SUPERSEDED;
            if (!last && is == Stands.SUPERSEDED && !later) is = Stands.RELEASED;
            if (is == Stands.IN_PREPARATION && !last) {
                draft.stop(
                        "take.two_pending",
                        named(draft) + " is said to be in preparation, but " + named(sorted.get(i + 1))
                                + " follows it.",
                        "Only the latest revision can be; say how it stands.");
            }
            if (last && is == Stands.SUPERSEDED) {
                draft.stop(
                        "take.superseded",
                        named(draft) + " is said to be superseded, but no later revision is here.",
                        "Bring the later one, or say withdrawn or released.");
            }
            stops(draft, is);
            stands.add(is);
        }
        return new History(sorted, stands);
    }

    private boolean later(List<Draft> after) {
        for (int i = 0; i < after.size(); i++) {
            boolean last = i == after.size() - 1;
            if (after.get(i)
                    .said
                    .orElse(last ? rules.stands() : Stands.SUPERSEDED)
                    .wasOut()) return true;
        }
        return false;
    }

    private static void stops(Draft draft, Stands is) {
        if (draft.kind.isEmpty()) return;
        Known kind = draft.kind.get();
        if (!kind.stops().contains(is)) {
            draft.stop(
                    "take.route",
                    "The route of the kind " + kind.name() + " has no stop for what is " + is.words() + ".",
                    "Say how it stands otherwise, or give the kind another route.");
        }
    }

    private static String named(Draft draft) {
        return draft.number.map(NumberKey::number).orElse(draft.file.path())
                + (draft.label.isEmpty() ? "" : " " + draft.label);
    }

    /** By the series; what has no label, or the label of another, cannot be placed. */
    private static void order(List<Draft> all) {
        Map<String, Draft> byLabel = new HashMap<>();
        for (Draft draft : all) {
            String label = draft.label;
            Draft other = byLabel.putIfAbsent(label, draft);
            if (other == null) continue;
            String both = "“" + other.file.path() + "” and “" + draft.file.path() + "” both say that they are "
                    + (label.isEmpty()
                            ? named(draft) + " without a revision."
                            : "revision " + label + " of "
                                    + draft.number.map(NumberKey::number).orElse("") + ".");
            for (Draft one : List.of(other, draft)) {
                if (one.stops.stream().noneMatch(r -> r.code().equals("take.same_revision"))) {
                    one.stop(
                            "take.same_revision",
                            both,
                            "Give one of them another revision or number, or leave it out.");
                }
            }
        }
        RevisionSeries series = all.stream()
                .flatMap(d -> d.kind.stream())
                .findFirst()
                .orElseThrow()
                .series();
        all.sort(Comparator.comparingLong(d -> series.position(d.label).orElse(-1L)));
        for (int i = 1; i < all.size(); i++) {
            Draft before = all.get(i - 1);
            Draft draft = all.get(i);
            long from = series.position(before.label).orElse(-1L);
            long to = series.position(draft.label).orElse(-1L);
            if (from >= 0 && to > from + 1) {
                draft.hint(
                        "take.gap",
                        "Between " + named(before) + " and " + draft.label + " revisions are missing.",
                        "They are not given again.");
            }
            if (before.date.isPresent()
                    && draft.date.isPresent()
                    && draft.date.get().isBefore(before.date.get())) {
                draft.stop(
                        "take.dates",
                        named(draft) + " is of " + draft.date.get() + ", before " + before.label + " of "
                                + before.date.get() + ".",
                        "Correct one of the days.");
            }
        }
    }

    /** Numbers are used once: on the shelf, and as former ones. */
    private void numbers(List<History> histories) {
        Map<String, Draft> current = new HashMap<>();
        for (History history : histories) {
            Draft latest = history.latest();
            if (latest.number.isEmpty() || latest.kind.isEmpty()) continue;
            current.put(latest.kind.get().aspect() + " " + latest.number.get().key(), latest);
            if (grounds.isUsed(latest.kind.get().aspect(), latest.number.get())) {
                latest.stop(
                        "take.number_used",
                        latest.number.get().number() + " is used on the shelf already.",
                        "Say another number, or leave it out.");
            }
        }
        Map<String, Draft> former = new HashMap<>();
        for (History history : histories) {
            for (Draft draft : history.revisions()) {
                if (draft.kind.isEmpty()) continue;
                for (String one : draft.former) former(draft, one, current, former, history);
            }
        }
    }

    private void former(
            Draft draft, String one, Map<String, Draft> current, Map<String, Draft> former, History history) {
        NumberKey number = NumberKey.of(one)
                .orElseThrow(r -> new IllegalStateException("A former number that was read is none: " + r.reason()));
        String key = draft.kind.orElseThrow().aspect() + " " + number.key();
        Draft other = current.get(key);
        if (other == null) other = former.putIfAbsent(key, draft);
        boolean elsewhere = other != null && !history.revisions().contains(other);
        if (elsewhere || grounds.isUsed(draft.kind.get().aspect(), number)) {
            draft.stop(
                    "take.former_used",
                    one + ", its former number, is that of " + (elsewhere ? named(other) : "a document on the shelf")
                            + ".",
                    "Correct it, or leave it away.");
        }
    }

    /** File names are unique in a folder, without case. */
    private void names(List<History> histories) {
        Map<String, Draft> taken = new HashMap<>();
        for (History history : histories) {
            Draft latest = history.latest();
            FileName name = latest.file.name();
            Draft other = taken.putIfAbsent(latest.folder.toLowerCase(Locale.ROOT) + "/" + name.key(), latest);
            if (other != null) {
                boolean letters = !other.file.name().name().equals(name.name());
                latest.stop(
                        "take.name",
                        "“" + other.file.path() + "” comes to the same folder with the same name"
                                + (letters ? ", but for small and capital letters or how they are composed." : "."),
                        "Say another folder for one of them, or leave it out.");
            } else if (grounds.isTaken(latest.folder, name)) {
                latest.stop(
                        "take.name",
                        "A file named “" + name.name() + "” is in this folder already.",
                        "Say another folder, or leave it out.");
            }
        }
    }
}
