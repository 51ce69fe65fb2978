package zesty.signal.core.plan;

import java.util.ArrayList;
import java.util.List;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.clean.RecipeException;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** All bars of a plan, each worked out of the same budgets; a change of one changes the others. */
public final class Bars {
    private static final double[] SPEEDS = {
        9600, 19_200, 38_400, 57_600, 115_200, 230_400, 460_800, 921_600, 1_000_000, 2_000_000
    };
    private static final int[] BITS = {8, 10, 12, 14, 16, 18, 20, 24};
    /** A computer pauses that long now and then: the board must keep its rows meanwhile. */
    static final double PAUSE_SECONDS = 0.5;

    private static final double LEAST_RATE = 0.1;
    private static final double MOST_RATE = 100_000;
    /** So many rates are tried up to the one that is enough. */
    private static final double CANDIDATES = 250;

    private static final double DAY_HOURS = 24;
    private static final double DISK_BYTES = 2e9;
    /** A take keeps doubles. */
    private static final double VALUE_BYTES = 8;

    /** What comes later than this is too late to act on by hand, in s. */
    private static final double QUICK_SECONDS = 0.3;

    private Bars() {}

    /** @return in the order they are shown */
    public static List<Bar> of(Draft draft) {
        Budgets budgets = Budgets.of(
                draft.withSignal(draft.swingVolts(), "", draft.tones()).plan());
        List<Bar> bars = new ArrayList<>();
        bars.add(line(draft, budgets.line()));
        bars.add(rate(draft));
        bars.add(resolution(draft, budgets.converter()));
        bars.add(delay(draft));
        bars.add(memory(draft, budgets.memory()));
        bars.add(disk(draft, budgets.bytesPerDay()));
        bars.add(battery(draft, budgets.battery()));
        return bars;
    }

    private static double held(double rate) {
        double rounded = rate >= 100 ? Math.rint(rate) : Math.rint(10 * rate) / 10;
        return Math.max(LEAST_RATE, Math.min(MOST_RATE, rounded));
    }

    private static Bar line(Draft draft, LineBudget line) {
        List<Bar.Mend> mends = new ArrayList<>();
        if (!line.fits()) {
            for (double speed : SPEEDS) {
                if (mends.isEmpty() && speed > draft.baud() && fits(draft.withLine(speed, draft.packets()))) {
                    mends.add(new Bar.Mend(
                            Messages.of("plan.baud", Digits.of(speed)), draft.withLine(speed, draft.packets())));
                }
            }
            Draft packed = draft.withLine(draft.baud(), true);
            if (!draft.packets() && fits(packed)) {
                mends.add(new Bar.Mend(Messages.of("plan.send-packets"), packed));
            } else if (!draft.packets() && mends.isEmpty()) {
                for (double speed : SPEEDS) {
                    if (mends.isEmpty() && speed > draft.baud() && fits(draft.withLine(speed, true))) {
                        mends.add(new Bar.Mend(
                                Messages.of("plan.packets-at-baud", Digits.of(speed)), draft.withLine(speed, true)));
                    }
                }
            }
            double rate = Math.floor(10 * line.highestRateHz()) / 10;
            if (rate >= LEAST_RATE) {
                mends.add(new Bar.Mend(Messages.of("plan.rows-s", Digits.of(rate)), draft.withRate(rate)));
            }
        }
        return new Bar(
                Messages.of("plan.line"),
                Messages.of(
                        "plan.of-bytes-s", Digits.about(line.bytesPerSecond(), 4), Digits.about(draft.baud() / 10, 5)),
                Messages.of(
                        "plan.rows-s-would-fit",
                        (line.fits() ? Messages.of("plan.fits-up-to") : Messages.of("plan.too-much-up-to"))
                                + Digits.about(line.highestRateHz(), 3)),
                line.share(),
                LineBudget.MOST,
                !line.fits(),
                mends,
                share -> draft.withRate(held(share * draft.baud() / (10 * draft.rowBytes()))));
    }

    private static boolean fits(Draft draft) {
        Plan plan = draft.plan();
        return LineBudget.of(plan.line(), plan.row()).fits();
    }

