package zesty.signal.engine;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import zesty.signal.core.act.Condition;
import zesty.signal.core.act.Controller;
import zesty.signal.core.act.Rule;
import zesty.signal.core.act.RuleBook;
import zesty.signal.core.act.Watch;
import zesty.signal.core.read.Event;

/** Runs rules over columns of a record, as they would have decided while it came. */
public final class RuleReplay {
    private static final double NUMBER_SECONDS = WatchedReader.NUMBER_SECONDS;

    /** A moment at which something comes: an event of a watch before the samples of that moment. */
    private record Moment(double seconds, int watch, boolean event, double value) {}

    private RuleReplay() {}

    /** Gives the columns of a record by their names. */
    public interface Columns {
        /** @return one value a row, NaN where it is missing */
        double[] of(String name);
    }

    /**
     * Replays all rows.
     *
     * @param seconds of each row from the first, never falling
     * @throws zesty.signal.core.read.ReaderException when a reader cannot read its column
     */
    public static Controller run(
            RuleBook book, Columns columns, double[] seconds, double rateHz, Controller.Listener listener) {
        List<Watch> watches = book.watches();
        double[][] sampled = new double[watches.size()][];
        List<Moment> moments = new ArrayList<>();
        Map<Watch, double[]> numbers = new HashMap<>();
        for (int w = 0; w < watches.size(); w++) {
            if (watches.get(w) instanceof Watch.Column column) {
                sampled[w] = columns.of(column.name());
                continue;
            }
            Watch.Number number = (Watch.Number) watches.get(w);
            double[] column = columns.of(number.column());
            if (countsEvents(book, number)) {
                for (Event event : events(number, column, seconds, rateHz)) {
                    moments.add(new Moment(event.startSeconds(), w, true, Double.NaN));
                }
            }
            if (!number.number().isEmpty()) {
                double[] values = numbers(number, column, seconds, rateHz);
                numbers.put(number, values);
                for (int k = 0; k < values.length; k++) {
                    moments.add(new Moment((k + 1) * NUMBER_SECONDS, w, false, values[k]));
                }
            }
        }
        moments.sort(Comparator.comparingDouble(Moment::seconds).thenComparing(one -> !one.event()));
        Controller controller = new Controller(book, listener);
        double[] row = new double[watches.size()];
        int next = 0;
        for (int i = 0; i < seconds.length; i++) {
            while (next < moments.size() && moments.get(next).seconds() < seconds[i]) {
                hand(controller, moments.get(next++), row);
            }
            while (next < moments.size()
                    && moments.get(next).seconds() == seconds[i]
                    && moments.get(next).event()) {
                hand(controller, moments.get(next++), row);
            }
            for (int w = 0; w < row.length; w++) {
                row[w] = sampled[w] == null ? Double.NaN : sampled[w][i];
            }
            while (next < moments.size() && moments.get(next).seconds() == seconds[i]) {
                row[moments.get(next).watch()] = moments.get(next).value();
                next++;
            }
            controller.samples(seconds[i], row);
        }
        controller.finish(seconds[seconds.length - 1]);
        return controller;
    }

    private static void hand(Controller controller, Moment moment, double[] row) {
        if (moment.event()) {
            controller.event(moment.watch(), moment.seconds());
        } else {
            Arrays.fill(row, Double.NaN);
            row[moment.watch()] = moment.value();
            controller.samples(moment.seconds(), row);
        }
    }

    private static boolean countsEvents(RuleBook book, Watch watch) {
        return book.rules().stream()
                .anyMatch(rule -> rule instanceof Rule.OnSamples one
                        && one.watch().equals(watch)
                        && one.when() instanceof Condition.Events);
    }

    /** What it believes of its first kind of events, or of the one that is named. */
    private static List<Event> events(Watch.Number number, double[] column, double[] seconds, double rateHz) {
        return WatchedReader.believed(
                TableReading.of(number.kind(), number.settings(), new double[][] {column}, seconds, rateHz),
                number.number());
    }

    /** Once a second, of the last seconds, from what had come by then. */
    private static double[] numbers(Watch.Number number, double[] column, double[] seconds, double rateHz) {
        WatchedReader reader = new WatchedReader(number, rateHz);
        int count = (int) Math.floor(seconds[seconds.length - 1] / NUMBER_SECONDS + 1e-9);
        double[] values = new double[count];
        int from = 0;
        for (int k = 0; k < count; k++) {
            double at = (k + 1) * NUMBER_SECONDS;
            int to = from;
            while (to < seconds.length && seconds[to] <= at + 1e-9) {
                to++;
            }
            reader.rows(seconds, column, from, to);
            from = to;
            values[k] = reader.number(at);
        }
        return values;
    }
}
