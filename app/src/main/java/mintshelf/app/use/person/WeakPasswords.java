package mintshelf.app.use.person;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Set;
import java.util.stream.Collectors;

/** Passwords that are tried first, whatever their length: a list that ships with the application, and what is made of its words. */
final class WeakPasswords {
    private static final Set<String> COMMON = read();

    private WeakPasswords() {}

    private static Set<String> read() {
        try (InputStream in = WeakPasswords.class.getResourceAsStream("common-passwords.txt")) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8)
                    .lines()
                    .map(String::strip)
                    .filter(line -> !line.isEmpty() && !line.startsWith("#"))
                    .collect(Collectors.toUnmodifiableSet());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Whether it is on the list, or is a word of it with digits around it, said twice, or with letters as digits. */
    static boolean isCommon(String password) {
        String plain = password.toLowerCase(Locale.ROOT)
                .replace('0', 'o')
                .replace('1', 'i')
                .replace('3', 'e')
                .replace('4', 'a')
                .replace('5', 's')
                .replace('$', 's')
                .replace('@', 'a')
                .replaceAll("[^\\p{L}\\p{N}]", "");
        String low = password.toLowerCase(Locale.ROOT);
        String letters = low.replaceAll("^[^\\p{L}]+|[^\\p{L}]+$", "");
        return COMMON.contains(low)
                || COMMON.contains(plain)
                || COMMON.contains(letters)
                || isTwice(letters)
                || isTwice(low)
                || isRun(low);
    }

    private static boolean isTwice(String word) {
        for (int part = 1; part <= word.length() / 2; part++) {
            if (word.length() % part == 0
                    && word.substring(0, part).repeat(word.length() / part).equals(word)) {
                return part < 5 || COMMON.contains(word.substring(0, part));
            }
        }
        return false;
    }

    /** Letters or digits one after the other: "abcdefghijkl", "123456789012", along a row of the keyboard. */
    private static boolean isRun(String word) {
        for (String row :
                new String[] {"abcdefghijklmnopqrstuvwxyz", "01234567890123456789", "qwertyuiopasdfghjklzxcvbnm"}) {
            String back = new StringBuilder(row).reverse().toString();
            if (row.contains(word) || back.contains(word)) return true;
        }
        return false;
    }
}
