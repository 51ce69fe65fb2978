package zesty.signal.app.wording;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import zesty.signal.core.text.Messages;

/**
 * Which language the window speaks: the one named by ZESTY_LANGUAGE, else the one chosen in it, else the computer's
 * where there are texts in it, else English.
 */
public final class Language {
    private Language() {}

    /** Called before anything else is loaded, whose constants hold texts. @param kept where the choice is kept */
    public static void speak(Path kept) {
        String named = System.getenv("ZESTY_LANGUAGE");
        String chosen = named == null || named.isBlank() ? read(kept) : named.strip();
        Messages.speak(chosen.isEmpty() ? Locale.getDefault(Locale.Category.DISPLAY) : Locale.forLanguageTag(chosen));
    }

    /** @return the one after the one that is kept or spoken: what a press chooses for the next start */
    public static Locale next(Path kept) {
        String chosen = read(kept);
        List<Locale> all = Messages.LANGUAGES;
        int at = all.indexOf(chosen.isEmpty() ? Messages.language() : Locale.forLanguageTag(chosen));
        return all.get((at + 1) % all.size());
    }

    private static String read(Path kept) {
        try {
            return Files.exists(kept) ? Files.readString(kept).strip() : "";
        } catch (IOException e) {
            // Whoever cannot read it is spoken to in the computer's language.
            return "";
        }
    }
}
