package mintshelf.demo;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.Duration;
import java.util.OptionalLong;
import mintshelf.app.ground.Actor;
import mintshelf.app.use.content.ReceiveContent;
import mintshelf.app.use.takein.BringTaken;
import mintshelf.app.use.takein.TakeInWork;
import mintshelf.app.use.takein.TakeIns;
import mintshelf.standin.OldDrive;
import mintshelf.standin.OldSheet;

/** An old drive of the workshop that the data manager is about to take in: it is read, and its table wants mending. */
final class TheOldDrive extends Chapter {
    private static final int FILES = 240;

    TheOldDrive(Book book) {
        super(book);
    }

    void tell(long shelf) {
        hands.at(now.minus(Duration.ofHours(20)));
        Actor ines = hands.actor("ines");
        TakeIns takeIns = hands.bean(TakeIns.class);
        OldDrive drive = new OldDrive(FILES);
        long id = takeIns.begin(ines, shelf, OptionalLong.empty(), "Old drive of the workshop");
        try {
            ByteArrayOutputStream packed = new ByteArrayOutputStream();
            drive.zip(packed);
            BringTaken.Coming coming =
                    hands.bean(BringTaken.class).openArchive(ines, id, "workshop.zip", packed.size());
            hands.bean(ReceiveContent.class)
                    .receive(ines, coming.token(), 0, new ByteArrayInputStream(packed.toByteArray()));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        takeIns.setTable(ines, id, "drawing register.csv", drive.table());
        takeIns.read(ines, id);
        while (takeIns.state(ines, id).isWorking()) hands.bean(TakeInWork.class).goOnWithNext();
        drawer(ines, shelf);
    }

    /** One sheet from a drawer, taken in as it is: of its first two revisions only its own table tells. */
    private void drawer(Actor ines, long shelf) {
        TakeIns takeIns = hands.bean(TakeIns.class);
        byte[] sheet = new OldSheet("TG20-0112", "Mooring eye, welded", "C", 21)
                .revised("A", "First issue", "2004-03-18", "P. Kern", "H. Voss")
                .revised("B", "Eye 18 was 16", "2007-11-02", "M. Lind", "H. Voss")
                .revised("C", "Weld all round", "2011-06-24", "M. Lind", "O. Brandt")
                .bytes();
        long id = takeIns.begin(ines, shelf, OptionalLong.empty(), "Drawer of the mooring workshop");
        BringTaken.Coming coming =
                hands.bean(BringTaken.class).open(ines, id, "TG20-0112 mooring eye.dxf", sheet.length);
        try {
            hands.bean(ReceiveContent.class).receive(ines, coming.token(), 0, new ByteArrayInputStream(sheet));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        takeIns.read(ines, id);
        while (takeIns.state(ines, id).isWorking()) hands.bean(TakeInWork.class).goOnWithNext();
        takeIns.file(ines, id, takeIns.view(ines, id).documents());
        while (takeIns.state(ines, id).isWorking()) hands.bean(TakeInWork.class).goOnWithNext();
    }
}