    /** The highest frequency that the rate is enough for, of twice what is needed; tones that fold into it count as over. */
    private static Bar rate(Draft draft) {
        double highest = draft.need().highestHz();
        double enough = draft.rateHz() / RateBudget.SAMPLES_A_PERIOD;
        boolean slow = enough < highest * (1 - 1e-12);
        List<RateBudget.Tone> disturbing = draft.disturbing();
        List<Bar.Mend> mends = new ArrayList<>();
        String says = Messages.of("plan.enough-nothing-that-is-named-is");
        if (slow) {
            says = Messages.of("plan.too-slow-for-the-signal-2-5-rows-a");
        } else if (!disturbing.isEmpty()) {
            RateBudget.Tone tone = disturbing.get(0);
            says = Messages.of(
                    "plan.a-tone-of-hz-is-aliased-to-hz", Digits.of(tone.hz()), Digits.about(tone.seenHz(), 3));
        }
        if (slow || !disturbing.isEmpty()) {
            double rate = clear(draft);
            mends.add(new Bar.Mend(Messages.of("plan.rows-s", Digits.of(rate)), draft.withRate(rate)));
        } else {
            for (RateBudget.Tone tone : RateBudget.of(draft.rateHz(), new Plan.Signal(highest, draft.tones()))
                    .tones()) {
                if (tone.hz() > draft.rateHz() / 2) {
                    says = Messages.of(
                            "plan.enough-a-tone-of-hz-shows-at-hz",
                            Digits.of(tone.hz()),
                            Digits.about(tone.seenHz(), 3));
                }
            }
        }
        return new Bar(
                Messages.of("plan.highest-true-frequency"),
                Messages.of("plan.hz-hz-are-needed", Digits.about(enough, 3), Digits.about(highest, 3)),
                says,
                enough / (2 * highest),
                0.5,
                slow || !disturbing.isEmpty(),
                mends,
                share -> draft.withRate(held(share * 2 * highest * RateBudget.SAMPLES_A_PERIOD)));
    }

    /** @return the lowest whole rate above the present one that is enough and at which no tone folds into the signal; of high rates every so-many-th */
    private static double clear(Draft draft) {
        double needed = Math.ceil(RateBudget.SAMPLES_A_PERIOD * draft.need().highestHz());
        double from = Math.max(needed, Math.floor(draft.rateHz()) + 1);
        double step = Math.max(1, Math.rint(from / CANDIDATES));
        for (double rate = from; rate <= 3 * from; rate += step) {
            if (draft.withRate(rate).disturbing().isEmpty()) {
                return rate;
            }
        }
        // Beyond twice the highest tone nothing is aliased.
        double highest = draft.tones().stream().mapToDouble(tone -> tone).max().orElse(0);
        return Math.max(from, Math.floor(2 * highest) + 1);
    }

    private static Bar resolution(Draft draft, NoiseBudget noise) {
        double counts = draft.swingVolts() / noise.stepVolts();
        double clear = clear(draft, draft.converter());
        double needed = draft.need().fewestCounts();
        boolean over = clear < needed;
        List<Bar.Mend> mends = new ArrayList<>();
        if (over) {
            Plan.Converter now = draft.converter();
            for (double average : new double[] {4, 16, 64}) {
                Draft averaged = draft.withConverter(
                        new Plan.Converter(now.bits(), now.ref(), now.noiseCounts(), now.average() * average));
                if (mends.isEmpty() && enough(averaged)) {
                    mends.add(new Bar.Mend(
                            Messages.of("plan.average-readings", Digits.of(now.average() * average)), averaged));
                }
            }
            int before = mends.size();
            for (int bits : BITS) {
                Draft finer = draft.withConverter(finer(now, bits));
                if (mends.size() == before && bits > now.bits() && enough(finer)) {
                    mends.add(new Bar.Mend(Messages.of("plan.bits", bits), finer));
                }
            }
        }
        return new Bar(
                Messages.of("plan.resolution"),
                Messages.of(
                        "plan.mv-a-count-effective-bits",
                        Digits.about(1000 * noise.stepVolts(), 2),
                        Digits.fixed(noise.effectiveBits(), 1)),
                Messages.of(
                        "plan.counts-high-clear-of-noise-are",
                        Digits.about(counts, 3),
                        Digits.about(clear, 3),
                        Digits.about(needed, 3)),
                resolved(draft, draft.converter()),
                Math.log(needed) / Math.log(16 * needed),
                over,
                mends,
                share -> draft.withConverter(finer(draft.converter(), bits(draft, share))));
    }

    private static double clear(Draft draft, Plan.Converter converter) {
        NoiseBudget noise = NoiseBudget.of(converter);
        return draft.swingVolts() / Math.max(noise.stepVolts(), Math.sqrt(12) * noise.noiseVolts());
    }

    private static double resolved(Draft draft, Plan.Converter converter) {
        double needed = draft.need().fewestCounts();
        return Math.min(1, Math.log(Math.max(1, clear(draft, converter))) / Math.log(16 * needed));
    }

    /** @return the fewest bits with which the bar reaches a share; the most there are where noise keeps it from it */
    private static int bits(Draft draft, double share) {
        for (int bits : BITS) {
            if (resolved(draft, finer(draft.converter(), bits)) >= share) {
                return bits;
            }
        }
        return BITS[BITS.length - 1];
    }

    /** The same noise in volts, up to the finest step. */
    private static Plan.Converter finer(Plan.Converter now, int bits) {
        double noise = now.noiseCounts() * Math.pow(2, bits - now.bits());
        return new Plan.Converter(bits, now.ref(), Math.min(noise, now.noiseCounts() * 16), now.average());
    }

