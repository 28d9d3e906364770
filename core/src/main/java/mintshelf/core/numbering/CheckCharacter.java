package mintshelf.core.numbering;

import java.util.Locale;

/** Check characters of ISO 7064: a mistyped or swapped character in a number is noticed. */
public enum CheckCharacter {
    /** MOD 11-2 (ISO 7064, pure system): for digits; the check character is a digit or X. */
    MOD_11_2("0123456789X", 11, 10),
    /** MOD 37-2 (ISO 7064, pure system): for digits and letters; the check character is one of them or *. */
    MOD_37_2("0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ*", 37, 36);

    private final String alphabet;
    private final int modulus;
    private final int inputs;

    CheckCharacter(String alphabet, int modulus, int inputs) {
        this.alphabet = alphabet;
        this.modulus = modulus;
        this.inputs = inputs;
    }

    /** The check character of {@code text}; characters outside the system's own (hyphens, blanks) do not count. */
    public char of(String text) {
        int sum = 0;
        for (char c : text.toUpperCase(Locale.ROOT).toCharArray()) {
            int value = alphabet.indexOf(c);
            if (value < 0 || value >= inputs) continue;
            sum = (sum + value) * 2 % modulus;
        }
        return alphabet.charAt((modulus + 1 - sum % modulus) % modulus);
    }

    /** Whether {@code text} ends with its own check character. */
    public boolean fits(String text) {
        return !text.isEmpty()
                && of(text.substring(0, text.length() - 1)) == Character.toUpperCase(text.charAt(text.length() - 1));
    }
}
