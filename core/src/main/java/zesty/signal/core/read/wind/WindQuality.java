package zesty.signal.core.read.wind;

import java.util.ArrayList;
import java.util.List;
import zesty.signal.core.read.Quality;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** How far what the cups said can be trusted, and why not further. */
final class WindQuality {
    /** A second so many times as fast as any that is not beside it is no wind. */
    private static final double UNLIKELY = 3;

    private static final int FEWEST_SECONDS = 10;
    /** Beyond the gusts of any storm but a few, in m/s. */
    private static final double MOST_MPS = 70;

    private WindQuality() {}

    /** @return whether no wind blows like that */
    static boolean noWind(double gustMps) {
        return gustMps > MOST_MPS;
    }

    /**
     * @param rows the record has
     * @param seconds the means of its seconds, in m/s
     */
    static Quality of(Turned turned, int rows, double[] seconds) {
        Speeds speeds = turned.speeds();
        if (!speeds.any()) {
            return new Quality(
                    rows > 2 ? 0.1 : 0,
                    List.of(
                            rows == 0
                                    ? Messages.of("read.wind.nothing-has-come-yet")
                                    : Messages.of("read.wind.too-little-for-a-speed")));
        }
        List<String> reasons = new ArrayList<>();
        double share = 1;
        if (speeds.length() < Speeds.GUST_SECONDS) {
            share = 0.4;
            reasons.add(Messages.of("read.wind.shorter-than-the-3-s-of-a-gust"));
        }
        double gust = speeds.extremes().gust();
        if (noWind(gust)) {
            share = Math.min(share, 0.3);
            reasons.add(Messages.of("read.wind.no-wind-blows-at", Digits.fixed(gust, 0)));
        }
        switch (turned.counts()) {
            case TOTAL -> {
                share = Math.min(share, 0.8);
                reasons.add(Messages.of("read.wind.counts-never-fall"));
            }
            case MAYBE_A_TOTAL -> {
                share = Math.min(share, 0.6);
                reasons.add(Messages.of("read.wind.counts-never-fall-are-they"));
            }
            case SINCE_THE_ROW_BEFORE -> {}
        }
        if (turned.hurried()) {
            share = Math.min(share, 0.6);
            reasons.add(Messages.of("read.wind.pulses-nearly-as-fast-as-samples"));
        }
        double beyond = beyond(seconds);
        if (beyond > UNLIKELY) {
            share = Math.min(share, 0.3);
            reasons.add(0, Messages.of("read.wind.one-second-is-times-as-fast-as-any", Digits.fixed(beyond, 0)));
        }
        int stalls = turned.stalls();
        if (stalls > 0) {
            share = Math.min(share, 0.9);
            reasons.add(Messages.of(
                    "read.wind.what-was-counted-while-no-row-was",
                    stalls + (stalls == 1 ? Messages.of("read.wind.row-holds") : Messages.of("read.wind.rows-hold"))));
        }
        if (speeds.mean() == 0) {
            reasons.add(Messages.of("read.wind.calm-no-pulse-received"));
        }
        if (turned.bounces() > 0) {
            reasons.add(Messages.of("read.wind.edges-left-out-the-contact-bounces", turned.bounces()));
        }
        return new Quality(share, reasons);
    }

    /** @return how many times as fast the fastest second is as any that is not beside it; 0 for few seconds */
    private static double beyond(double[] values) {
        int top = 0;
        for (int i = 0; i < values.length; i++) {
            top = values[i] > values[top] ? i : top;
        }
        double other = 0;
        for (int i = 0; i < values.length; i++) {
            other = Math.abs(i - top) > 2 ? Math.max(other, values[i]) : other;
        }
        return values.length < FEWEST_SECONDS || other == 0 ? 0 : values[top] / other;
    }
}
