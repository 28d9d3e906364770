package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.icegreen.greenmail.util.GreenMailUtil;
import jakarta.mail.internet.MimeBodyPart;
import jakarta.mail.internet.MimeMessage;
import jakarta.mail.internet.MimeMultipart;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import mintshelf.app.store.notice.FollowStore.Kind;
import mintshelf.app.store.person.GrantStore;
import mintshelf.app.store.person.GroupStore;
import mintshelf.app.use.notice.Follow;
import mintshelf.app.use.notice.ShowTo;
import mintshelf.app.use.output.MakeOutputs;
import mintshelf.app.use.revision.StartRevisions;
import mintshelf.core.access.Scope;
import mintshelf.core.house.DistributionRule;
import mintshelf.core.house.Subject;
import mintshelf.core.notice.MailTime;
import mintshelf.core.notice.Moment;
import mintshelf.core.notice.NoticeKind;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Who follows something is told of the moments that they chose and may know of; colleagues show each other pages; mails come as chosen. */
class FollowTest extends InAHouse {
    private final Follow follow = server.bean(Follow.class);
    private final Review review = new Review(server);
    private final long shelf = server.shelf();

    @BeforeEach
    void nothingWaits() {
        server.post();
    }

    private void follows(String login, Kind kind, long target, Moment... moments) {
        Set<Moment> all = EnumSet.noneOf(Moment.class);
        all.addAll(List.of(moments));
        follow.follow(server.actor(login), Server.key(), kind, target, all);
    }

    private List<String> told(String login, long item) {
        return server.db()
                .fetch(
                        "select says from notice where person = ? and item = ? and code like 'followed.%' order by id",
                        server.actor(login).person(), item)
                .getValues(0, String.class);
    }

    private String number(long item) {
        return server.document(item).number();
    }

    /** A drawing that is in force as A and worked on as B. */
    private long revised() {
        long item = review.drawing(shelf, "followed " + Server.key() + ".dxf");
        review.release(item);
        return item;
    }

    private void again(long item) {
        server.bean(StartRevisions.class).start(server.actor("priya"), List.of(item), Server.key(), "why", "", true);
        server.checkIn("priya", item, Review.sheet("again " + Server.key()), false);
    }

    @Test
    void whoFollowsADocumentIsToldOfItsMomentsAndNotOfWhatTheyDoThemselves() {
        long item = revised();
        follows("tomasz", Kind.ITEM, item, Moment.VERSION, Moment.RELEASE);
        follows("priya", Kind.ITEM, item, Moment.values());
        again(item);
        assertThat(told("tomasz", item))
                .singleElement()
                .asString()
                .startsWith(number(item) + ": Priya Malhan checked in version");
        assertThat(told("priya", item)).as("it was her").isEmpty();
        long round = review.send("priya", item);
        assertThat(told("tomasz", item)).as("no moment of his").hasSize(1);
        review.sign("hedda", round);
        review.sign("oluwaseun", round);
        assertThat(told("tomasz", item)).hasSize(2).last().asString().contains("released revision B");
        assertThat(told("priya", item)).singleElement().asString().contains("released revision B");
        follows("tomasz", Kind.ITEM, item);
        again(item);
        assertThat(told("tomasz", item)).as("followed no more").hasSize(2);
    }

    /** A reader who follows all of a shelf learns of nothing that is not in force. */
    @Test
    void readersLearnOfWhatComesIntoForceAlone() {
        follows("rafael", Kind.SHELF, shelf, Moment.values());
        long item = review.drawing(shelf, "unseen " + mark + ".dxf");
        assertThat(told("rafael", item)).isEmpty();
        long round = review.send("priya", item);
        review.sign("hedda", round);
        assertThat(told("rafael", item)).isEmpty();
        review.sign("oluwaseun", round);
        assertThat(told("rafael", item)).singleElement().asString().contains("released revision A");
        again(item);
        assertThat(told("rafael", item)).as("B is nobody's yet").hasSize(1);
        assertThat(Web.as(server, "rafael").get("/follow/item/" + item).body())
                .contains("comes into force")
                .doesNotContain("a version is checked in");
        assertThat(Web.as(server, "rafael").get("/follow/shelf/" + shelf).statusCode())
                .isEqualTo(200);
        long hidden = review.drawing(shelf, "hidden " + mark + ".dxf");
        assertThat(Web.as(server, "rafael").get("/follow/item/" + hidden).statusCode())
                .isEqualTo(404);
    }

