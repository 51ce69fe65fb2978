package zesty.signal.app.window.bench.act;

import java.util.Arrays;
import java.util.List;
import zesty.signal.core.act.Condition;
import zesty.signal.core.act.Rule;
import zesty.signal.core.act.Watch;
import zesty.signal.core.text.Messages;

/** Rules with one of their parts changed; what is not there in the new shape is taken from the old one as far as it goes. */
final class RuleEdits {
    /** How conditions are called in a sentence, in the order of the menu. */
    enum When {
        ABOVE(Messages.of("bench.act.is-above")),
        BELOW(Messages.of("bench.act.is-below")),
        INSIDE(Messages.of("bench.act.is-between")),
        OUTSIDE(Messages.of("bench.act.is-outside")),
        RISING(Messages.of("bench.act.rises-faster-than")),
        FALLING(Messages.of("bench.act.falls-faster-than")),
        SILENT(Messages.of("bench.act.is-silent-for"));

        final String words;

        When(String words) {
            this.words = words;
        }

        static When of(Condition condition) {
            return condition instanceof Condition.Above
                    ? ABOVE
                    : condition instanceof Condition.Below
                            ? BELOW
                            : condition instanceof Condition.Inside
                                    ? INSIDE
                                    : condition instanceof Condition.Outside
                                            ? OUTSIDE
                                            : condition instanceof Condition.Rising
                                                    ? RISING
                                                    : condition instanceof Condition.Falling ? FALLING : SILENT;
        }
    }

    private static final double OVER_SECONDS = 5;
    private static final double SILENT_SECONDS = 3;

    private RuleEdits() {}

    static Rule.OnSamples named(Rule.OnSamples rule, String name) {
        return new Rule.OnSamples(name, rule.watch(), rule.when(), rule.hysteresis(), rule.holds());
    }

    static Rule.OnSamples watching(Rule.OnSamples rule, Watch watch) {
        return new Rule.OnSamples(rule.name(), watch, rule.when(), rule.hysteresis(), rule.holds());
    }

    static Rule.OnSamples when(Rule.OnSamples rule, Condition condition) {
        return new Rule.OnSamples(rule.name(), rule.watch(), condition, rule.hysteresis(), rule.holds());
    }

    static Rule.OnSamples hysteresis(Rule.OnSamples rule, double hysteresis) {
        return new Rule.OnSamples(rule.name(), rule.watch(), rule.when(), hysteresis, rule.holds());
    }

    /** @param which 0 the hold before on, 1 before off, 2 the dead time */
    static Rule.Holds holds(Rule.Holds was, int which, double seconds) {
        return new Rule.Holds(
                which == 0 ? seconds : was.forSeconds(),
                which == 1 ? seconds : was.offForSeconds(),
                which == 2 ? seconds : was.deadSeconds(),
                was.latch());
    }

    static Rule.OnSamples holds(Rule.OnSamples rule, Rule.Holds holds) {
        return new Rule.OnSamples(rule.name(), rule.watch(), rule.when(), rule.hysteresis(), holds);
    }

    /** @return the limits of a rule in order: one or two of a condition, each edge of bands; none where it has none */
    static List<Double> limits(Rule rule) {
        return rule instanceof Rule.OnSamples one
                ? limits(one.when())
                : rule instanceof Rule.InBands bands
                        ? Arrays.stream(bands.edges()).boxed().toList()
                        : List.of();
    }

    static double hysteresis(Rule rule) {
        return rule instanceof Rule.OnSamples one
                ? one.hysteresis()
                : rule instanceof Rule.InBands bands ? bands.hysteresis() : 0;
    }

    /** @return the same rule with a limit moved; neighbours keep their order */
    static Rule moved(Rule rule, int which, double to) {
        if (!(rule instanceof Rule.InBands bands)) {
            Rule.OnSamples one = (Rule.OnSamples) rule;
            return when(one, moved(one.when(), which, to));
        }
        double[] edges = bands.edges().clone();
        double least = which == 0 ? Double.NEGATIVE_INFINITY : Math.nextUp(edges[which - 1]);
        double most = which == edges.length - 1 ? Double.POSITIVE_INFINITY : Math.nextDown(edges[which + 1]);
        edges[which] = Math.max(least, Math.min(most, to));
        return new Rule.InBands(bands.name(), bands.watch(), edges, bands.hysteresis(), bands.leastSeconds());
    }

    /** @return the same rule with another hysteresis */
    static Rule widened(Rule rule, double hysteresis) {
        return rule instanceof Rule.InBands bands
                ? new Rule.InBands(bands.name(), bands.watch(), bands.edges(), hysteresis, bands.leastSeconds())
                : hysteresis((Rule.OnSamples) rule, hysteresis);
    }

    static Watch watch(Rule rule) {
        return rule instanceof Rule.OnSamples one
                ? one.watch()
                : rule instanceof Rule.InBands bands ? bands.watch() : null;
    }

    /** @return the limits of a condition, one or two, in order; none where it has none */
    static List<Double> limits(Condition when) {
        if (when instanceof Condition.Above one) {
            return List.of(one.limit());
        } else if (when instanceof Condition.Below one) {
            return List.of(one.limit());
        } else if (when instanceof Condition.Inside one) {
            return List.of(one.low(), one.high());
        } else if (when instanceof Condition.Outside one) {
            return List.of(one.low(), one.high());
        }
        return List.of();
    }

    /** @return the same condition with a limit moved; two keep their order */
    static Condition moved(Condition when, int which, double to) {
        if (when instanceof Condition.Above) {
            return new Condition.Above(to);
        } else if (when instanceof Condition.Below) {
            return new Condition.Below(to);
        } else if (when instanceof Condition.Inside one) {
            return which == 0
                    ? new Condition.Inside(Math.min(to, Math.nextDown(one.high())), one.high())
                    : new Condition.Inside(one.low(), Math.max(to, Math.nextUp(one.low())));
        } else if (when instanceof Condition.Outside one) {
            return which == 0
                    ? new Condition.Outside(Math.min(to, Math.nextDown(one.high())), one.high())
                    : new Condition.Outside(one.low(), Math.max(to, Math.nextUp(one.low())));
        }
        return when;
    }

    /** @return a condition of another kind at about the same place. @param spread a fitting distance of two limits */
    static Condition as(Condition when, When kind, double spread) {
        List<Double> limits = limits(when);
        double first = limits.isEmpty() ? 0 : limits.get(0);
        double second = limits.size() > 1 ? limits.get(1) : first + Math.max(spread, 1e-9);
        return switch (kind) {
            case ABOVE -> new Condition.Above(limits.size() > 1 ? second : first);
            case BELOW -> new Condition.Below(first);
            case INSIDE -> new Condition.Inside(first, second);
            case OUTSIDE -> new Condition.Outside(first, second);
            case RISING -> new Condition.Rising(Math.abs(spread) / OVER_SECONDS, OVER_SECONDS);
            case FALLING -> new Condition.Falling(Math.abs(spread) / OVER_SECONDS, OVER_SECONDS);
            case SILENT -> new Condition.Silent(SILENT_SECONDS);
        };
    }
}
