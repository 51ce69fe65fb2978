package zesty.signal.engine;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.function.DoublePredicate;
import zesty.signal.core.compare.Agreement;
import zesty.signal.core.read.Event;
import zesty.signal.core.sample.Series;
import zesty.signal.core.sample.Times;
import zesty.signal.core.text.Messages;
import zesty.signal.takes.Mark;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeException;

/**
 * The same channel of several takes over one another: each take's time counts from a moment of its own. Immutable; making one
 * reads the takes and waits for the disk.
 *
 * @param unit in which the values are; of the first take that has the channel
 */
public record Overlay(String channel, String unit, List<Line> lines) {
    /** So many points of a line are seen. */
    private static final int MOST_POINTS = 4000;

    /** Agreement is looked for in so many samples first, then finely about the best. */
    private static final int COARSE = 1500;

    private static final int FINE = 60_000;

    /** Where a take's time counts from. */
    public sealed interface From {
        /** Its first sample. */
        record Start() implements From {}

        /** Its first mark of that text. */
        record Marked(String text) implements From {}

        /** Its nth event that is believed, by a reader of the channel. @param n from 1 */
        record Nth(String reader, int n) implements From {}

        /** Such that it agrees best with the first take, whose own first sample is 0. */
        record Best() implements From {}
    }

    /**
     * One take's line.
     *
     * @param zero the moment its time counts from, in s from its first sample
     * @param seconds from that moment on. @param values NaN where the line is parted
     * @param correlation with the first take's; NaN where that was not asked for
     * @param leftOut why there is no line; empty where there is
     */
    public record Line(
            Path take,
            String title,
            double zero,
            double[] seconds,
            double[] values,
            double correlation,
            String leftOut) {}

    /** A channel of a take, with what is needed of it. */
    private record Seen(Take take, ChannelSnapshot channel) {
        double from() {
            return channel.stream().times().secondsAt(channel.stream().times().start());
        }

        double to() {
            return channel.stream().times().secondsAt(channel.stream().times().end() - 1);
        }
    }

    /**
     * @param channel a column, or the name that the maker gave it
     * @param goOn hears how far it is, 0 … 1, and says whether to go on
     * @throws TakeException when a take does not open
     */
    public static Overlay of(List<Path> takes, String channel, From from, DoublePredicate goOn) throws TakeException {
        List<Line> lines = new ArrayList<>();
        String unit = "";
        double[][] reference = null;
        for (int i = 0; i < takes.size(); i++) {
            int done = i;
            try (Take take = Take.open(takes.get(i))) {
                StoredTake stored = StoredTake.load(take, share -> goOn.test((done + share) / takes.size()));
                ChannelSnapshot found = stored.snapshot().channels().stream()
                        .filter(one -> one.channel().column().equals(channel)
                                || one.channel().name().equals(channel))
                        .findFirst()
                        .orElse(null);
                if (found == null) {
                    lines.add(out(take, Messages.of("engine.it-has-no-channel", channel)));
                    continue;
                }
                Seen seen = new Seen(take, found);
                unit = unit.isEmpty() ? found.channel().unit() : unit;
                if (!unit.equals(found.channel().unit())) {
                    lines.add(out(
                            take,
                            Messages.of(
                                    "engine.it-is-in-the-first-in",
                                    found.channel().unit(),
                                    unit)));
                    continue;
                }
                if (from instanceof From.Best) {
                    if (reference == null) {
                        reference = new double[][] {even(seen, COARSE), even(seen, FINE), {seen.from(), seen.to()}};
                        lines.add(line(seen, seen.from(), 1));
                    } else {
                        lines.add(agreeing(seen, reference));
                    }
                } else {
                    Optional<Double> zero = zero(seen, from);
                    lines.add(
                            zero.isPresent()
                                    ? line(seen, zero.get(), Double.NaN)
                                    : out(take, Messages.of("engine.it-has-no", words(from))));
                }
            }
        }
        return new Overlay(channel, unit, List.copyOf(lines));
    }

    private static Line out(Take take, String why) {
        return new Line(take.file(), take.title(), Double.NaN, new double[0], new double[0], Double.NaN, why);
    }