    /** The title that a pending revision gets is no reader's to know, on the list of what they follow either. */
    @Test
    void whatAReaderFollowsIsCalledAsTheySeeIt() {
        long item = revised();
        follows("rafael", Kind.ITEM, item, Moment.RELEASE);
        again(item);
        server.db()
                .execute(
                        "update item set title = ?, out_title = ? where id = ?",
                        "Secret " + mark,
                        "Known " + mark,
                        item);
        assertThat(Web.as(server, "rafael").get("/follows").body())
                .contains("Known " + mark)
                .doesNotContain("Secret " + mark);
        assertThat(Web.as(server, "rafael").get("/follow/item/" + item).body()).doesNotContain("Secret " + mark);
    }

    /** Who lost their grant, or left, is told no more. */
    @Test
    void grantsAreAskedWhenItHappens() {
        server.add("gone" + mark, "Gone " + mark, "reader");
        follows("gone" + mark, Kind.SHELF, shelf, Moment.RELEASE);
        server.db()
                .execute(
                        "delete from access_grant where person = ?",
                        server.actor("gone" + mark).person());
        server.db().execute("update access_stamp set stamp = stamp + 1");
        long item = review.drawing(shelf, "lost " + mark + ".dxf");
        review.release(item);
        assertThat(told("gone" + mark, item)).isEmpty();
    }

    @Test
    void oneWhoFollowsDocumentAndShelfIsToldOnce() {
        long item = server.file("priya", shelf, "drawing", "once " + mark + ".dxf", Review.sheet(Server.key()), true);
        follows("tomasz", Kind.ITEM, item, Moment.VERSION);
        follows("tomasz", Kind.SHELF, shelf, Moment.VERSION);
        server.checkIn("priya", item, Review.sheet("once " + mark), false);
        assertThat(told("tomasz", item)).hasSize(1);
        assertThat(follow.mine(server.actor("tomasz"))).hasSizeGreaterThanOrEqualTo(2);
        Web tomasz = Web.as(server, "tomasz");
        assertThat(tomasz.get("/follows").body())
                .contains(number(item), server.shelfName(shelf), "when a version is checked in");
        tomasz.post("/follows/drop", Map.of("what", "item", "id", "" + item));
        assertThat(tomasz.get("/follows").body()).doesNotContain(number(item));
        assertThat(tomasz.get("/follow/planet/1").statusCode()).isEqualTo(404);
    }

    private List<MimeMessage> mails(String login) throws Exception {
        server.post();
        List<MimeMessage> all = new ArrayList<>();
        for (MimeMessage m : Server.mail().getReceivedMessages()) {
            if (m.getAllRecipients()[0].toString().startsWith(login + "@")) all.add(m);
        }
        return all;
    }

    /** Three asks at once are one mail; what is chosen for later waits, and comes together. */
    @Test
    void whatComesTogetherIsOneMailAndWhatIsChosenForLaterWaits() throws Exception {
        String jens = "jens" + mark;
        server.add(jens, "Jens " + mark, "checker");
        int before = mails(jens).size();
        long one = review.drawing(shelf, "one " + mark + ".dxf");
        long two = review.drawing(shelf, "two " + mark + ".dxf");
        review.send("priya", one);
        review.send("priya", two);
        List<MimeMessage> asked = mails(jens);
        assertThat(asked).hasSize(before + 1);
        assertThat(asked.get(before).getSubject()).startsWith("Will you sign ").endsWith(" (and 1 more)");
        follow.chooseMails(server.actor(jens), Map.of(NoticeKind.ASKED, MailTime.DAILY));
        long three = review.drawing(shelf, "three " + mark + ".dxf");
        review.send("priya", three);
        assertThat(mails(jens)).as("it comes in the morning").hasSize(before + 1);
        assertThat(Web.as(server, jens).get("/in-tray").body()).contains(number(three));
        server.db().execute("update delivery set next_at = now() where state = 'WAITING'");
        assertThat(mails(jens)).hasSize(before + 2);
        follow.chooseMails(server.actor(jens), Map.of(NoticeKind.ASKED, MailTime.NEVER));
        assertThat(follow.mails(server.actor(jens)))
                .as("who is asked to sign is always told")
                .containsEntry(NoticeKind.ASKED, MailTime.DAILY);
        Web web = Web.as(server, jens);
        assertThat(web.post("/follows/mails", Map.of("ROUND", "NEVER", "HOLD", "sometimes"))
                        .statusCode())
                .isEqualTo(302);
        assertThat(follow.mails(server.actor(jens)))
                .containsEntry(NoticeKind.ROUND, MailTime.NEVER)
                .containsEntry(NoticeKind.HOLD, MailTime.AT_ONCE);
    }

