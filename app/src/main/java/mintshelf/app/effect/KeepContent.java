package mintshelf.app.effect;

import com.github.luben.zstd.Zstd;
import java.time.Clock;
import java.util.Arrays;
import mintshelf.app.store.content.ContentStore;
import mintshelf.app.store.content.PieceStore;
import mintshelf.app.store.content.StoredContent;
import mintshelf.core.base.ContentHash;
import mintshelf.core.content.ChunkCutter;
import mintshelf.core.content.ContentKind;
import mintshelf.core.content.CutSize;
import org.springframework.stereotype.Component;

/** Keeps bytes that the shelf made itself, within the caller's transaction. */
@Component
public class KeepContent {
    private final ContentStore contents;
    private final PieceStore pieces;
    private final Clock clock;

    public KeepContent(ContentStore contents, PieceStore pieces, Clock clock) {
        this.contents = contents;
        this.pieces = pieces;
        this.clock = clock;
    }

    /** Keeps bytes that the shelf made, within the caller's transaction. */
    public StoredContent keep(byte[] bytes) {
        byte[] sample = Arrays.copyOf(bytes, Math.min(bytes.length, CutSize.SAMPLE));
        CutSize size = CutSize.forSample(sample.length, Zstd.compress(sample, 1).length);
        return contents.keep(
                ContentHash.compute(bytes),
                bytes.length,
                ContentKind.of(sample),
                size,
                () -> pieces.lay(bytes, new ChunkCutter(size).cuts(bytes, bytes.length, true), true),
                clock.instant());
    }
}
