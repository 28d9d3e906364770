package mintshelf.demo;

import mintshelf.app.MintShelf;
import mintshelf.app.page.signin.SignInPage;
import mintshelf.demo.practice.PracticeSeat;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.context.annotation.Import;
import org.springframework.context.annotation.Primary;

/** The application with the demo's clock, its people on the sign-in page, and its scenario. */
@Configuration
@Import({MintShelf.class, Scenario.class, Hands.class, PostTray.class, PracticeSeat.class})
public class DemoApplication {
    @Bean
    @Primary
    StoryClock storyClock() {
        return new StoryClock();
    }

    @Bean
    SignInPage.Hints hints() {
        return () -> Cast.ALL.stream()
                .map(p -> new SignInPage.Hint(p.login(), p.name(), p.does()))
                .toList();
    }
}
