package mintshelf.app.use.person;

import java.io.IOException;
import java.io.StringReader;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.Telling;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.HouseRules;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.person.GroupStore;
import mintshelf.app.store.person.GroupStore.Group;
import mintshelf.app.store.person.PersonStore;
import mintshelf.app.store.person.PersonStore.Person;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import org.apache.commons.csv.DuplicateHeaderMode;
import org.springframework.stereotype.Service;

/**
 * A directory of people as CSV (RFC 4180), with a head line: adds who is new, writes contact data that differ, puts people into groups that
 * the house has. Nobody is taken out of a group and nobody leaves by it. The plan comes first; all of it or nothing.
 */
@Service
public class TakeDirectory {
    /** Lines of one directory. */
    public static final int MOST = 2_000;

    private static final int LONGEST = 1_000_000;

    /** What columns may be called. */
    private static final Map<String, String> COLUMNS = Map.ofEntries(
            Map.entry("login", "login"),
            Map.entry("sign-in name", "login"),
            Map.entry("name", "name"),
            Map.entry("mail", "mail"),
            Map.entry("email", "mail"),
            Map.entry("telephone", "telephone"),
            Map.entry("phone", "telephone"),
            Map.entry("note", "note"),
            Map.entry("position", "note"),
            Map.entry("groups", "groups"),
            Map.entry("group", "groups"));

    private final PersonStore people;
    private final GroupStore groups;
    private final AddPeople adding;
    private final Telling telling;
    private final Acts acts;
    private final Recorder recorder;

    TakeDirectory(
            PersonStore people, GroupStore groups, AddPeople adding, Telling telling, Acts acts, Recorder recorder) {
        this.people = people;
        this.groups = groups;
        this.adding = adding;
        this.telling = telling;
        this.acts = acts;
        this.recorder = recorder;
    }

    /** What becomes of a line. */
    public enum What {
        NEW("new"),
        CHANGED("changed"),
        SAME("stays"),
        REFUSED("cannot be taken");

        private final String words;