    private static String words(From from) {
        return from instanceof From.Marked marked
                ? Messages.of("engine.marker", marked.text())
                : from instanceof From.Nth nth
                        ? Messages.of("engine.event-number-of", nth.n(), nth.reader())
                        : Messages.of("engine.samples");
    }

    private static Optional<Double> zero(Seen seen, From from) {
        if (from instanceof From.Marked marked) {
            return seen.take().marks().stream()
                    .filter(mark -> mark.text().equals(marked.text()))
                    .map(Mark::seconds)
                    .findFirst();
        }
        if (from instanceof From.Nth nth) {
            return seen.channel().readers().stream()
                    .filter(reader -> reader.setup().id().equals(nth.reader()) && reader.reading() != null)
                    .flatMap(reader -> reader.events().stream())
                    .filter(Event::believed)
                    .skip(nth.n() - 1L)
                    .map(Event::startSeconds)
                    .findFirst();
        }
        return Optional.of(seen.from());
    }

    private static Line agreeing(Seen seen, double[][] reference) {
        double length = Math.max(reference[2][1] - reference[2][0], seen.to() - seen.from());
        // Both are sampled alike: the longer one gives the step.
        double coarse = (reference[2][1] - reference[2][0]) / COARSE;
        double fine = (reference[2][1] - reference[2][0]) / FINE;
        double[] own = even(seen, (int) Math.max(2, Math.round((seen.to() - seen.from()) / coarse)));
        int most = (int) (length / coarse);
        Agreement rough = Agreement.best(reference[0], own, -most, most).orElse(null);
        if (rough == null) {
            return out(seen.take(), Messages.of("engine.nothing-of-it-agrees-with-the"));
        }
        double[] ownFine = even(seen, (int) Math.max(2, Math.round((seen.to() - seen.from()) / fine)));
        int times = FINE / COARSE;
        Agreement best = Agreement.best(reference[1], ownFine, (rough.shift() - 1) * times, (rough.shift() + 1) * times)
                .orElse(rough);
        return line(seen, seen.from() + best.shift() * fine, best.correlation());
    }

    /** @return so many samples at equal steps: each the mean of its cell's extremes, NaN where nothing is */
    private static double[] even(Seen seen, int n) {
        Times times = seen.channel().stream().times();
        Series series = seen.channel().clean();
        double[] values = new double[n];
        float[] range = new float[2];
        double step = (seen.to() - seen.from()) / n;
        double joined = seen.channel().joinedSeconds();
        for (int i = 0; i < n; i++) {
            double at = seen.from() + i * step;
            long a = times.firstAtOrAfter(at);
            long b = Math.max(times.firstAtOrAfter(at + step), a + 1);
            if (a >= times.end() || times.secondsAt(a) - at > joined + step) {
                values[i] = Double.NaN;
            } else {
                series.range(a, Math.min(b, series.end()), range);
                values[i] = (range[0] + range[1]) / 2.0;
            }
        }
        return values;
    }

    private static Line line(Seen seen, double zero, double correlation) {
        Times times = seen.channel().stream().times();
        Series series = seen.channel().clean();
        long rows = times.end() - times.start();
        int parts = (int) Math.min(rows, MOST_POINTS / 2);
        double[] seconds = new double[3 * parts];
        double[] values = new double[3 * parts];
        float[] range = new float[2];
        double joined = seen.channel().joinedSeconds();
        int n = 0;
        double last = Double.NaN;
        for (int k = 0; k < parts; k++) {
            long a = times.start() + rows * k / parts;
            long b = times.start() + rows * (k + 1) / parts;
            if (times.secondsAt(a) - last > joined) {
                seconds[n] = last - zero;
                values[n++] = Double.NaN;
            }
            series.range(a, b, range);
            last = times.secondsAt(b - 1);
            seconds[n] = times.secondsAt(a) - zero;
            values[n++] = seen.channel().channel().display().apply(range[0]);
            if (b - a > 1) {
                seconds[n] = last - zero;
                values[n++] = seen.channel().channel().display().apply(range[1]);
            }
        }
        return new Line(
                seen.take().file(),
                seen.take().title(),
                zero,
                Arrays.copyOf(seconds, n),
                Arrays.copyOf(values, n),
                correlation,
                "");
    }
}
