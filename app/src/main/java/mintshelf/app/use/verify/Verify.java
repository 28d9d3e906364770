package mintshelf.app.use.verify;

import java.io.IOException;
import java.io.OutputStream;
import java.security.DigestOutputStream;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import mintshelf.app.sight.Contents;
import mintshelf.app.store.content.BrokenContent;
import mintshelf.app.store.content.ContentStore;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.house.SheetMapStore;
import mintshelf.app.store.output.OutputStore;
import mintshelf.app.store.record.RecordStore;
import mintshelf.app.store.verify.LooseEndStore;
import mintshelf.core.base.ContentHash;
import mintshelf.core.base.Numbers;
import mintshelf.core.stamp.SheetStamp;
import org.springframework.stereotype.Service;

/** Reads everything back: contents against their hashes, the chains of the record, what must belong together. */
@Service
public class Verify {
    private static final int PORTION = 500;
    private final ContentStore contents;
    private final RecordStore record;
    private final LooseEndStore references;
    private final OutputStore outputs;
    private final SheetMapStore maps;
    private final Contents bytes;

    public Verify(
            ContentStore contents,
            RecordStore record,
            LooseEndStore references,
            OutputStore outputs,
            SheetMapStore maps,
            Contents bytes) {
        this.outputs = outputs;
        this.maps = maps;
        this.bytes = bytes;
        this.contents = contents;
        this.record = record;
        this.references = references;
    }

    /** What was found. */
    public record Findings(long contents, long bytes, long streams, List<String> problems) {
        public String says() {
            return Numbers.count(contents, "content", "contents") + " (" + Numbers.size(bytes) + "), "
                    + Numbers.count(streams, "chain", "chains") + " of the record: "
                    + (problems.isEmpty() ? "all is whole" : Numbers.count(problems.size(), "problem", "problems"));
        }
    }

    /** O(all bytes); bounded memory. */
    public Findings verify() {
        List<String> problems = new ArrayList<>(references.problems());
        long count = 0;
        long size = 0;
        long after = 0;
        for (List<StoredContent> some = contents.sealedAfter(0, PORTION);
                !some.isEmpty();
                some = contents.sealedAfter(after, PORTION)) {
            for (StoredContent content : some) {
                after = content.id();
                count++;
                size += content.size();
                check(content, problems);
            }
        }
        proofs(problems);
        long streams = 0;
        long stream = -1;
        for (List<Long> some = record.streamsAfter(-1, PORTION);
                !some.isEmpty();
                some = record.streamsAfter(stream, PORTION)) {
            for (long each : some) {
                stream = each;
                streams++;
                record.verify(each).ifPresent(problems::add);
            }
        }
        record.verifyAnchors().ifPresent(problems::add);
        return new Findings(count, size, streams, List.copyOf(problems));
    }

    /** Every sheet that the shelf wrote is written again from the signed one: the proof by which its sign-offs carry over. */
    private void proofs(List<String> problems) {
        long after = 0;
        for (List<OutputStore.Proof> some = outputs.proofsAfter(0, PORTION);
                !some.isEmpty();
                some = outputs.proofsAfter(after, PORTION)) {
            for (OutputStore.Proof proof : some) {
                after = proof.version();
                Optional<StoredContent> signed = contents.sealed(proof.signed());
                Optional<StoredContent> stamped = contents.sealed(proof.stamped());
                if (signed.isEmpty() || stamped.isEmpty()) {
                    problems.add("the proof of version " + proof.version() + " names a content that is not there");
                    continue;
                }
                try {
                    SheetStamp.prove(
                                    bytes.bytes(signed.get(), signed.get().size()),
                                    bytes.bytes(stamped.get(), stamped.get().size()),
                                    maps.edition(proof.sheetMap()).map(),
                                    proof.values())
                            .ifPresent(r -> problems.add("version " + proof.version() + ": " + r.reason()));
                } catch (BrokenContent e) {
                    problems.add("version " + proof.version() + ": " + e.getMessage());
                }
            }
        }
    }

    private void check(StoredContent content, List<String> problems) {
        MessageDigest digest = ContentHash.digest();
        try {
            contents.send(
                    content.id(), 0, content.size(), new DigestOutputStream(OutputStream.nullOutputStream(), digest));
            if (!ContentHash.of(digest.digest()).equals(content.hash())) {
                problems.add("content " + content.id() + " does not have its hash "
                        + content.hash().shortHex());
            }
        } catch (BrokenContent | IOException e) {
            problems.add("content " + content.id() + ": " + e.getMessage());
        }
    }
}
