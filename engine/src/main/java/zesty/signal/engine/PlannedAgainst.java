package zesty.signal.engine;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.plan.DelayBudget;
import zesty.signal.core.plan.Draft;
import zesty.signal.core.plan.NoiseBudget;
import zesty.signal.core.read.Reader;
import zesty.signal.core.read.Settings;
import zesty.signal.core.read.level.Level;
import zesty.signal.core.sample.Order;
import zesty.signal.core.sample.Series;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeException;

/** A take held against the plan that it was made by: what came out otherwise, and what explains that. */
public final class PlannedAgainst {
    /** Rates this near, as a share, are the same: clocks differ. */
    private static final double SAME_RATE = 0.01;

    private static final double SAME_NOISE = 1.5;
    private static final double SAME_SWING = 2;
    private static final double FEW_LOST = 0.001;
    private static final int MOST_SAMPLES = 1 << 18;

    private PlannedAgainst() {}

    /** @param why what explains the difference; empty where it is as planned */
    public record Row(String name, String planned, String real, boolean asPlanned, String why) {}

    /** @throws TakeException when the take cannot be read, or holds no channel */
    public static List<Row> of(Path file, Draft plan) throws TakeException {
        try (Take take = Take.open(file)) {
            StoredTake stored = StoredTake.load(take);
            ChannelSnapshot channel = stored.snapshot().channels().stream()
                    .filter(one -> one.raw() != null && one.stream().times() != null)
                    .findFirst()
                    .orElseThrow(() -> new TakeException(Messages.of("engine.holds-no-channel-to-compare", file)));
            List<Row> rows = new ArrayList<>();
            rows.add(rate(plan, channel.rateHz()));
            rows.add(channels(plan, stored.snapshot().channels().size()));
            Series raw = channel.raw();
            long from = Math.max(raw.start(), raw.end() - MOST_SAMPLES);
            double[] x = new double[(int) (raw.end() - from)];
            for (int i = 0; i < x.length; i++) {
                x[i] = raw.value(from + i);
            }
            x = Arrays.stream(x).filter(v -> v == v).toArray();
            rows.add(noise(plan, x, channel.rateHz()));
            rows.add(swing(plan, x));
            double lost = channel.stream().lostRows();
            rows.add(lost(lost / Math.max(1, lost + take.rows())));
            rows.add(delay(plan, channel));
            return rows;
        }
    }

    private static Row rate(Draft plan, double real) {
        double off = real / plan.rateHz() - 1;
        return new Row(
                Messages.of("engine.rate"),
                Messages.of("engine.rows-s", Digits.of(plan.rateHz())),
                Messages.of("engine.rows-s", Digits.about(real, 4)),
                Math.abs(off) <= SAME_RATE,
                Math.abs(off) <= SAME_RATE
                        ? ""
                        : off < 0
                                ? Messages.of("engine.slower-the-board-waits-a-fixed")
                                : Messages.of("engine.faster-the-board-does-not-wait-for"));
    }

    private static Row channels(Draft plan, int real) {
        return new Row(
                Messages.of("engine.channels"),
                String.valueOf(plan.channels()),
                String.valueOf(real),
                plan.channels() == real,
                plan.channels() == real ? "" : Messages.of("engine.another-row-than-planned-the-line"));
    }

    private static Row noise(Draft plan, double[] x, double rateHz) {
        Level kind = new Level();
        Reader reader = kind.reader(Settings.of(kind, Map.of()), rateHz);
        reader.accept(new double[][] {x}, x.length, new TimeBase.Steady(0, 1 / rateHz));
        reader.finish();
        double real = reader.reading().scalar("noise");
        double planned = NoiseBudget.of(plan.converter()).noiseVolts()
                / NoiseBudget.of(plan.converter()).stepVolts();
        boolean same = real < planned * SAME_NOISE && real > planned / SAME_NOISE;
        return new Row(
                Messages.of("engine.noise"),
                Messages.of("engine.counts-rms", Digits.about(planned, 2)),
                Messages.of("engine.counts-rms", Digits.about(real, 2)),
                same,
                same
                        ? ""
                        : real > planned
                                ? Messages.of("engine.more-hum-a-motor-on-the-same")
                                : Messages.of("engine.less-the-board-averages-already-or"));
    }

    private static Row swing(Draft plan, double[] x) {
        double step = NoiseBudget.of(plan.converter()).stepVolts();
        double planned = plan.swingVolts() / step;
        double real = Order.quantile(x, 0.99) - Order.quantile(x, 0.01);
        boolean same = real < planned * SAME_SWING && real > planned / SAME_SWING;
        return new Row(
                Messages.of("engine.swing"),
                Messages.of("engine.counts", Digits.about(planned, 3)),
                Messages.of("engine.counts", Digits.about(real, 3)),
                same,
                same
                        ? ""
                        : real > planned
                                ? Messages.of("engine.more-a-larger-signal-or-wander-and")
                                : Messages.of("engine.less-check-gain-contact-and-the"));
    }

    private static Row lost(double share) {
        boolean few = share < FEW_LOST;
        return new Row(
                Messages.of("engine.lost-rows"),
                Messages.of("engine.none"),
                Digits.about(100 * share, 2) + " %",
                few,
                few ? "" : Messages.of("engine.the-line-is-too-full-or-the"));
    }

    private static Row delay(Draft plan, ChannelSnapshot channel) {
        double planned = plan.recipe().isBlank()
                ? 0
                : DelayBudget.of(Recipe.parse(plan.recipe()), plan.rateHz()).seconds();
        double real = channel.channel().recipe().steps().isEmpty()
                ? 0
                : DelayBudget.of(channel.channel().recipe(), channel.rateHz()).seconds();
        boolean same = Math.abs(planned - real) < 0.005 + 0.1 * planned;
        return new Row(
                Messages.of("engine.delay-of-the-recipe"),
                Digits.about(1000 * planned, 2) + " ms",
                Digits.about(1000 * real, 2) + " ms",
                same,
                same ? "" : Messages.of("engine.the-take-s-recipe-is-another-one"));
    }
}
