package mintshelf.app.setup;

import java.time.Clock;
import org.flywaydb.core.Flyway;
import org.springframework.boot.flyway.autoconfigure.FlywayMigrationStrategy;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import org.springframework.transaction.annotation.EnableTransactionManagement;

/** What the whole application shares. */
@Configuration
@EnableTransactionManagement
public class Beans {
    /** The only clock; the demo and the tests put a primary one before it. */
    @Bean
    Clock clock() {
        return Clock.systemUTC();
    }

    @Bean
    BCryptPasswordEncoder passwordEncoder(Settings settings) {
        return new BCryptPasswordEncoder(settings.passwordStrength());
    }

    /** Every migration is one restartable statement: what a killed start left half done is repaired and done again. */
    @Bean
    FlywayMigrationStrategy migration() {
        return (Flyway flyway) -> {
            flyway.repair();
            flyway.migrate();
        };
    }
}