    /** The house says who is told of what comes into force, whoever follows it; who sees nothing there is told nothing. */
    @Test
    void theDistributionTellsGroupsOfWhatComesIntoForce() {
        GroupStore groups = server.bean(GroupStore.class);
        long shop = groups.addGroup("Shop " + mark);
        groups.join(shop, server.actor("rafael").person());
        groups.join(shop, server.actor("nobody").person());
        Web ines = Web.as(server, "ines");
        Map<String, String> form = new HashMap<>(Map.of(
                "actKey",
                Server.key(),
                "edition",
                "" + latest(Subject.DISTRIBUTION, DistributionRule.CODE).number()));
        form.putAll(
                Map.of("moment.0", "RELEASE", "kind.0", "drawing", "shelf.0", "" + shelf, "who.0", "GROUP:" + shop));
        assertThat(ines.post("/house/distribution", form).statusCode()).isEqualTo(302);
        assertThat(ines.get("/house/distribution").body())
                .contains("Today: Rafael Quiroz.", "Sees nothing there and is told nothing: No Body.");
        long item = review.drawing(shelf, "distributed " + mark + ".dxf");
        assertThat(told("rafael", item)).isEmpty();
        review.release(item);
        assertThat(told("rafael", item)).singleElement().asString().contains("released revision A");
        assertThat(told("nobody", item)).isEmpty();
        long elsewhere = review.drawing(server.shelf(), "elsewhere " + mark + ".dxf");
        review.release(elsewhere);
        assertThat(told("rafael", elsewhere)).isEmpty();
        form.put("actKey", Server.key());
        form.put("who.0", "GROUP:999999");
        assertThat(ines.post("/house/distribution", form).body()).contains("your page showed edition");
    }

    private void distributes(String moment, String kind, String who, String way, String when) {
        Map<String, String> form = new HashMap<>(Map.of(
                "actKey",
                Server.key(),
                "edition",
                "" + latest(Subject.DISTRIBUTION, DistributionRule.CODE).number()));
        form.putAll(Map.of(
                "moment.0", moment, "kind.0", kind, "shelf.0", "" + shelf, "who.0", who, "way.0", way, "when.0", when));
        assertThat(Web.as(server, "ines").post("/house/distribution", form).statusCode())
                .isEqualTo(302);
    }

    private static List<MimeBodyPart> enclosed(MimeMessage mail) throws Exception {
        List<MimeBodyPart> found = new ArrayList<>();
        MimeMultipart parts = (MimeMultipart) mail.getContent();
        for (int i = 0; i < parts.getCount(); i++) {
            if (parts.getBodyPart(i).getFileName() != null) found.add((MimeBodyPart) parts.getBodyPart(i));
        }
        return found;
    }

    private MimeMessage last(String login) throws Exception {
        List<MimeMessage> all = mails(login);
        return all.get(all.size() - 1);
    }

    private String recorded(long item) {
        return String.join(
                "\n",
                server.db()
                        .fetch("select says from record_entry where item = ? and act = 'file.mailed'", item)
                        .getValues(0, String.class));
    }

    /** The shop gets the file or the page itself: of what is in force, whatever each chose, and the record says who got what. */
    @Test
    void theDistributionSendsTheReleasedFileOrItsPage() throws Exception {
        String shop = "shop" + mark;
        server.add(shop, "Shop " + mark, "reader");
        String who = "PERSON:" + server.actor(shop).person();
        follow.chooseMails(server.actor(shop), Map.of(NoticeKind.FOLLOWED, MailTime.DAILY));
        distributes("RELEASE", "drawing", who, "FILE", "AT_ONCE");
        long item = revised();
        MimeBodyPart file = enclosed(last(shop)).get(0);
        assertThat(file.getFileName()).isEqualTo(number(item) + " A.dxf");
        assertThat(file.getInputStream().readAllBytes()).isEqualTo(server.bytes(item));
        assertThat(recorded(item)).isEqualTo("mailed " + number(item) + " A.dxf to Shop " + mark);
        again(item);
        server.post();
        assertThat(recorded(item)).as("B is nobody's yet").doesNotContain("\n");
        distributes("RELEASE", "drawing", who, "PDF", "AT_ONCE");
        long page = revised();
        server.post();
        while (server.bean(MakeOutputs.class).makeNext()) {
            // until its page is made, here or by the clock
        }
        for (int i = 0; i < 100 && !recorded(page).contains("pdf"); i++) {
            server.db().execute("update delivery set next_at = now() where state = 'WAITING'");
            server.post();
            Thread.sleep(50);
        }
        assertThat(recorded(page)).isEqualTo("mailed " + number(page) + " A.pdf to Shop " + mark);
        MimeBodyPart pdf = enclosed(last(shop)).get(0);
        assertThat(pdf.getContentType()).startsWith("application/pdf");
        assertThat(new String(pdf.getInputStream().readAllBytes(), 0, 5, StandardCharsets.US_ASCII))
                .isEqualTo("%PDF-");
        assertThat(Web.as(server, "ines").get("/house/distribution").body()).contains("the sheet as PDF");
    }

