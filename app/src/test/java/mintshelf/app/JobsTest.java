package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.job.JobStore;
import mintshelf.app.store.person.GroupStore;
import mintshelf.app.use.job.DoJob;
import mintshelf.app.use.job.GiveJob;
import mintshelf.app.use.job.LateJobs;
import mintshelf.app.use.job.ReadJobs;
import mintshelf.core.change.Job;
import mintshelf.core.signoff.Asked;
import org.junit.jupiter.api.Test;

/** Work that one gives to another: given, taken by the first of a group, done with the version that is there, late. */
class JobsTest {
    private final Server server = Server.shared();
    private final Orders orders = new Orders(server);
    private final long shelf = server.shelf();
    private final DoJob jobs = server.bean(DoJob.class);
    private final ReadJobs read = server.bean(ReadJobs.class);

    private long part(String name) {
        String own = name + " " + Server.key() + ".txt";
        return server.file("priya", shelf, Server.PLAIN, own, own.getBytes(StandardCharsets.UTF_8), false);
    }

    private Asked person(String login) {
        return new Asked(Asked.Kind.PERSON, Long.toString(server.actor(login).person()));
    }

    private long give(String login, Asked to, Optional<LocalDate> due, Long... items) {
        String at = server.bean(GiveJob.class)
                .give(server.actor(login), Server.key(), List.of(items), Optional.empty(), "thread M6 × 22", to, due);
        return Long.parseLong(at.substring("/jobs/".length()));
    }

    private long group(String... logins) {
        GroupStore groups = server.bean(GroupStore.class);
        long id = groups.addGroup("office " + Server.key());
        for (String login : logins) groups.join(id, server.actor(login).person());
        return id;
    }

    private Job job(long id) {
        return server.bean(JobStore.class).job(id).orElseThrow();
    }

    private List<Long> mine(String login) {
        return read.mine(server.actor(login)).stream().map(v -> v.job().id()).toList();
    }

    @Test
    void itWaitsForItsPersonUntilItIsDone() {
        long a = part("stud");
        long job = give("priya", person("tomasz"), Optional.empty(), a);
        assertThat(mine("tomasz")).contains(job);
        assertThat(mine("priya")).doesNotContain(job);
        assertThat(orders.told("tomasz"))
                .anyMatch(s -> s.equals(
                        "Priya Malhan gives you a job: " + server.document(a).number() + ", thread M6 × 22"));
        Web tomasz = Web.as(server, "tomasz");
        for (String page : List.of("/today", "/in-tray", "/jobs", "/jobs/" + job)) {
            assertThat(tomasz.get(page).body()).as(page).contains("thread M6 × 22", "Check");
        }
        tomasz.post("/jobs/" + job + "/begin", Map.of("actKey", Server.key(), "out", "1"));
        assertThat(server.document(a).holder().orElseThrow().person())
                .isEqualTo(server.actor("tomasz").person());
        assertThat(job(job).state()).isEqualTo(Job.State.BEGUN);
        String run = server.checkIn("tomasz", a, ("longer " + Server.key()).getBytes(StandardCharsets.UTF_8), false);
        assertThat(run).isNotEmpty();
        assertThat(read.mineOn(server.actor("tomasz"), List.of(a)))
                .extracting(v -> v.job().id())
                .contains(job);
        jobs.done(server.actor("tomasz"), job, Server.key());
        assertThat(job(job).items().get(a)).contains(server.document(a).head().version());
        assertThat(mine("tomasz")).doesNotContain(job);
        assertThat(orders.told("priya")).anyMatch(s -> s.contains("says that it is done: thread M6 × 22"));
        assertThatThrownBy(() -> jobs.done(server.actor("tomasz"), job, Server.key()))
                .isInstanceOf(Refused.class)
                .hasMessageContaining("done");
    }

    @Test
    void whereTheDocumentsAreHeldNothingIsBegun() {
        long a = part("nut");
        long job = give("priya", person("tomasz"), Optional.empty(), a);
        server.checkOut("priya", a);
        assertThat(Web.as(server, "tomasz")
                        .post("/jobs/" + job + "/begin", Map.of("actKey", Server.key(), "out", "1"))
                        .statusCode())
                .isEqualTo(404);
        assertThat(job(job).state()).isEqualTo(Job.State.GIVEN);
        jobs.begin(server.actor("tomasz"), job, Server.key());
        assertThat(job(job).state()).isEqualTo(Job.State.BEGUN);
    }

