package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Instant;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.person.GroupStore;
import mintshelf.app.store.person.PersonStore;
import mintshelf.app.use.person.KeepGrants;
import mintshelf.app.use.person.TakeDirectory;
import mintshelf.app.use.person.TakeDirectory.Plan;
import mintshelf.app.use.person.TakeDirectory.What;
import org.junit.jupiter.api.Test;

/** People from a directory, and somebody new on a group's page. */
class DirectoryTest extends InAHouse {
    private final TakeDirectory directory = server.bean(TakeDirectory.class);
    private final PersonStore people = server.bean(PersonStore.class);
    private final GroupStore groups = server.bean(GroupStore.class);
    private final String office = "Office " + mark;
    private final long group;

    DirectoryTest() {
        KeepGrants grants = server.bean(KeepGrants.class);
        grants.addGroup(server.actor("ines"), Server.key(), office);
        group = groups.groups().stream()
                .filter(g -> g.name().equals(office))
                .findFirst()
                .orElseThrow()
                .id();
        grants.give(server.actor("ines"), Server.key(), true, group, "designer", 0, 0);
    }

    private Plan plan(String text) {
        return directory.plan(server.actor("ines"), text);
    }

    private String take(String text) {
        return directory.take(server.actor("ines"), Server.key(), text, false);
    }

    private String login(String name) {
        return name + mark;
    }

    @Test
    void whoIsNewIsAddedWhoDiffersIsChangedAndNobodyElse() {
        server.add(login("kim"), "Kim Berg", "reader");
        String text = "\uFEFFSign-in name;".replace(";", ",")
                + "Name,Email,Phone,Position,Groups\r\n"
                + login("lin") + ",Lin Haddad,lin@ebbcote.example,+45 1,designer," + office.toUpperCase(Locale.ROOT)
                + "\r\n" + login("kim") + ",\"Berg, Kim\",kim@ebbcote.example,,," + office + "\r\n"
                + login("ines") + ",Ines Two,,,,\r\n";
        Plan plan = plan(text);
        assertThat(plan.rows()).extracting(r -> r.what()).containsExactly(What.NEW, What.CHANGED, What.NEW);
        assertThat(plan.rows().get(1).says())
                .contains("name “Kim Berg” → “Berg, Kim”", "comes into " + office)
                .anyMatch(s -> s.startsWith("mail "));
        assertThat(people.byLogin(login("lin")))
                .as("nothing is changed by a plan")
                .isEmpty();
        assertThat(take(text)).isEqualTo("2 added, 1 changed, 0 stay");
        PersonStore.Person lin = people.byLogin(login("lin")).orElseThrow();
        assertThat(lin.name()).isEqualTo("Lin Haddad");
        assertThat(lin.telephone()).isEqualTo("+45 1");
        assertThat(lin.note()).isEqualTo("designer");
        assertThat(lin.canSignIn()).isFalse();
        assertThat(groups.groupsOf(lin.id())).containsExactly(office);
        assertThat(people.byLogin(login("kim")).orElseThrow().name()).isEqualTo("Berg, Kim");
        // Once more: nothing differs any more.
        assertThat(plan(text).count(What.SAME)).isEqualTo(3);
        assertThat(plan(text).isOpen()).isFalse();
    }

    @Test
    void columnsThatAreNotThereLeaveWhatIsThereAndALoginIsMadeWhereThereIsNone() {
        server.add(login("ulf"), "Ulf Sand", "reader");
        String before = people.byLogin(login("ulf")).orElseThrow().mail();
        String name = "Zoe " + mark.replaceAll("[0-9]", "x");
        take("name,login\nUlf Strand," + login("ulf") + "\n" + name + ",\n");
        assertThat(people.byLogin(login("ulf")).orElseThrow().mail()).isEqualTo(before);
        assertThat(people.byLogin(login("ulf")).orElseThrow().name()).isEqualTo("Ulf Strand");
        assertThat(people.byLogin(name.toLowerCase(Locale.ROOT).replace(' ', '.')))
                .isPresent();
    }

