package zesty.signal.core.read;

import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import zesty.signal.core.text.Messages;

/** The settings of one reader: what was set, checked against its kind's description, and the usual values for the rest. */
public final class Settings {
    private final ReaderKind kind;
    private final Map<String, String> given;

    private Settings(ReaderKind kind, Map<String, String> given) {
        this.kind = kind;
        this.given = given;
    }

    /** @throws ReaderException when a key or a value is not one that the kind takes, saying what would be */
    public static Settings of(ReaderKind kind, Map<String, String> given) {
        for (Map.Entry<String, String> one : given.entrySet()) {
            Setting setting = kind.settings().stream()
                    .filter(s -> s.key().equals(one.getKey()))
                    .findFirst()
                    .orElseThrow(() -> new ReaderException(Messages.of(
                            "read.has-no-setting-it-has", kind.name(), one.getKey(), keys(kind.settings()))));
            setting.check(one.getValue());
        }
        return new Settings(kind, Map.copyOf(given));
    }

    private static String keys(List<Setting> settings) {
        return settings.isEmpty()
                ? "none"
                : String.join(", ", settings.stream().map(Setting::key).toList());
    }

    /** @return the word or text of a setting, as it was set or as it usually is */
    public String text(String key) {
        String usual = kind.settings().stream()
                .filter(s -> s.key().equals(key))
                .map(Setting::usual)
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException(Messages.of("read.has-no-setting", kind.name(), key)));
        return given.getOrDefault(key, usual);
    }

    /** @return the number; NaN where the reader is to find it */
    public double number(String key) {
        return Setting.parse(text(key));
    }

    /** @return the rising numbers; none when nothing was set */
    public double[] numbers(String key) {
        return Setting.rising(text(key));
    }

    /** @return the numbers of a list; none when nothing was set */
    public double[] list(String key) {
        return Setting.list(text(key));
    }

    /** @return from and to in s; null when nothing was set */
    public double[] span(String key) {
        return text(key).isBlank() ? null : Setting.stretch(text(key));
    }

    /** @return what was set, by key, in order */
    public Map<String, String> given() {
        return new TreeMap<>(given);
    }
}
