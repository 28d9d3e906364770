package mintshelf.app.use.verify;

import java.io.IOException;
import java.nio.file.FileStore;
import java.nio.file.Files;
import java.nio.file.Path;
import mintshelf.app.setup.Settings;
import mintshelf.core.base.Numbers;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;

/** Tells that the disk of the private database fills before it is full. */
@Service
public class DiskSpace {
    private static final Logger LOG = LoggerFactory.getLogger(DiskSpace.class);
    /** Less than this is told: some large files more, and nothing can be written any more. */
    private static final long LEAST = 2L << 30;

    private final Settings settings;
    private volatile String says = "";

    public DiskSpace(Settings settings) {
        this.settings = settings;
    }

    /** A sentence when room runs out; empty while there is enough. */
    public String says() {
        return says;
    }

    @Scheduled(initialDelayString = "PT5S", fixedDelayString = "PT1M")
    public void look() {
        if (settings.databaseFolder().isEmpty()) return;
        try {
            FileStore disk = Files.getFileStore(Path.of(settings.databaseFolder()));
            says = says(disk.getUsableSpace());
            if (!says.isEmpty()) LOG.warn("{}", says);
        } catch (IOException e) {
            LOG.warn("The disk of the database cannot be looked at: {}", e.getMessage());
        }
    }

    static String says(long usable) {
        return usable >= LEAST
                ? ""
                : "The disk of the database has " + Numbers.size(usable)
                        + " left. Make room, before nothing can be checked in any more.";
    }
}
