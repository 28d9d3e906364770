package mintshelf.app;

import mintshelf.app.setup.Commands;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.boot.context.properties.ConfigurationPropertiesScan;
import org.springframework.scheduling.annotation.EnableScheduling;

/** The application. Started by {@code ./shelf serve}; the demo starts the same one with its scenario. */
@SpringBootApplication
@ConfigurationPropertiesScan
@EnableScheduling
public class MintShelf {
    /** Arguments: {@code serve}, {@code verify}, {@code backup FILE} or {@code restore FILE}. */
    public static void main(String[] arguments) {
        System.exit(Commands.run(arguments));
    }
}