    @Test
    void oneLineThatCannotBeTakenKeepsAllOfThemOut() {
        server.add(login("off"), "Off Left", "reader");
        people.leave(people.byLogin(login("off")).orElseThrow().id(), Instant.now());
        String text = "login,name,mail,groups\n"
                + login("ok") + ",Fine One,,\n"
                + login("m") + ",No Mail,not a mail,\n"
                + login("g") + ",No Group,,Nowhere " + mark + "\n"
                + login("ok") + ",Twice,,\n"
                + login("off") + ",Has Left,,\n"
                + "a b" + mark + ",Blank In Login,,\n"
                + login("n") + ",,,\n";
        Plan plan = plan(text);
        assertThat(plan.count(What.REFUSED)).isEqualTo(6);
        assertThat(plan.rows().stream().flatMap(r -> r.refusals().stream()).map(r -> r.code()))
                .contains("person.mail", "directory.group", "directory.twice", "directory.left", "person.login_form");
        assertThat(code(() -> take(text))).isEqualTo("directory.refused");
        assertThat(people.byLogin(login("ok"))).isEmpty();
    }

    @Test
    void whatIsNoTableIsRefusedInWords() {
        for (String text : new String[] {"", "login,mail\nx,y", "name\n", "name\n\"open", "name,name\na,b"}) {
            assertThat(code(() -> plan(text))).as(text).isEqualTo("directory.form");
        }
        assertThat(code(() -> plan("name\n" + "x\n".repeat(2001)))).isEqualTo("directory.form");
        assertThat(code(() -> plan("name\n" + "x".repeat(1_000_001)))).isEqualTo("directory.form");
        assertThatThrownBy(() -> directory.plan(server.actor("priya"), "name\nx"))
                .isInstanceOf(Refused.class)
                .hasMessageContaining("access.missing");
    }

    @Test
    void aGroupsPageSaysWhatItGivesAndTakesSomebodyNew() {
        Web ines = Web.as(server, "ines");
        String page = "/people/groups/" + group;
        assertThat(ines.get(page).body())
                .contains("Nobody is in it yet", "Is Designer, everywhere", "change documents", "New person here");
        assertThat(ines.post(page + "/people", Map.of("name", "Ada New", "login", login("ada")))
                        .body())
                .contains("A link for Ada New", "/invitations/");
        long ada = people.byLogin(login("ada")).orElseThrow().id();
        assertThat(groups.groupsOf(ada)).containsExactly(office);
        assertThat(ines.post(page + "/people", Map.of("name", "Ada Two", "login", login("ada")))
                        .body())
                .contains("already", "Ada Two");
        assertThat(ines.post(page + "/people", Map.of("name", "  ")).body()).contains("alert");
        Web priya = Web.as(server, "priya");
        assertThat(priya.get(page).body())
                .contains("Ada New")
                .doesNotContain("New person here")
                .doesNotContain("Is Designer");
        assertThat(priya.post(page + "/people", Map.of("name", "Sneaked In")).statusCode())
                .isEqualTo(403);
    }

    @Test
    void theDirectoryGoesThroughItsPageWithThePlanFirst() {
        Web ines = Web.as(server, "ines");
        assertThat(ines.get("/house/people/directory").body()).contains("Show the plan");
        String text = "name,login,mail,groups\nBo Lund," + login("bo") + ",bo@ebbcote.example," + office + "\n";
        String shown =
                ines.post("/house/people/directory/plan", Map.of("text", text)).body();
        assertThat(shown).contains("Bo Lund", "new", "Take it in");
        assertThat(people.byLogin(login("bo"))).isEmpty();
        String key = Server.key();
        Map<String, String> form = Map.of("actKey", key, "text", text, "invite", "true");
        assertThat(ines.post("/house/people/directory", form).body()).contains("1 added");
        assertThat(ines.post("/house/people/directory", form).body())
                .as("sent twice it is done once")
                .contains("1 added");
        Optional<PersonStore.Person> bo = people.byLogin(login("bo"));
        assertThat(bo).isPresent();
        assertThat(ines.post("/house/people/directory/plan", Map.of("text", "nonsense"))
                        .body())
                .contains("No column is called name", "nonsense");
    }
}
