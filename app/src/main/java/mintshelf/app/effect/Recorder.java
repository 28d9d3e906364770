package mintshelf.app.effect;

import java.time.Clock;
import java.util.OptionalInt;
import java.util.OptionalLong;
import mintshelf.app.ground.Actor;
import mintshelf.app.store.document.ListStore;
import mintshelf.app.store.record.RecordStore;
import org.springframework.stereotype.Component;

/** Writes an act into the record, within the act's own transaction. */
@Component
public class Recorder {
    private final RecordStore record;
    private final ListStore lists;
    private final Following following;
    private final Clock clock;

    Recorder(RecordStore record, ListStore lists, Following following, Clock clock) {
        this.record = record;
        this.lists = lists;
        this.following = following;
        this.clock = clock;
    }

    /** @param says a sentence without its subject: "checked in version 6" */
    public void note(Actor actor, long item, String act, int version, String says, String why) {
        noteMove(actor, item, act, version, says, why, false);
    }

    /** As {@link #note(Actor, long, String, int, String, String)}, of what may go as files with the mails of it. */
    public void noteFiles(Actor actor, long item, String act, int version, String says, String why) {
        noteMove(actor, item, act, version, says, why, true);
    }

    /** @param files whether files may go with the mails of it */
    void noteMove(Actor actor, long item, String act, int version, String says, String why, boolean files) {
        record.appendTo(item, clock.instant(), line(actor, act, OptionalInt.of(version), says, why));
        following.noted(actor, item, act, says, files);
    }

    /** As {@link #note(Actor, long, String, int, String, String)}, of which nobody is told who follows: one of thousands at once. */
    public void noteQuietly(Actor actor, long item, String act, int version, String says, String why) {
        record.appendTo(item, clock.instant(), line(actor, act, OptionalInt.of(version), says, why));
    }

    public void note(Actor actor, long item, String act, String says, String why) {
        record.appendTo(item, clock.instant(), line(actor, act, OptionalInt.empty(), says, why));
        following.noted(actor, item, act, says, false);
    }

    /** Notes among what the actor worked on last. */
    public void recent(Actor actor, long item, String how) {
        lists.noteRecent(actor.person(), item, how, clock.instant());
    }

    /** For what the server did to a document by itself. */
    public void noteByItself(long item, String act, String says) {
        record.appendTo(
                item,
                clock.instant(),
                new RecordStore.RecordLine(OptionalLong.empty(), "", act, OptionalInt.empty(), says, ""));
    }

    /** For what concerns no single document. */
    public void noteHouse(Actor actor, String act, String says, String why) {
        record.appendToHouse(clock.instant(), line(actor, act, OptionalInt.empty(), says, why));
    }

    /** For what the server did by itself, or what somebody did who is not signed in. */
    public void noteHouse(OptionalLong person, String address, String act, String says) {
        record.appendToHouse(
                clock.instant(), new RecordStore.RecordLine(person, address, act, OptionalInt.empty(), says, ""));
    }

    private static RecordStore.RecordLine line(Actor actor, String act, OptionalInt version, String says, String why) {
        return new RecordStore.RecordLine(OptionalLong.of(actor.person()), actor.address(), act, version, says, why);
    }
}
