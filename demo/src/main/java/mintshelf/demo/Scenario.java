package mintshelf.demo;

import java.time.DayOfWeek;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.time.temporal.TemporalAdjusters;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import mintshelf.app.ground.Actor;
import mintshelf.app.store.house.RuleStore;
import mintshelf.app.store.person.GrantStore;
import mintshelf.app.store.person.GroupStore;
import mintshelf.app.store.person.PersonStore;
import mintshelf.app.use.shelf.ReadShelf;
import mintshelf.core.access.Scope;
import mintshelf.demo.Parts.Part;
import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import org.springframework.stereotype.Component;

/** Writes the scenario into an empty server: the shelf of one product, three weeks before a delivery, on a Tuesday. */
@Component
public class Scenario implements ApplicationRunner {
    static final ZoneId ZONE = ZoneId.of("Europe/Copenhagen");

    private final PersonStore people;
    private final GrantStore grants;
    private final GroupStore members;
    private final RuleStore rules;
    private final ReadShelf shelves;
    private final Hands hands;
    private final StoryClock clock;
    private final BCryptPasswordEncoder passwords;
    private final Instant now = tuesday();

    Scenario(
            PersonStore people,
            GrantStore grants,
            GroupStore members,
            RuleStore rules,
            ReadShelf shelves,
            Hands hands,
            StoryClock clock,
            BCryptPasswordEncoder passwords) {
        this.people = people;
        this.grants = grants;
        this.members = members;
        this.rules = rules;
        this.shelves = shelves;
        this.hands = hands;
        this.clock = clock;
        this.passwords = passwords;
    }

    /** The latest Tuesday, 09:00 in the house's zone. */
    private static Instant tuesday() {
        LocalDate today = LocalDate.now(ZONE);
        ZonedDateTime tuesday = today.with(TemporalAdjusters.previousOrSame(DayOfWeek.TUESDAY))
                .atTime(LocalTime.of(9, 0))
                .atZone(ZONE);
        return tuesday.toInstant().isAfter(Instant.now())
                ? tuesday.minusWeeks(1).toInstant()
                : tuesday.toInstant();
    }

    @Override
    public void run(ApplicationArguments arguments) {
        if (!people.isEmpty()) return;
        Steps.begin("The story");
        try {
            write();
        } finally {
            clock.goOn();
        }
    }

    private void write() {
        clock.tell(now.minus(Duration.ofDays(30L * 18)));
        Chapter.Book book = new Chapter.Book(hands, shelves, now);
        cast();
        Actor ines = hands.actor("ines");
        long tg40 = shelves.addShelf(ines, "TG40 Tide gauge", "harbour tide gauge station");
        long ls18 = shelves.addShelf(ines, "LS18 Staff reader", "river staff reader");
        long house = shelves.addShelf(ines, "Templates and standards", "sheet templates and house standards");
        grants(tg40, ls18, house);
        for (Part part : Parts.ALL) {
            if (!part.folder().isEmpty()) {
                book.folders.computeIfAbsent(
                        part.folder(), f -> shelves.addFolder(hands.actor("ines"), tg40, OptionalLong.empty(), f));
            }
        }
        FirstYear first = new FirstYear(book);
        Parts.ALL.forEach(part -> first.file(tg40, part));
        first.papers(tg40, house);
        Parts.ALL.forEach(first::firstRelease);
        first.linersNoted();
        first.staffReader(ls18);
        long library = new ModelStory(hands, shelves, (days, hour) -> first.daysAgo(days, hour, 0))
                .write(tg40, ls18, book.folders);
        // Buying reads what is bought.
        grants.grantPerson(people.byLogin("yuki").orElseThrow().id(), "reader", Scope.shelf(library));
        new Changes(book, new Requests(book)).story(tg40);
        new HouseStory(rules, members)
                .write(
                        people.byLogin("ines").orElseThrow().id(),
                        people.byLogin("marit").orElseThrow().id(),
                        first.daysAgo(2, 10, 0),
                        now.atZone(ZONE).toLocalDate());
        new Bills(book).tell();
        new ShortGauge(book).tell();
        new FloatTrial(book).tell();
        new FromTheYard(book).tell();
        new AtHand(book).tell(tg40);
        new TheOldDrive(book).tell(tg40);
        Cast.ALL.forEach(person -> hands.putAwayBefore(first.daysAgo(7, 0, 0), person.login()));
        Steps.end(book.done + " acts, ");
    }

    private void cast() {
        String hash = passwords.encode(Cast.PASSWORD);
        Map<String, Long> groups = new HashMap<>();
        int line = 0;
        for (Cast.Person person : Cast.ALL) {
            long id = people.add(
                    person.login(),
                    person.name(),
                    person.login() + "@ebbcote.example",
                    "+45 5550 01" + (20 + line++),
                    person.note(),
                    ZONE.getId(),
                    clock.instant());
            people.setPassword(id, hash);
            for (String group : person.groups()) {
                members.join(groups.computeIfAbsent(group, members::addGroup), id);
            }
        }
        long carmen = people.byLogin("carmen").orElseThrow().id();
        people.setAway(
                people.byLogin("oluwaseun").orElseThrow().id(),
                Optional.empty(),
                Optional.empty(),
                OptionalLong.of(carmen));
        people.setAway(
                people.byLogin("tomasz").orElseThrow().id(),
                Optional.empty(),
                Optional.of(now.atZone(ZONE).toLocalDate().plusDays(6)),
                OptionalLong.of(people.byLogin("priya").orElseThrow().id()));
        grants.grantGroup(groups.get("Data management"), "data-manager", Scope.EVERYWHERE);
        grants.grantGroup(groups.get("Drawing office"), "designer", Scope.EVERYWHERE);
        grants.grantGroup(groups.get("Checking"), "checker", Scope.EVERYWHERE);
        grants.grantGroup(groups.get("Design lead"), "board-member", Scope.EVERYWHERE);
        grants.grantGroup(groups.get("Quality"), "checker", Scope.EVERYWHERE);
        grants.grantGroup(groups.get("Shop"), "reader", Scope.EVERYWHERE);
    }

    private void grants(long tg40, long ls18, long house) {
        // Buying reads the two products, not the templates.
        long yuki = people.byLogin("yuki").orElseThrow().id();
        grants.grantPerson(yuki, "reader", Scope.shelf(tg40));
        grants.grantPerson(yuki, "reader", Scope.shelf(ls18));
        grants.grantPerson(people.byLogin("priya").orElseThrow().id(), "librarian", Scope.shelf(house));
    }
}