    @Test
    void ofAGroupTheFirstHasItAndTheOthersAreTold() throws Exception {
        long a = part("hub");
        long group = group("tomasz", "priya");
        long job = give("ines", new Asked(Asked.Kind.GROUP, Long.toString(group)), Optional.empty(), a);
        assertThat(mine("tomasz")).contains(job);
        assertThat(mine("priya")).contains(job);
        var both = Executors.newFixedThreadPool(2);
        List<Callable<String>> acts = List.of(
                () -> jobs.begin(server.actor("tomasz"), job, Server.key()),
                () -> jobs.begin(server.actor("priya"), job, Server.key()));
        int refused = 0;
        for (Future<String> act : both.invokeAll(acts)) {
            try {
                act.get();
            } catch (ExecutionException e) {
                assertThat(e.getCause()).isInstanceOf(Refused.class).hasMessageContaining("has this job");
                refused++;
            }
        }
        both.shutdown();
        assertThat(refused).isEqualTo(1);
        boolean hers = job(job).person().orElseThrow() == server.actor("priya").person();
        assertThat(mine(hers ? "priya" : "tomasz")).contains(job);
        assertThat(mine(hers ? "tomasz" : "priya")).doesNotContain(job);
        assertThat(orders.told(hers ? "tomasz" : "priya")).anyMatch(s -> s.contains("has taken the job"));
    }

    @Test
    void itIsGivenToNobodyWhoCouldNotDoIt() {
        long a = part("pin");
        assertThatThrownBy(() -> give("priya", person("rafael"), Optional.empty(), a))
                .isInstanceOf(Refused.class)
                .hasMessageContaining("may not change");
        long readers = group("rafael");
        assertThatThrownBy(
                        () -> give("priya", new Asked(Asked.Kind.GROUP, Long.toString(readers)), Optional.empty(), a))
                .isInstanceOf(Refused.class)
                .hasMessageContaining("Nobody of this group");
        LocalDate yesterday = LocalDate.now(ZoneOffset.UTC).minusDays(2);
        assertThatThrownBy(() -> give("priya", person("tomasz"), Optional.of(yesterday), a))
                .isInstanceOf(Refused.class);
        assertThatThrownBy(() -> give("rafael", person("tomasz"), Optional.empty(), a))
                .isInstanceOf(NotThere.class);
    }

    @Test
    void whoGaveItPassesItOnOrDropsIt() {
        long a = part("cap");
        long job = give("priya", person("tomasz"), Optional.empty(), a);
        long ines = server.actor("ines").person();
        assertThatThrownBy(() -> jobs.pass(server.actor("tomasz"), job, Server.key(), ines))
                .isInstanceOf(Refused.class);
        jobs.pass(server.actor("priya"), job, Server.key(), ines);
        assertThat(mine("ines")).contains(job);
        assertThat(orders.told("tomasz")).anyMatch(s -> s.contains("passed it on to"));
        jobs.drop(server.actor("priya"), job, Server.key(), "not needed");
        assertThat(mine("ines")).doesNotContain(job);
        assertThat(orders.told("ines")).anyMatch(s -> s.contains("drops the job"));
    }

    @Test
    void whatIsLateGoesBackToWhoGaveItOnce() {
        long a = part("lid");
        LocalDate today = LocalDate.now(ZoneOffset.UTC);
        long job = give("priya", person("tomasz"), Optional.of(today.plusDays(3)), a);
        LateJobs late = server.bean(LateJobs.class);
        late.tell();
        assertThat(orders.told("priya")).noneMatch(s -> s.startsWith("A job is late"));
        server.db().execute("update job set due = ? where id = ?", today.minusDays(2), job);
        assertThat(late.tell()).isPositive();
        assertThat(late.tell()).isZero();
        assertThat(orders.told("priya"))
                .filteredOn(s -> s.startsWith("A job is late"))
                .containsExactly("A job is late, Tomasz Okrent has it: thread M6 × 22");
    }

    @Test
    void othersFindNothingOfIt() {
        long job = give("priya", person("tomasz"), Optional.empty(), part("secret"));
        assertThat(Web.as(server, "hedda").get("/jobs/" + job).statusCode()).isEqualTo(404);
        assertThat(Web.as(server, "rafael").get("/jobs").body()).doesNotContain("thread M6");
    }
}
