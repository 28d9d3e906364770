package mintshelf.app.effect;

import java.time.Clock;
import java.time.Instant;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import mintshelf.app.ground.Actor;
import mintshelf.app.sight.Moments;
import mintshelf.app.store.AtCommit;
import mintshelf.app.store.document.Spine;
import mintshelf.app.store.document.SpineStore;
import mintshelf.app.store.house.RuleStore;
import mintshelf.app.store.notice.FollowStore;
import mintshelf.app.store.notice.FollowStore.Follow;
import mintshelf.app.store.notice.NoticeStore;
import mintshelf.app.store.outbox.OutboxStore;
import mintshelf.app.store.person.GrantStore;
import mintshelf.app.store.person.PersonStore;
import mintshelf.core.access.Access;
import mintshelf.core.access.Place;
import mintshelf.core.access.Right;
import mintshelf.core.house.DistributionRule.Sentence;
import mintshelf.core.house.DistributionRule.Way;
import mintshelf.core.notice.MailTime;
import mintshelf.core.notice.Moment;
import mintshelf.core.notice.NoticeKind;
import mintshelf.core.signoff.Asked;
import org.springframework.stereotype.Component;

/**
 * Tells those who follow a document, its folder or its shelf what happened to it: gathered while an act goes on, told as the last thing of
 * its transaction. Who does not see work in preparation learns of nothing but what comes into force.
 */
@Component
class Following {
    private final FollowStore follows;
    private final RuleStore rules;
    private final SpineStore spines;
    private final GrantStore grants;
    private final PersonStore people;
    private final NoticeStore notices;
    private final OutboxStore outbox;
    private final Post post;
    private final Clock clock;
    private final AtCommit<Noted> noted = new AtCommit<>(this::tell);

    private record Noted(Actor actor, long item, String act, String says, boolean files) {}

    /**
     * How somebody is mailed.
     *
     * @param own whether the time that they chose counts
     * @param when the house says; empty where it leaves that to them
     */
    private record Mail(Way way, boolean own, Optional<MailTime> when) {
        static final Mail USUAL = new Mail(Way.LINK, true, Optional.empty());

        /** Files go where the move says so, too. */
        static Mail of(Sentence sentence, boolean files) {
            return new Mail(files ? sentence.way() : Way.LINK, sentence.when().isEmpty(), sentence.when());
        }

        /** Told for two reasons: the fuller way, at the earlier time. */
        Mail and(Mail other) {
            return new Mail(
                    way.compareTo(other.way) > 0 ? way : other.way,
                    own || other.own,
                    Stream.of(when, other.when).flatMap(Optional::stream).min(Comparator.naturalOrder()));
        }

        MailTime time(Supplier<MailTime> chosen) {
            return Stream.concat(when.stream(), own ? Stream.of(chosen.get()) : Stream.empty())
                    .min(Comparator.naturalOrder())
                    .orElse(MailTime.AT_ONCE);
        }
    }

    Following(
            FollowStore follows,
            RuleStore rules,
            SpineStore spines,
            GrantStore grants,
            PersonStore people,
            NoticeStore notices,
            OutboxStore outbox,
            Post post,
            Clock clock) {
        this.follows = follows;
        this.rules = rules;
        this.spines = spines;
        this.grants = grants;
        this.people = people;
        this.notices = notices;
        this.outbox = outbox;
        this.post = post;
        this.clock = clock;
    }

    /** What is noted in the record of a document; most of it is no moment that anybody follows. */
    void noted(Actor actor, long item, String act, String says, boolean files) {
        if (Moments.isMoment(act) && (follows.any() || !rules.distribution().isEmpty()))
            noted.add(new Noted(actor, item, act, says, files));
    }

    private Set<Long> people(Asked who) {
        return people.asked(who).stream().map(PersonStore.Person::id).collect(Collectors.toSet());
    }

    private void tell(List<Noted> lines) {
        Map<Long, Spine> documents =
                spines.spines(lines.stream().map(Noted::item).distinct().toList());
        Set<Long> folders = new LinkedHashSet<>();
        Set<Long> shelves = new LinkedHashSet<>();
        documents.values().forEach(s -> {
            folders.addAll(s.document().place().folders());
            shelves.add(s.document().place().shelf());
        });
        List<Follow> followers = follows.followers(documents.keySet(), folders, shelves);
        List<Sentence> sentences = rules.distribution();
        if (followers.isEmpty() && sentences.isEmpty()) return;
        Map<Asked, Set<Long>> members = new HashMap<>();
        Map<Long, Access> access = new HashMap<>();
        Instant now = clock.instant();
        for (Noted line : lines) {
            Spine spine = documents.get(line.item());
            if (spine == null) continue;
            Place place = spine.document().place();
            Moment moment = Moments.of(line.act(), spine);
            Map<Long, Mail> told = new LinkedHashMap<>();
            for (Follow f : followers) {
                if (f.person() == line.actor().person() || !f.moments().contains(moment)) continue;
                boolean here = switch (f.kind()) {
                    case ITEM -> f.target() == line.item();
                    case FOLDER -> place.folders().contains(f.target());
                    case SHELF -> place.shelf() == f.target();
                };
                if (here && sees(access.computeIfAbsent(f.person(), this::access), moment, place)) {
                    told.putIfAbsent(f.person(), Mail.USUAL);
                }
            }
            for (Sentence s : sentences) {
                if (!s.isAbout(moment, spine.kindCode(), place.shelf())) continue;
                for (long person : members.computeIfAbsent(s.who(), this::people)) {
                    boolean other = person != line.actor().person();
                    if (other && sees(access.computeIfAbsent(person, this::access), moment, place)) {
                        told.merge(person, Mail.of(s, line.files()), Mail::and);
                    }
                }
            }
            if (!told.isEmpty()) tell(line, spine, moment, told, now);
        }
    }

    private Access access(long person) {
        return people.person(person)
                .filter(p -> !p.left())
                .map(p -> grants.access(p.id(), p.name()))
                .orElse(new Access(person, "", List.of()));
    }

    private static boolean sees(Access access, Moment moment, Place place) {
        return access.may(Right.SEE_ALL, place) || (moment.isForReaders() && access.may(Right.SEE_RELEASED, place));
    }

    private void tell(Noted line, Spine spine, Moment moment, Map<Long, Mail> receivers, Instant now) {
        String code = "followed." + moment.name().toLowerCase(Locale.ROOT);
        String says = spine.document().number() + ": " + line.actor().name() + " " + line.says();
        String to = "/documents/" + line.item();
        long by = line.actor().person();
        long event = outbox.event(code, Optional.empty(), Optional.of(line.item()), by, says, to, now);
        receivers.forEach((person, mail) -> {
            notices.tell(person, code, Optional.of(line.item()), by, says, to, now);
            MailTime when = mail.time(() -> post.time(person, NoticeKind.of(code)));
            post.mail(event, person, Optional.empty(), when, mail.way(), now);
        });
    }
}
