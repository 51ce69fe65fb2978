package zesty.signal.core.decode;

import java.util.Locale;
import java.util.Set;

/** Words that boards write for one of two states: a contact, a lamp, a detector. They are read as 1 and 0. */
final class StateWords {
    private static final Set<String> ONE =
            Set.of("true", "on", "open", "yes", "high", "active", "pressed", "detected", "running", "up", "enabled");
    private static final Set<String> ZERO = Set.of(
            "false",
            "off",
            "closed",
            "no",
            "low",
            "inactive",
            "released",
            "clear",
            "stopped",
            "down",
            "disabled",
            "idle");

    private StateWords() {}

    /** @return null where the word is none of them */
    static Double of(String word) {
        String plain = word.toLowerCase(Locale.ROOT);
        return ONE.contains(plain) ? Double.valueOf(1) : ZERO.contains(plain) ? Double.valueOf(0) : null;
    }
}