        What(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * A line of the directory.
     *
     * @param person whom it is about; 0 for somebody new
     * @param joins groups that they come into
     * @param says what changes, in words
     */
    public record Row(
            long line,
            What what,
            long person,
            String login,
            String name,
            String mail,
            String telephone,
            String note,
            List<Group> joins,
            List<String> says,
            List<Refusal> refusals) {}

    /** What a directory would do. */
    public record Plan(List<Row> rows) {
        public int count(What what) {
            return (int) rows.stream().filter(r -> r.what() == what).count();
        }

        /** Whether all of it can be taken and something of it is new. */
        public boolean isOpen() {
            return count(What.REFUSED) == 0 && count(What.NEW) + count(What.CHANGED) > 0;
        }
    }

    public Plan plan(Actor actor, String text) {
        HouseRules.ask(actor);
        if (text.length() > LONGEST) throw no("It is longer than a million letters.");
        Map<String, Group> known =
                groups.groups().stream().collect(Collectors.toMap(g -> Texts.key(g.name()), Function.identity()));
        List<Row> rows = new ArrayList<>();
        Set<String> logins = new HashSet<>();
        CSVFormat format = CSVFormat.RFC4180
                .builder()
                .setHeader()
                .setSkipHeaderRecord(true)
                .setIgnoreEmptyLines(true)
                .setTrim(true)
                .setDuplicateHeaderMode(DuplicateHeaderMode.DISALLOW)
                .get();
        try (CSVParser parser = CSVParser.parse(new StringReader(withoutMark(text)), format)) {
            Map<String, String> columns = columns(parser.getHeaderNames());
            for (CSVRecord record : parser) {
                if (rows.size() == MOST) throw no("It has more than " + MOST + " lines.");
                rows.add(row(record, columns, known, logins));
            }
        } catch (IOException | UncheckedIOException | IllegalArgumentException e) {
            throw no("It cannot be read as CSV: " + Texts.shorten(Texts.line(String.valueOf(e.getMessage())), 120)
                    + ".");
        }
        if (rows.isEmpty()) throw no("It has no lines below its head.");
        return new Plan(rows);
    }

    private static Refused no(String why) {
        return Refused.because(
                "directory.form",
                why,
                "The first line names the columns: login, name, mail, telephone, note, groups. Nothing was changed.");
    }

    /** Tables write a mark before the first letter. */
    private static String withoutMark(String text) {
        return text.startsWith("\uFEFF") ? text.substring(1) : text;
    }

    private static Map<String, String> columns(List<String> head) {
        Map<String, String> columns = new HashMap<>();
        for (String name : head) {
            String column = COLUMNS.get(name.strip().toLowerCase(Locale.ROOT));
            if (column != null) columns.put(column, name);
        }
        if (!columns.containsKey("name")) throw no("No column is called name.");
        return columns;
    }

    private Row row(CSVRecord record, Map<String, String> columns, Map<String, Group> known, Set<String> logins) {
        Function<String, String> said = column -> {
            String name = columns.get(column);
            return name != null && record.isSet(name) ? Texts.line(record.get(name)) : "";
        };
        List<Refusal> refusals = new ArrayList<>();
        String name = said.apply("name");
        String login = said.apply("login");
        Optional<Person> here = login.isEmpty() ? Optional.empty() : people.byLogin(login);
        Texts.required("The name", name, 100).refusal().ifPresent(refusals::add);
        AddPeople.mailRefusal(said.apply("mail")).ifPresent(refusals::add);
        if (!login.isEmpty()) AddPeople.loginRefusal(login).ifPresent(refusals::add);
        for (String column : List.of("telephone", "note")) {
            int most = column.equals("note") ? 300 : 60;
            Texts.optional("The " + column, said.apply(column), most).refusal().ifPresent(refusals::add);
        }
        if (!login.isEmpty() && !logins.add(Texts.key(login))) {
            refusals.add(Refusal.of("directory.twice", login + " stands twice.", "Take one line out."));
        }
        if (here.filter(Person::left).isPresent()) {
            refusals.add(Refusal.of("directory.left", here.get().name() + " has left.", "Take the line out."));
        }
        List<Group> joins = new ArrayList<>();
        for (String group : Arrays.stream(said.apply("groups").split("[;|]"))
                .map(String::strip)
                .filter(g -> !g.isEmpty())
                .toList()) {
            Group of = known.get(Texts.key(group));
            if (of == null) {
                refusals.add(Refusal.of(
                        "directory.group",
                        "There is no group “" + Texts.shorten(group, 60) + "”.",
                        "Make it first, or take it out of the line."));
            } else if (here.isEmpty() || !of.people().containsKey(here.get().id())) {
                joins.add(of);
            }
        }
        List<String> says = new ArrayList<>();
        here.ifPresent(p -> {
            differs(says, "name", p.name(), name, true);
            differs(says, "mail", p.mail(), said.apply("mail"), columns.containsKey("mail"));
            differs(says, "telephone", p.telephone(), said.apply("telephone"), columns.containsKey("telephone"));
            differs(says, "note", p.note(), said.apply("note"), columns.containsKey("note"));
        });
        joins.forEach(g -> says.add("comes into " + g.name()));
        What what = !refusals.isEmpty()
                ? What.REFUSED
                : here.isEmpty() ? What.NEW : says.isEmpty() ? What.SAME : What.CHANGED;
        return new Row(
                record.getRecordNumber() + 1,
                what,
                here.map(Person::id).orElse(0L),
                login,
                name,
                kept(columns, "mail", said, here.map(Person::mail)),
                kept(columns, "telephone", said, here.map(Person::telephone)),
                kept(columns, "note", said, here.map(Person::note)),
                joins,
                says,
                refusals);
    }

    /** What a column says; where there is no such column, what is there stays. */
    private static String kept(
            Map<String, String> columns, String column, Function<String, String> said, Optional<String> was) {
        return columns.containsKey(column) ? said.apply(column) : was.orElse("");
    }

    private static void differs(List<String> says, String what, String was, String now, boolean isThere) {
        if (!isThere || was.equals(now)) return;
        says.add(what + " " + (was.isEmpty() ? "empty" : "“" + was + "”") + " → "
                + (now.isEmpty() ? "empty" : "“" + now + "”"));
    }

    /**
     * Takes a directory as its plan says.
     *
     * @param invite whether who is new and has a mail address is sent the link that sets a password
     * @return how many were added and how many changed, in words
     */
    public String take(Actor actor, String key, String text, boolean invite) {
        HouseRules.ask(actor);
        return acts.once(actor, key, () -> {
            Plan plan = plan(actor, text);
            if (plan.count(What.REFUSED) > 0) {
                throw Refused.because(
                        "directory.refused",
                        Numbers.count(plan.count(What.REFUSED), "line", "lines") + " cannot be taken.",
                        "Correct them; nothing was changed.");
            }
            for (Row row : plan.rows()) {
                long id = row.person();
                if (row.what() == What.NEW) {
                    id = adding.added(actor, row.name(), row.login(), row.mail(), invite);
                }
                if (row.what() == What.SAME) continue;
                people.setContact(id, row.name(), row.mail(), row.telephone(), row.note());
                long person = id;
                row.joins().forEach(g -> groups.join(g.id(), person));
                if (row.what() == What.CHANGED && !row.joins().isEmpty()) {
                    String into = row.joins().stream().map(Group::name).collect(Collectors.joining(", "));
                    telling.news(
                            actor,
                            List.of(person),
                            "grants.given",
                            actor.name() + " put you into " + into + ", by the directory",
                            "/shelves");
                }
            }
            String says = plan.count(What.NEW) + " added, " + plan.count(What.CHANGED) + " changed, "
                    + plan.count(What.SAME) + " stay";
            recorder.noteHouse(actor, "person.directory", "took a directory in: " + says, "");
            return says;
        });
    }
}
