package mintshelf.core.house;

/**
 * One thing that a rule says, in words.
 *
 * @param key what it is about, unique within the rule and the same in every edition
 * @param subject what it is about, as shown; empty where the sentence says it
 * @param says the sentence
 */
public record RuleLine(String key, String subject, String says) {
    static RuleLine of(String subject, String says) {
        return new RuleLine(subject, subject, says);
    }
}
