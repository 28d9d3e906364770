package mintshelf.core.audit;

import java.time.Instant;
import java.util.OptionalInt;
import java.util.OptionalLong;

/**
 * One entry of the record.
 *
 * @param stream the item's id, or 0 for the house
 * @param seq place in its stream, from 1
 * @param person empty for what the server did by itself
 * @param address from where
 * @param act stable name: {@code version.added}
 * @param version number of the version it was done to
 * @param says the sentence that people read, without the name
 * @param why the reason that was given, may be empty
 */
public record RecordEntry(
        long stream,
        int seq,
        Instant at,
        OptionalLong person,
        String address,
        String act,
        OptionalLong item,
        OptionalInt version,
        String says,
        String why) {}
