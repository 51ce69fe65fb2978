package zesty.signal.engine;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import zesty.signal.core.read.ReaderException;
import zesty.signal.core.read.Setting;
import zesty.signal.core.read.wind.Wind;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeException;

/** How the setups of takes differ: a difference of the setup is said before a difference of the thing. */
public final class SetupDifferences {
    private static final int MOST = 8;

    private SetupDifferences() {}

    /**
     * @param takes in the order of their letters, A, B …
     * @return a sentence each; none where nothing differs. Waits for the disk
     * @throws TakeException when a take cannot be read
     */
    public static List<String> of(List<Path> takes) throws TakeException {
        Map<String, List<String>> said = new LinkedHashMap<>();
        for (int t = 0; t < takes.size(); t++) {
            try (Take take = Take.open(takes.get(t))) {
                Map<String, String> own = setup(take);
                for (Map.Entry<String, String> one : own.entrySet()) {
                    List<String> values = said.computeIfAbsent(one.getKey(), key -> new ArrayList<>());
                    while (values.size() < t) {
                        values.add(Messages.of("engine.none"));
                    }
                    values.add(one.getValue());
                }
            }
        }
        List<String> sentences = new ArrayList<>();
        for (Map.Entry<String, List<String>> one : said.entrySet()) {
            List<String> values = one.getValue();
            while (values.size() < takes.size()) {
                values.add(Messages.of("engine.none"));
            }
            if (values.stream().distinct().count() > 1 && sentences.size() < MOST) {
                sentences.add(one.getKey() + ": " + byValue(values));
            }
        }
        return sentences;
    }

    /** @return such as "none in A and B, mean:5 in C" */
    private static String byValue(List<String> values) {
        Map<String, List<String>> letters = new LinkedHashMap<>();
        for (int t = 0; t < values.size(); t++) {
            letters.computeIfAbsent(values.get(t), key -> new ArrayList<>()).add(String.valueOf((char) ('A' + t)));
        }
        return letters.entrySet().stream()
                .map(one -> one.getKey() + " in " + String.join(Messages.of("engine.and"), one.getValue()))
                .collect(Collectors.joining(", "));
    }

    private static Map<String, String> setup(Take take) {
        Rig rig = take.rigOrPlain();
        Map<String, String> setup = new LinkedHashMap<>();
        setup.put(Messages.of("engine.rig"), rig.name());
        for (int s = 0; s < take.sources(); s++) {
            double rate = take.rows(s) / Math.max(1e-9, take.seconds());
            // Two digits: rates that differ by a hundredth are the same one.
            setup.put(
                    take.sources() == 1
                            ? Messages.of("engine.samples-a-second")
                            : Messages.of("engine.samples-a-second-of-board", (s + 1)),
                    Digits.about(rate, 2));
        }
        for (Channel channel : rig.channels()) {
            setup.put(
                    Messages.of("engine.cleaning-of", channel.column()),
                    channel.recipe().steps().isEmpty()
                            ? Messages.of("engine.none")
                            : channel.recipe().text());
            setup.put(
                    Messages.of("engine.scaling-of", channel.column()),
                    channel.scaling().isAsItCame()
                            ? Messages.of("engine.raw")
                            : channel.scaling().conversion().words() + ", in "
                                    + channel.scaling().unit());
        }
        for (ReaderSetup reader : rig.readers()) {
            for (Setting setting : reader.readerKind().settings()) {
                String set = reader.settings().get(setting.key());
                boolean captured = set != null && setting.shape() == Setting.Shape.LIST;
                setup.put(
                        Messages.of(
                                "engine.of",
                                Character.toUpperCase(setting.words().charAt(0))
                                        + setting.words().substring(1),
                                String.join(", ", reader.columns()),
                                reader.readerKind().title()),
                        set == null ? Messages.of("engine.usual") : captured ? Messages.of("engine.captured") : set);
            }
        }
        weather(take, rig, setup);
        return setup;
    }

    /** What was read of the wind, by its force: between two forces takes are hard to compare. */
    private static void weather(Take take, Rig rig, Map<String, String> setup) {
        for (ReaderSetup reader : rig.readers()) {
            if (reader.kind().equals(Wind.NAME)) {
                try {
                    double force = TakeReading.read(take, reader.kind(), reader.columns(), reader.settings())
                            .scalar("beaufort");
                    setup.put(
                            Messages.of("engine.wind-force"),
                            Double.isNaN(force) ? Messages.of("engine.unknown") : Digits.of(force));
                } catch (TakeException | ReaderException e) {
                    setup.put(Messages.of("engine.wind-force"), Messages.of("engine.unknown"));
                }
            }
        }
    }
}