    @Test
    void whatDoesNotFitIntoAMailOrIsNoPageIsLedToByItsLink() throws Exception {
        String shop = "hall" + mark;
        server.add(shop, "Hall " + mark, "reader");
        String who = "PERSON:" + server.actor(shop).person();
        distributes("RELEASE", "", who, "FILE", "AT_ONCE");
        long large = server.released(shelf, "large " + mark + ".txt", "x".repeat(10_000_001));
        MimeMessage mail = last(shop);
        assertThat(enclosed(mail)).isEmpty();
        assertThat(GreenMailUtil.getBody(mail).replaceAll("=\r?\n", ""))
                .contains("too much for a mail (10 MB): fetch it there.", "/documents/" + large);
        assertThat(recorded(large)).isEmpty();
        distributes("RELEASE", "", who, "PDF", "AT_ONCE");
        server.released(shelf, "text " + mark + ".txt", "no page");
        assertThat(GreenMailUtil.getBody(last(shop)).replaceAll("=\r?\n", ""))
                .contains("There is no PDF of it; fetch the file there.");
        distributes("RELEASE", "", who, "LINK", "DAILY");
        int before = mails(shop).size();
        server.released(shelf, "later " + mark + ".txt", "in the morning");
        assertThat(mails(shop)).as("with the others in the morning").hasSize(before);
    }

    private String show(String login, long item, String to, String page) {
        return code(() -> server.bean(ShowTo.class)
                .show(server.actor(login), Server.key(), item, server.actor(to).person(), "look at " + mark, page));
    }

    @Test
    void aPageIsShownToWhoMaySeeItAndToNobodyElse() throws Exception {
        long item = revised();
        again(item);
        String version = "/documents/" + item + "/versions/3/compare?old=2";
        assertThat(show("priya", item, "tomasz", version)).isEmpty();
        assertThat(Web.as(server, "tomasz").get("/today").body())
                .contains("Priya Malhan shows you " + number(item) + ": look at " + mark);
        assertThat(show("priya", item, "rafael", version))
                .as("B is in preparation")
                .isEqualTo("show.access");
        assertThat(show("priya", item, "rafael", "/documents/" + item)).isEmpty();
        server.add("far" + mark, "Far " + mark, "reader");
        server.db()
                .execute(
                        "delete from access_grant where person = ?",
                        server.actor("far" + mark).person());
        server.bean(GrantStore.class)
                .grantPerson(server.actor("far" + mark).person(), "reader", Scope.shelf(server.shelf()));
        assertThat(show("priya", item, "far" + mark, "/documents/" + item)).isEqualTo("show.access");
        assertThat(show("priya", item, "tomasz", "https://elsewhere.example/")).isEqualTo("show.page");
        assertThat(show("priya", item, "tomasz", "//elsewhere.example/documents/" + item))
                .isEqualTo("show.page");
        assertThat(show("priya", item, "tomasz", "/documents/" + (item + 1))).isEqualTo("show.page");
        HttpResponse<String> page = Web.as(server, "priya").get("/documents/" + item + "/show-to");
        assertThat(page.body())
                .contains("Tomasz Okrent", "Show it")
                .doesNotContain("value=\"" + server.actor("priya").person() + "\"");
        Map<String, String> form = new HashMap<>(Map.of("actKey", Server.key(), "page", "/documents/" + item));
        form.put("person", "" + server.actor("tomasz").person());
        assertThat(Web.as(server, "priya")
                        .post("/documents/" + item + "/show-to", form)
                        .headers()
                        .firstValue("Location")
                        .orElseThrow())
                .endsWith("?shown");
    }
}
