package zesty.signal.engine;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import zesty.signal.core.compare.Difference;
import zesty.signal.core.compare.Spread;
import zesty.signal.core.read.Event;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.ReaderException;
import zesty.signal.core.read.Reading;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.takes.Mark;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeException;

/**
 * The same reader over several takes. What reads poorly, or lacks the moment that is asked for, is left out of all means and
 * tests and says why. Immutable; making one reads the takes and waits for the disk.
 */
public final class Comparison {
    /** A reading of less than this is left out. */
    public static final double LEAST_QUALITY = 0.4;

    /**
     * What of each take is compared.
     *
     * @param mark its first mark of that text is what the ends count from; empty to count from its first sample
     * @param from begin and {@code to} end, in s, both held; infinite for all
     */
    public record Part(String mark, double from, double to) {
        public static final Part ALL = new Part("", Double.NEGATIVE_INFINITY, Double.POSITIVE_INFINITY);
    }

    /**
     * One take's answer.
     *
     * @param from begin and {@code to} end of what was read, in s from its first sample
     * @param quality NaN where it could not be read
     * @param numbers by their keys
     * @param sizes of the events that are believed; none where they have none
     * @param leftOut why it is in no mean; empty where it is
     */
    public record Row(
            Path take,
            String title,
            double from,
            double to,
            double quality,
            Map<String, Double> numbers,
            double[] sizes,
            String leftOut) {
        public double number(String key) {
            return leftOut.isEmpty() ? numbers.getOrDefault(key, Double.NaN) : Double.NaN;
        }
    }

    private final List<Row> rows;

    private Comparison(List<Row> rows) {
        this.rows = List.copyOf(rows);
    }

    /**
     * @param columns that the reader reads, as each take calls them
     * @throws TakeException when a take does not open
     * @throws ReaderException when the kind cannot read what the settings say, in any take
     */
    public static Comparison of(
            List<Path> takes, String kind, List<String> columns, Map<String, String> settings, Part part)
            throws TakeException {
        List<Row> rows = new ArrayList<>();
        for (Path file : takes) {
            try (Take take = Take.open(file)) {
                rows.add(row(take, kind, columns, settings, part));
            }
        }
        return new Comparison(rows);
    }

    private static Row row(Take take, String kind, List<String> columns, Map<String, String> settings, Part part)
            throws TakeException {
        double zero = 0;
        if (!part.mark().isEmpty()) {
            Optional<Mark> mark = take.marks().stream()
                    .filter(one -> one.text().equals(part.mark()))
                    .findFirst();
            if (mark.isEmpty()) {
                return out(take, Double.NaN, Double.NaN, Messages.of("engine.it-has-no-mark", part.mark()));
            }
            zero = mark.get().seconds();
        }
        double from = Math.max(0, zero + part.from());
        double to = Math.min(take.seconds(), zero + part.to());
        if (!(from < to)) {
            return out(
                    take,
                    from,
                    to,
                    Messages.of("engine.it-has-nothing-there-it-lasts-s", Digits.fixed(take.seconds(), 1)));
        }
        boolean all = from == 0 && to == take.seconds();
        Reading reading = all
                ? TakeReading.read(take, kind, columns, settings)
                : TakeReading.read(take, kind, columns, settings, from, to);
        if (!reading.refusal().isEmpty()) {
            return out(take, from, to, reading.refusal());
        }
        Map<String, Double> numbers = new LinkedHashMap<>();
        for (Item item : reading.items()) {
            if (item instanceof Item.Scalar scalar) {
                numbers.put(scalar.key(), scalar.value());
            }
        }
        double quality = reading.quality().share();
        String why = quality < LEAST_QUALITY
                ? Messages.of(
                        "engine.its-quality-is-below",
                        Digits.fixed(quality, 2),
                        LEAST_QUALITY,
                        reading.quality().reasons().stream()
                                .findFirst()
                                .map(reason -> ": " + reason)
                                .orElse(""))
                : "";
        return new Row(take.file(), take.title(), from, to, quality, numbers, sizes(reading), why);
    }

    private static double[] sizes(Reading reading) {
        return reading.items().stream()
                .filter(Item.Events.class::isInstance)
                .limit(1)
                .flatMap(item -> ((Item.Events) item).events().stream())
                .filter(event -> event.believed() && Double.isFinite(event.size()))
                .mapToDouble(Event::size)
                .toArray();
    }

    private static Row out(Take take, double from, double to, String why) {
        return new Row(take.file(), take.title(), from, to, Double.NaN, Map.of(), new double[0], why);
    }

    public List<Row> rows() {
        return rows;
    }

    /** @return the keys of all numbers, in the reader's order */
    public Set<String> keys() {
        Set<String> keys = new LinkedHashSet<>();
        rows.forEach(row -> keys.addAll(row.numbers().keySet()));
        return keys;
    }

    /** @return a number over all takes that are not left out */
    public Spread spread(String key) {
        return Spread.of(rows.stream().mapToDouble(row -> row.number(key)).toArray());
    }

    /** @return a number of some of the takes, in their order; NaN of those left out */
    public double[] numbers(String key, List<Path> of) {
        return of.stream()
                .mapToDouble(take -> rows.stream()
                        .filter(row -> row.take().equals(take))
                        .findFirst()
                        .orElseThrow()
                        .number(key))
                .toArray();
    }

    /** @return the heights of all events of some of the takes that are not left out */
    public double[] sizes(List<Path> of) {
        return rows.stream()
                .filter(row -> row.leftOut().isEmpty() && of.contains(row.take()))
                .flatMapToDouble(row -> Arrays.stream(row.sizes()))
                .toArray();
    }

    /** @return the difference of a number from one group to another; empty where it cannot be told */
    public Optional<Difference> difference(String key, List<Path> first, List<Path> second, boolean paired) {
        double[] a = numbers(key, first);
        double[] b = numbers(key, second);
        return paired ? Difference.paired(a, b) : Difference.welch(a, b);
    }
}
