package mintshelf.app.use.hold;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.security.MessageDigest;
import java.util.Optional;
import mintshelf.app.ground.ReadingRoom;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Contents;
import mintshelf.app.store.content.StoredContent;
import mintshelf.core.base.ContentHash;
import mintshelf.core.base.Outcome;
import mintshelf.core.content.ContentKind;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.dxf.SaveMarks;
import mintshelf.core.model.step.StepModel;
import mintshelf.core.model.step.StepReader;
import org.springframework.stereotype.Component;

/** Whether two contents differ in nothing but the times at which their programs saved them. */
@Component
class OnlySaved {
    /** Times are of much the same length; what differs by more differs in more. */
    private static final long MOST_APART = 512;

    private final Contents contents;
    private final ReadingRoom room;

    OnlySaved(Contents contents, ReadingRoom room) {
        this.contents = contents;
        this.room = room;
    }

    boolean differ(StoredContent a, StoredContent b) {
        if (a.kind() != b.kind() || a.hash().equals(b.hash())) return false;
        if (Math.abs(a.size() - b.size()) > MOST_APART) return false;
        try {
            Optional<ContentHash> one = room.apart(() -> without(a));
            return one.isPresent() && one.equals(room.apart(() -> without(b)));
        } catch (Refused e) {
            return false; // no room to look at it now: then it is a version
        }
    }

    private Optional<ContentHash> without(StoredContent content) {
        if (content.kind() == ContentKind.DXF) {
            return contents.whole(content)
                    .flatMap(bytes -> DxfDrawing.read(bytes) instanceof Outcome.Granted<DxfDrawing> drawing
                            ? Optional.of(SaveMarks.without(drawing.value()))
                            : Optional.empty());
        }
        if (content.kind() != ContentKind.STEP) return Optional.empty();
        Optional<byte[]> whole = contents.whole(content);
        if (whole.isEmpty()) return Optional.empty();
        byte[] bytes = whole.get();
        try {
            return StepReader.read(new ByteArrayInputStream(bytes)) instanceof Outcome.Granted<StepModel> model
                    ? Optional.of(withoutStamp(bytes, model.value().head()))
                    : Optional.empty();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static ContentHash withoutStamp(byte[] bytes, StepModel.Head head) {
        MessageDigest digest = ContentHash.digest();
        int from = (int) Math.max(0, head.stampFrom());
        int to = (int) Math.max(0, head.stampTo());
        digest.update(bytes, 0, from);
        digest.update(bytes, to, bytes.length - to);
        return ContentHash.of(digest.digest());
    }
}
