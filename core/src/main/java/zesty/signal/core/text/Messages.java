package zesty.signal.core.text;

import java.text.DecimalFormatSymbols;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.MissingResourceException;
import java.util.ResourceBundle;
import java.util.Set;

/**
 * The texts that people read, by their keys, in the language that was chosen at start. Each module has a bundle of its
 * own ({@code zesty/signal/words/core.properties}); a text that a language lacks is said in English. Texts that stand in
 * constants are read once, so the language is set before anything else is loaded. Files, and what the command line
 * prints, keep to English: programs read them.
 *
 * <p>Any thread may ask; {@link #speak} is for the start.
 */
public final class Messages {
    /** The languages there are, English first; each is called what it calls itself. */
    public static final List<Locale> LANGUAGES = List.of(Locale.ENGLISH, Locale.GERMAN);

    private static final List<String> MODULES = List.of("core", "boards", "takes", "exchange", "engine", "app");
    private static final String FOLDER = "zesty.signal.words.";

    private record Spoken(Locale language, char decimal, Map<String, String> texts) {}

    /** Null until something is said: whoever chooses a language first reads its bundles only. */
    private static volatile Spoken spoken;

    private Messages() {}

    /** From now on texts come in this language, or in English where it is none of {@link #LANGUAGES}. */
    public static void speak(Locale language) {
        spoken = read(language);
    }

    private static Spoken spoken() {
        Spoken now = spoken;
        if (now == null) {
            now = read(Locale.ENGLISH);
            spoken = now;
        }
        return now;
    }

    public static Locale language() {
        return spoken().language();
    }

    /** @return the sign between whole and fraction in numbers on screen */
    public static char decimal() {
        return spoken().decimal();
    }

    /**
     * @param values what the places {@code {0}}, {@code {1}} … of the text stand for, as they would be joined to a text
     *     in code; <code>{{</code> is a brace
     * @return the text; the key itself where there is none, so that nothing is missing silently
     */
    public static String of(String key, Object... values) {
        String text = spoken().texts().getOrDefault(key, key);
        return values.length == 0 ? text : filled(text, values);
    }

    /** @return a text in another language than the one that is spoken */
    public static String in(Locale language, String key) {
        return read(language).texts().getOrDefault(key, key);
    }

    /** @return a word that files and the command line know, as people say it: {@code electrical}, {@code beats/min} */
    public static String token(String word) {
        return spoken().texts().getOrDefault("token." + word, word);
    }

    /**
     * @param text as it is spoken now
     * @return whether the words are that text, in any of the languages: a rig that was made in another one is read here
     */
    public static boolean means(String text, String words) {
        if (text.equalsIgnoreCase(words)) {
            return true;
        }
        Set<String> keys = new HashSet<>();
        spoken().texts().forEach((key, one) -> {
            if (one.equals(text)) {
                keys.add(key);
            }
        });
        return LANGUAGES.stream().map(Messages::read).anyMatch(other -> keys.stream()
                .anyMatch(key -> words.equalsIgnoreCase(other.texts().get(key))));
    }

    /** @return a title as it stands within a sentence: German nouns keep their capital */
    public static String within(String title) {
        return spoken().language().equals(Locale.ENGLISH) ? title.toLowerCase(Locale.ROOT) : title;
    }

    private static String filled(String text, Object[] values) {
        StringBuilder out = new StringBuilder(text.length() + 16 * values.length);
        for (int at = 0; at < text.length(); at++) {
            char sign = text.charAt(at);
            if (sign != '{') {
                out.append(sign);
                continue;
            }
            int end = text.indexOf('}', at);
            int place = end < 0 ? -1 : place(text.substring(at + 1, end));
            if (place >= 0 && place < values.length) {
                out.append(values[place]);
                at = end;
            } else {
                out.append('{');
                at += text.startsWith("{{", at) ? 1 : 0;
            }
        }
        return out.toString();
    }

    private static int place(String digits) {
        return !digits.isEmpty() && digits.length() < 3 && digits.chars().allMatch(Character::isDigit)
                ? Integer.parseInt(digits)
                : -1;
    }

    /** @return every key with its text in a language, as the bundles have them: for tests, and for who translates */
    public static Map<String, String> all(Locale language) {
        return Map.copyOf(read(language).texts());
    }

    private static Spoken read(Locale wanted) {
        Locale language = LANGUAGES.stream()
                .filter(one -> one.getLanguage().equals(wanted.getLanguage()))
                .findFirst()
                .orElse(Locale.ENGLISH);
        Map<String, String> texts = new HashMap<>();
        for (String module : MODULES) {
            add(texts, module, Locale.ROOT);
            // The root speaks English: looking for that bundle in vain would open every library.
            if (!language.equals(Locale.ENGLISH)) {
                add(texts, module, language);
            }
        }
        return new Spoken(language, DecimalFormatSymbols.getInstance(language).getDecimalSeparator(), texts);
    }

    /** A module that is not there has no texts to say. */
    private static void add(Map<String, String> texts, String module, Locale language) {
        ResourceBundle bundle;
        try {
            bundle = ResourceBundle.getBundle(
                    FOLDER + module,
                    language,
                    ResourceBundle.Control.getNoFallbackControl(ResourceBundle.Control.FORMAT_PROPERTIES));
        } catch (MissingResourceException e) {
            return;
        }
        bundle.keySet().forEach(key -> texts.put(key, bundle.getString(key)));
    }
}
