package mintshelf.app.setup;

import com.zaxxer.hikari.HikariConfig;
import java.nio.file.Path;
import java.time.Clock;
import java.util.Optional;
import mintshelf.app.store.search.IndexSource;
import mintshelf.app.store.search.NodeIndex;
import org.flywaydb.core.Flyway;
import org.springframework.beans.factory.config.BeanPostProcessor;
import org.springframework.boot.flyway.autoconfigure.FlywayMigrationStrategy;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.env.Environment;
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

    /** Kept from one start to the next where the settings name a folder. */
    @Bean(destroyMethod = "close")
    NodeIndex nodeIndex(IndexSource source, Settings settings, Clock clock) {
        Optional<Path> folder =
                settings.indexFolder().isEmpty() ? Optional.empty() : Optional.of(Path.of(settings.indexFolder()));
        return new NodeIndex(source, folder, clock);
    }

    /**
     * As many connections as the machine can keep busy, where the settings name no number: more of them only wait for a
     * processor, and hold locks while they do.
     */
    @Bean
    static BeanPostProcessor connections(Environment environment) {
        return new BeanPostProcessor() {
            @Override
            public Object postProcessBeforeInitialization(Object bean, String name) {
                boolean named = environment.containsProperty("spring.datasource.hikari.maximum-pool-size");
                if (bean instanceof HikariConfig pool && !named) {
                    pool.setMaximumPoolSize(
                            Math.max(10, 4 * Runtime.getRuntime().availableProcessors()));
                }
                return bean;
            }
        };
    }

    /** Every migration is one restartable statement: what a killed start left half done is repaired and done again. */
    @Bean
    FlywayMigrationStrategy migration() {
        return (Flyway flyway) -> {
            OlderForm.refuse(flyway);
            flyway.repair();
            flyway.migrate();
        };
    }
}