    private static boolean enough(Draft draft) {
        return clear(draft, draft.converter()) >= draft.need().fewestCounts();
    }

    private static Bar delay(Draft draft) {
        double line = 10 * draft.rowBytes() / draft.baud();
        double filter;
        String says;
        try {
            filter = draft.recipe().isBlank()
                    ? 0
                    : DelayBudget.of(Recipe.parse(draft.recipe()), draft.rateHz())
                            .seconds();
            says = filter > QUICK_SECONDS
                    ? Messages.of("plan.fine-to-look-at-too-late-to-act-on")
                    : Messages.of("plan.quick-enough-to-act-on");
        } catch (RecipeException e) {
            return new Bar(
                    Messages.of("plan.delay-to-the-screen"),
                    "—",
                    e.getMessage(),
                    1,
                    Double.NaN,
                    true,
                    List.of(new Bar.Mend(
                            Messages.of("plan.no-recipe"), draft.withSignal(draft.swingVolts(), "", draft.tones()))),
                    null);
        }
        return new Bar(
                Messages.of("plan.delay-to-the-screen"),
                Messages.of("plan.ms-recipe-ms-line", Digits.about(1000 * filter, 2), Digits.about(1000 * line, 2)),
                says,
                Math.min(1, filter + line),
                Double.NaN,
                false,
                List.of(),
                null);
    }

    private static Bar memory(Draft draft, MemoryBudget memory) {
        boolean over = memory.seconds() < PAUSE_SECONDS;
        List<Bar.Mend> mends = new ArrayList<>();
        if (over) {
            Draft packed = draft.withLine(draft.baud(), true);
            if (!draft.packets() && seconds(packed) >= PAUSE_SECONDS) {
                mends.add(new Bar.Mend(Messages.of("plan.send-packets"), packed));
            }
            double bytes = Math.ceil(PAUSE_SECONDS * draft.rateHz()) * draft.rowBytes();
            mends.add(new Bar.Mend(
                    Messages.of("plan.kb-of-memory", Digits.about(bytes / 1024, 3)), draft.withMemory(bytes)));
        }
        return new Bar(
                Messages.of("plan.board-memory"),
                Messages.of("plan.s-of-rows", Digits.about(memory.seconds(), 2)),
                Messages.of("plan.a-pause-of-the-computer-over-s", Digits.about(memory.seconds(), 2)),
                Math.min(1, 0.8 * PAUSE_SECONDS / Math.max(1e-9, memory.seconds())),
                0.8,
                over,
                mends,
                share -> draft.withMemory(Math.max(
                        draft.rowBytes(),
                        Math.rint(0.8 * PAUSE_SECONDS / Math.max(0.02, share) * draft.rateHz() * draft.rowBytes()))));
    }

    private static double seconds(Draft draft) {
        Plan plan = draft.plan();
        return MemoryBudget.of(plan.memory(), plan.row()).seconds();
    }

    private static Bar disk(Draft draft, double bytesPerDay) {
        return new Bar(
                Messages.of("plan.disk"),
                Messages.of("plan.mb-a-day-as-sent", Digits.about(bytesPerDay / 1e6, 3)),
                Messages.of(
                        "plan.at-most-mb-a-day-in-a-take-before",
                        Digits.about(VALUE_BYTES * (draft.channels() + 1) * draft.rateHz() * 86_400 / 1e6, 3)),
                Math.min(1, bytesPerDay / DISK_BYTES),
                Double.NaN,
                false,
                List.of(),
                share -> draft.withRate(held(Math.max(0.005, share) * DISK_BYTES / 86_400 / draft.rowBytes())));
    }

    private static Bar battery(Draft draft, BatteryBudget battery) {
        double wanted = draft.wantedHours();
        boolean over = battery.hours() < wanted;
        List<Bar.Mend> mends = new ArrayList<>();
        if (over) {
            double capacity = Math.ceil(wanted * draft.milliamps() / 100) * 100;
            mends.add(
                    new Bar.Mend(Digits.of(capacity) + " mAh", draft.withBattery(capacity, draft.milliamps(), wanted)));
        }
        return new Bar(
                Messages.of("plan.battery"),
                battery.hours() < 2 * DAY_HOURS
                        ? Digits.about(battery.hours(), 3) + " h"
                        : Messages.of("plan.days", Digits.about(battery.hours() / DAY_HOURS, 3)),
                over
                        ? Messages.of("plan.too-short-for-h", Digits.about(wanted, 3))
                        : Messages.of("plan.lasts-the-h-that-are-wanted", Digits.about(wanted, 3)),
                Math.min(1, 0.5 * battery.hours() / wanted),
                0.5,
                over,
                mends,
                share -> draft.withBattery(
                        Math.max(10, Math.rint(2 * Math.max(0.005, share) * wanted * draft.milliamps())),
                        draft.milliamps(),
                        wanted));
    }
}
