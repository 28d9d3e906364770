package mintshelf.core.signoff;

/**
 * Whom a line of a sign-off rule asks.
 *
 * @param code of a role; the number of a group or a person, whose names may change
 */
public record Asked(Kind kind, String code) {
    public enum Kind {
        ROLE("the role"),
        GROUP("the group"),
        PERSON("");

        private final String words;

        Kind(String words) {
            this.words = words;
        }

        /** As in "2 of {words} Checking"; empty for a person, whose name says it. */
        public String words() {
            return words;
        }
    }

    /** The number of the group or the person; 0 for a role, and for a text that is none. */
    public long id() {
        return kind == Kind.ROLE || !code.matches("\\d{1,18}") ? 0 : Long.parseLong(code);
    }

    public boolean isRole(String role) {
        return kind == Kind.ROLE && code.equals(role);
    }
}
