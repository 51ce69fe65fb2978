package zesty.signal.core.read.orders;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.Quality;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.Recorded;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/**
 * Works a stretch out turn by turn: the parts of each order are integrals over the angle of the shaft, which goes evenly from mark
 * to mark, so that a speed that changes smears nothing (K. R. Fyfe and E. D. S. Munck 1997, "Analysis of computed order tracking").
 * What repeats with the turns adds up over them; what does not shows as a spread from turn to turn.
 */
final class OrdersReader extends Recorded {
    private static final int FEWEST_TURNS = 8;
    /** Of so many samples a period an order needs at least one more than two: integrals by trapezoids take it too low from there on. */
    private static final double SAMPLES_A_PERIOD = 5;
    /** An order stands out of what does not repeat when it is so many times its uncertainty. */
    private static final double CLEAR = 4;

    private static final double UNSTEADY = 0.1;

    private final int perTurn;
    private final int highest;
    private final double rateHz;

    OrdersReader(int perTurn, int highest, double rateHz) {
        super(2);
        this.perTurn = perTurn;
        this.highest = highest;
        this.rateHz = rateHz;
    }

    /** One order: its cosine and sine parts from the mark on, and the standard uncertainty of its amplitude. */
    private record Part(int order, double cosine, double sine, double uncertainty) {
        double amplitude() {
            return Math.hypot(cosine, sine);
        }

        boolean clear() {
            return amplitude() > CLEAR * uncertainty;
        }

        /** @return by how many degrees of the shaft's turn, times the order, its crest comes after the mark */
        double phase() {
            double degrees = Math.toDegrees(Math.atan2(sine, cosine));
            return degrees < 0 ? degrees + 360 : degrees;
        }
    }

    @Override
    protected Reading read(Segment stretch) {
        List<double[]> sums = new ArrayList<>();
        List<double[]> speeds = new ArrayList<>();
        double squares = 0;
        int bounced = 0;
        int skipped = 0;
        for (int[] run : stretch.runs()) {
            double[] x = Arrays.copyOfRange(stretch.ports()[0], run[0], run[1]);
            double[] seconds = Arrays.copyOfRange(stretch.seconds(), run[0], run[1]);
            Turns turns = Turns.of(Arrays.copyOfRange(stretch.ports()[1], run[0], run[1]), seconds, perTurn);
            bounced += turns.bounced();
            skipped += turns.skipped();
            for (double[] turn : turns.whole()) {
                double begin = Turns.between(seconds, turn[0]);
                double end = Turns.between(seconds, turn[1]);
                sums.add(sums(x, seconds, turn));
                squares += variance(x, turn);
                speeds.add(new double[] {(begin + end) / 2, 1 / (end - begin)});
            }
        }
        int n = sums.size();
        double mean = speeds.stream().mapToDouble(one -> 1 / one[1]).average().orElse(Double.NaN);
        double hz = 1 / mean;
        int orders = (int) Math.min(highest, Math.floor(rateHz / hz / SAMPLES_A_PERIOD));
        List<Part> parts = new ArrayList<>();
        for (int k = 1; k <= orders && n > 1; k++) {
            parts.add(part(sums, k));
        }
        double repeats = parts.stream()
                .mapToDouble(part ->
                        Math.max(0, part.amplitude() * part.amplitude() - 2 * part.uncertainty() * part.uncertainty()))
                .sum();
        double spread = spread(speeds, hz);
        Part first = parts.isEmpty() ? null : parts.get(0);
        int strongest = parts.stream()
                .filter(Part::clear)
                .max((a, b) -> Double.compare(a.amplitude(), b.amplitude()))
                .map(Part::order)
                .orElse(0);
        List<Item> items = new ArrayList<>();
        items.add(new Item.Scalar("turning_hz", hz, n > 1 ? spread / Math.sqrt(n) : Double.NaN));
        items.add(new Item.Scalar("rpm", 60 * hz));
        items.add(new Item.Scalar(
                "once",
                first == null ? Double.NaN : first.amplitude(),
                first == null ? Double.NaN : first.uncertainty()));
        items.add(new Item.Scalar("phase_deg", first != null && first.clear() ? first.phase() : Double.NaN));
        items.add(new Item.Scalar("strongest", strongest > 0 ? strongest : Double.NaN));
        items.add(new Item.Scalar(
                "with_turning", squares > 0 && n > 1 ? Math.min(100, 100 * repeats / 2 / (squares / n)) : Double.NaN));
        items.add(new Item.Scalar("unsteady_percent", 100 * spread / hz));
        items.add(new Item.Scalar("turns", n));
        items.add(new Item.Records(
                "orders",
                List.of("order", "hz", "amplitude", "uncertainty", "phase_deg"),
                parts.stream()
                        .map(part -> new double[] {
                            part.order(),
                            part.order() * hz,
                            part.amplitude(),
                            part.uncertainty(),
                            part.clear() ? part.phase() : Double.NaN
                        })
                        .toList()));
        items.add(new Item.Trace(
                "speed",
                "Hz",
                "hz",
                speeds.stream().mapToDouble(one -> one[0]).toArray(),
                speeds.stream().mapToDouble(one -> one[1]).toArray()));
        return new Reading(
                quality(stretch, n, spread / hz, bounced, skipped, strongest), items, working(n, hz, orders));
    }

