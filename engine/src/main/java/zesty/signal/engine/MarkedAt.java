package zesty.signal.engine;

import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import zesty.signal.core.read.ReaderException;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.takes.Mark;

/** Turns the text of a marker, by which a reader may be told when something happened, into its time. */
public final class MarkedAt {
    /** The setting that holds the text; the time goes into {@code at}. */
    public static final String MARK = "mark";

    private MarkedAt() {}

    /** @return the settings with the time of the first marker of that text. @throws ReaderException when there is none, naming those there are */
    public static Map<String, String> resolved(Map<String, String> settings, List<Mark> marks, String file) {
        String text = settings.getOrDefault(MARK, "");
        if (text.isBlank()) {
            return settings;
        }
        if (settings.containsKey("at")) {
            throw new ReaderException(Messages.of("engine.at-and-mark-both-say-when-give-one"));
        }
        Mark found = marks.stream()
                .filter(mark -> mark.text().equals(text))
                .findFirst()
                .orElseThrow(() -> new ReaderException(Messages.of(
                        "engine.has-no-marker-it-has",
                        file,
                        text,
                        (marks.isEmpty()
                                ? Messages.of("engine.none")
                                : String.join(
                                        ", ",
                                        marks.stream()
                                                .map(Mark::text)
                                                .distinct()
                                                .toList())))));
        Map<String, String> timed = new TreeMap<>(settings);
        timed.remove(MARK);
        timed.put("at", Digits.exact(found.seconds()));
        return timed;
    }
}
