package mintshelf.app.setup;

import mintshelf.app.use.house.ImportHouse;
import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;

/** Before anything else is asked for, the house has its rules. */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE)
public class ReadyMadeHouse implements ApplicationRunner {
    private final ImportHouse house;

    public ReadyMadeHouse(ImportHouse house) {
        this.house = house;
    }

    @Override
    public void run(ApplicationArguments arguments) {
        house.load();
    }
}
