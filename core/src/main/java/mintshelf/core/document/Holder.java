package mintshelf.core.document;

import java.time.Instant;

/** A check-out in force and the person who has it. */
public record Holder(
        long hold, long person, String name, Instant since, String desk, String purpose, long baseVersion) {}
