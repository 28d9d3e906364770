package mintshelf.core.document;

import java.util.Optional;
import mintshelf.core.access.Place;
import mintshelf.core.revision.StageClass;

/**
 * What the rules need to know of a document.
 *
 * @param place where rights are asked for
 * @param line id of the line on which it is looked at: its main one, or that of a trial
 * @param pending the revision on its way to release, at most one
 * @param released the revision in force, at most one
 * @param lastEnded the revision that ended last, when there is neither a pending nor a released one
 * @param trial number of the trial on whose line it is looked at; 0 on its main line
 * @param part whether it is a part without a file: what its versions hold is what it says of itself, written by the shelf
 */
public record Document(
        long id,
        String number,
        String title,
        String fileName,
        Place place,
        long line,
        Head head,
        Optional<Revision> pending,
        Optional<Revision> released,
        Optional<Revision> lastEnded,
        Optional<Holder> holder,
        boolean dropped,
        int trial,
        boolean part) {
    /** One with a file, on its main line. */
    public Document(
            long id,
            String number,
            String title,
            String fileName,
            Place place,
            long line,
            Head head,
            Optional<Revision> pending,
            Optional<Revision> released,
            Optional<Revision> lastEnded,
            Optional<Holder> holder,
            boolean dropped) {
        this(id, number, title, fileName, place, line, head, pending, released, lastEnded, holder, dropped, 0, false);
    }

    /**
     * As it stands on the line of a trial: with the head and the holder of that, in preparation whatever its own stage is, and
     * called by its number and the line's, so that every rule that asks a document asks the line: "TG40-3030 t1".
     *
     * @param head of the line; where nothing was checked in on it the version at which it begins
     */
    public Document onTrial(int number, long itsLine, Head head, Optional<Holder> holder) {
        Revision now = current();
        Stage stage = now.stage();
        Stage open = new Stage(stage.edition(), stage.code(), stage.name(), StageClass.PREPARING, stage.position());
        Revision tried =
                new Revision(now.id(), now.ordinal(), now.label(), open, true, false, now.startedAt(), now.reason());
        return new Document(
                id,
                this.number + " " + VersionName.line(number),
                title,
                fileName,
                place,
                itsLine,
                head,
                Optional.of(tried),
                released,
                lastEnded,
                holder,
                dropped,
                number,
                part);
    }

    /** Its number alone, on the line of a trial too. */
    public String ownNumber() {
        return isTried()
                ? number.substring(0, number.length() - VersionName.line(trial).length() - 1)
                : number;
    }

    /** Whether it is looked at on the line of a trial. */
    public boolean isTried() {
        return trial > 0;
    }

    /** Whether somebody may be working on it now. */
    public boolean isPrepared() {
        return !dropped
                && pending.filter(r -> r.stage().stageClass() == StageClass.PREPARING)
                        .isPresent();
    }

    /** The revision that work is shown by: the pending one, else the released one, else the last that ended. */
    public Revision current() {
        return pending.or(() -> released).or(() -> lastEnded).orElseThrow();
    }
}