    /** @return cosine and sine part of each order over one turn, pairs from order 1 on: (1/π)·∫ x·cos(kφ) dφ by trapezoids, φ by time */
    private double[] sums(double[] x, double[] seconds, double[] turn) {
        int from = (int) Math.ceil(turn[0]);
        int to = Math.min(x.length - 1, (int) Math.floor(turn[1]));
        // The ends of a turn lie between samples, at one angle both.
        int n = to - from + 3;
        double[] angle = new double[n];
        double[] value = new double[n];
        double begin = Turns.between(seconds, turn[0]);
        double radians = 2 * Math.PI / (Turns.between(seconds, turn[1]) - begin);
        for (int i = 1; i < n - 1; i++) {
            angle[i] = (seconds[from + i - 1] - begin) * radians;
            value[i] = x[from + i - 1];
        }
        angle[n - 1] = 2 * Math.PI;
        value[0] = Turns.between(x, turn[0]);
        value[n - 1] = Turns.between(x, turn[1]);
        double mean = mean(x, turn);
        double[] sums = new double[2 * highest];
        for (int i = 0; i < n; i++) {
            double weight = (angle[Math.min(n - 1, i + 1)] - angle[Math.max(0, i - 1)]) / 2;
            add(sums, angle[i], (value[i] - mean) * weight);
        }
        return sums;
    }

    private void add(double[] sums, double angle, double value) {
        double cosine = Math.cos(angle);
        double sine = Math.sin(angle);
        double c = 1;
        double s = 0;
        for (int k = 0; k < highest; k++) {
            double next = c * cosine - s * sine;
            s = s * cosine + c * sine;
            c = next;
            sums[2 * k] += value * c / Math.PI;
            sums[2 * k + 1] += value * s / Math.PI;
        }
    }

    private static double mean(double[] x, double[] turn) {
        double sum = 0;
        int n = 0;
        for (int i = (int) Math.ceil(turn[0]); i <= turn[1] && i < x.length; i++) {
            sum += x[i];
            n++;
        }
        return n == 0 ? 0 : sum / n;
    }

    private static double variance(double[] x, double[] turn) {
        double mean = mean(x, turn);
        double sum = 0;
        int n = 0;
        for (int i = (int) Math.ceil(turn[0]); i <= turn[1] && i < x.length; i++) {
            sum += (x[i] - mean) * (x[i] - mean);
            n++;
        }
        return n == 0 ? 0 : sum / n;
    }

    private static Part part(List<double[]> sums, int order) {
        int n = sums.size();
        int at = 2 * (order - 1);
        double cosine = sums.stream().mapToDouble(one -> one[at]).average().orElse(0);
        double sine = sums.stream().mapToDouble(one -> one[at + 1]).average().orElse(0);
        double squares = 0;
        for (double[] one : sums) {
            squares += (one[at] - cosine) * (one[at] - cosine) + (one[at + 1] - sine) * (one[at + 1] - sine);
        }
        return new Part(order, cosine, sine, Math.sqrt(squares / 2 / (n - 1) / n));
    }

    private static double spread(List<double[]> speeds, double hz) {
        double squares = 0;
        for (double[] one : speeds) {
            squares += (one[1] - hz) * (one[1] - hz);
        }
        return speeds.size() < 2 ? Double.NaN : Math.sqrt(squares / (speeds.size() - 1));
    }

    private Quality quality(Segment stretch, int turns, double unsteady, int bounced, int skipped, int strongest) {
        if (turns < 2) {
            return new Quality(
                    0,
                    List.of(
                            stretch.length() < 3
                                    ? Messages.of("read.orders.too-few-samples", stretch.length())
                                    : Messages.of("read.orders.the-mark-gives-no-turns-is-it-the")));
        }
        List<String> reasons = new ArrayList<>();
        double share = 1;
        if (turns < FEWEST_TURNS) {
            share = 0.4;
            reasons.add(Messages.of("read.orders.whole-turns-are-few-to-average-at", turns, FEWEST_TURNS));
        }
        double odd = (double) (bounced + skipped) / (turns * perTurn + bounced + skipped);
        if (bounced + skipped > 0) {
            share = Math.min(share, Math.max(0.2, 0.9 - 2 * odd));
            reasons.add((bounced > 0 ? Messages.of("read.orders.marks-come-too-soon-after-one", bounced) : "")
                    + (bounced > 0 && skipped > 0 ? "; " : "")
                    + (skipped > 0 ? Messages.of("read.orders.turns-lack-their-mark-and-are-left", skipped) : "")
                    + (odd > 0.2 ? Messages.of("read.orders.are-there-more-marks-a-turn-than") : ""));
        }
        if (unsteady > UNSTEADY) {
            share = Math.min(share, 0.7);
            reasons.add(Messages.of("read.orders.the-speed-changes-by-from-turn-to", Digits.fixed(100 * unsteady, 0)));
        }
        if (strongest == 0) {
            share = Math.min(share, 0.5);
            reasons.add(Messages.of("read.orders.nothing-in-the-vibration-repeats"));
        }
        return new Quality(share, reasons);
    }

    private List<String> working(int turns, double hz, int orders) {
        if (turns < 2) {
            return List.of();
        }
        List<String> words = new ArrayList<>();
        words.add(Messages.of("read.orders.averaged-over-whole-turns-from", turns));
        if (orders < highest) {
            words.add(Messages.of(
                    "read.orders.orders-above-need-more-than", orders, Digits.about(rateHz, 3), Digits.about(hz, 3)));
        }
        return words;
    }
}
