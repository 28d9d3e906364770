package mintshelf.demo;

import java.util.List;
import java.util.Optional;
import mintshelf.standin.OpenIdProvider;

/** The people of Ebbcote Gauge Works, all made up. */
final class Cast {
    static final String PASSWORD = "harbour-gauge-40";

    /** A person of the story: groups, and what the sign-in page says of them. */
    record Person(String login, String name, String note, List<String> groups, String does) {}

    static final List<Person> ALL = List.of(
            new Person(
                    "ines",
                    "Ines Kallmar",
                    "CAD data manager",
                    List.of("Data management"),
                    "keeps order: sees and may do everything"),
            new Person(
                    "priya",
                    "Priya Malhan",
                    "designer",
                    List.of("Drawing office"),
                    "designs: files, checks out, checks in"),
            new Person(
                    "tomasz",
                    "Tomasz Okrent",
                    "designer",
                    List.of("Drawing office"),
                    "designs; holds the pipe clamp and is away"),
            new Person(
                    "hedda",
                    "Hedda Lysgaard",
                    "checker",
                    List.of("Checking"),
                    "checks drawings: sees work in preparation"),
            new Person(
                    "oluwaseun",
                    "Oluwaseun Adebari",
                    "head of design",
                    List.of("Design lead", "Drawing office"),
                    "leads design"),
            new Person(
                    "carmen",
                    "Carmen Uribe",
                    "deputy head of design",
                    List.of("Design lead"),
                    "stands in for the head of design"),
            new Person(
                    "marit",
                    "Marit Solvang",
                    "quality",
                    List.of("Quality"),
                    "quality: sees work and signs it, changes nothing"),
            new Person(
                    "rafael",
                    "Rafael Quiroz",
                    "manufacturing",
                    List.of("Shop"),
                    "manufacturing: sees what is released, nothing else"),
            new Person(
                    "yuki",
                    "Yuki Tanabe",
                    "purchasing",
                    List.of("Buying"),
                    "purchasing: sees what is released, nothing else"));

    private Cast() {}

    /** The stand-in of their own sign-on, which knows them all and says in which groups they are. */
    static OpenIdProvider signOn() {
        OpenIdProvider provider = OpenIdProvider.open(0);
        for (Person p : ALL) {
            provider.with(new OpenIdProvider.Account(
                    "ebbcote-" + p.login(),
                    p.login(),
                    p.name(),
                    p.login() + "@ebbcote.example",
                    Optional.of(p.groups())));
        }
        return provider;
    }
}
