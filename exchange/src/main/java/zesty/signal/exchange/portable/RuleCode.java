package zesty.signal.exchange.portable;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import zesty.signal.core.act.Condition;
import zesty.signal.core.act.Rule;
import zesty.signal.core.act.Watch;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.text.Messages;

/** The rules of a rig on one column as statements on the cleaned {@code x}, with what they remember as fields of {@code s}. */
final class RuleCode {
    /** Rounding of times, as the decisions have it. */
    private static final double ROUNDING_SECONDS = 1e-9;

    private final Channel channel;
    private final double rateHz;
    private final Arithmetic arithmetic;
    private final List<String> names = new ArrayList<>();
    private final StringBuilder body = new StringBuilder();
    private final StringBuilder state = new StringBuilder();
    private final Set<String> helpers = new TreeSet<>();

    /**
     * @param rateHz NaN where the rig states none
     * @param arithmetic in which the cleaned value is a number
     * @throws PortableException when a rule on the column cannot go, naming it
     */
    RuleCode(Rig rig, Channel channel, double rateHz, Arithmetic arithmetic) {
        this.channel = channel;
        this.rateHz = rateHz;
        this.arithmetic = arithmetic;
        Set<String> taken = new HashSet<>(Set.of("state", "reset", "step"));
        List<Rule> own = rules(rig, channel);
        for (Rule rule : own) {
            String plain = Template.identifier(rule.name());
            String name = plain;
            for (int n = 2; !taken.add(name); n++) {
                name = plain + "_" + n;
            }
            add(rule, names.size());
            names.add(name);
        }
        if (!names.isEmpty()) {
            int n = names.size();
            state.append("    unsigned long samples;\n    unsigned long rule_since[" + n
                    + "];\n    unsigned long rule_turned[" + n + "];\n    unsigned char rule_flags[" + n
                    + "]; /* 1: on */\n");
            helpers.add("rule.c");
        }
    }

    /** @return the rules of a rig on a channel, in their order */
    static List<Rule> rules(Rig rig, Channel channel) {
        return rig.act().inForce().rules().stream()
                .filter(one -> on(rig, channel, one))
                .toList();
    }

    /** @return whether a rig decides anything on a channel */
    static boolean any(Rig rig, Channel channel) {
        return rig.act().book().rules().stream().anyMatch(rule -> on(rig, channel, rule));
    }

    /** A rule on a number of a reader of the column is one on the column: it is named where it cannot go. */
    private static boolean on(Rig rig, Channel channel, Rule rule) {
        if (rule instanceof Rule.Made made) {
            return rig.act().book().rules().stream()
                    .anyMatch(one -> made.parts().contains(one.name()) && on(rig, channel, one));
        }
        Watch watch = rule instanceof Rule.OnSamples one ? one.watch() : ((Rule.InBands) rule).watch();
        String column = watch instanceof Watch.Column one ? one.name() : ((Watch.Number) watch).column();
        return column.equals(channel.column()) || column.equals(channel.name());
    }

    private PortableException cannot(Rule rule, String why) {
        return new PortableException(
                Messages.of("portable.the-rule-cannot-go-onto-a-board", channel.column(), rule.name(), why));
    }

    private void add(Rule rule, int index) {
        if (!(rule instanceof Rule.OnSamples one)) {
            throw cannot(
                    rule,
                    rule instanceof Rule.Made
                            ? Messages.of("portable.it-is-made-of-others")
                            : Messages.of("portable.it-is-a-band-s-number-not-on-or"));
        }
        if (one.watch() instanceof Watch.Number) {
            throw cannot(rule, Messages.of("portable.it-goes-by-a-reader"));
        }
        double half = one.hysteresis() / 2;
        Condition when = one.when();
        String turnsOn;
        String turnsOff;
        String value = "x";
        if (when instanceof Condition.Above above) {
            turnsOn = "v >= " + number(rule, above.limit() + half);
            turnsOff = "v < " + number(rule, above.limit() - half);
        } else if (when instanceof Condition.Below below) {
            turnsOn = "v <= " + number(rule, below.limit() - half);
            turnsOff = "v > " + number(rule, below.limit() + half);
        } else if (when instanceof Condition.Inside in) {
            turnsOn = "v >= " + number(rule, in.low() + half) + " && v <= " + number(rule, in.high() - half);
            turnsOff = "v < " + number(rule, in.low() - half) + " || v > " + number(rule, in.high() + half);
        } else if (when instanceof Condition.Outside out) {
            turnsOn = "v < " + number(rule, out.low() - half) + " || v > " + number(rule, out.high() + half);
            turnsOff = "v >= " + number(rule, out.low() + half) + " && v <= " + number(rule, out.high() - half);
        } else if (when instanceof Condition.Rising up) {
            value = slope(rule, index, up.overSeconds());
            turnsOn = "s->samples > 0 && v >= " + slope(rule, up.limit() + half);
            turnsOff = "v < " + slope(rule, up.limit() - half);
        } else if (when instanceof Condition.Falling down) {
            value = slope(rule, index, down.overSeconds());
            turnsOn = "s->samples > 0 && v <= " + slope(rule, -down.limit() - half);
            turnsOff = "v > " + slope(rule, -down.limit() + half);
        } else {
            throw cannot(rule, Messages.of("portable.a-value-that-does-not-come-is-no"));
        }
        Rule.Holds holds = one.holds();
        String off = holds.latch() ? "0" : turnsOff;
        body.append("        /* ").append(Template.comment(rule.name())).append(" */\n");
        body.append("        {\n            ")
                .append(arithmetic.type())
                .append(" v = ")
                .append(value)
                .append(";\n");
        body.append(
                "            int turning = s->rule_flags[" + index + "] & 1 ? (" + off + ") : (" + turnsOn + ");\n");
        body.append("            turn_rule(&s->rule_flags[" + index + "], &s->rule_since[" + index
                + "], &s->rule_turned["
                + index + "], s->samples, turning,\n                      " + samples(rule, holds.forSeconds()) + "ul, "
                + samples(rule, holds.offForSeconds()) + "ul, " + samples(rule, holds.deadSeconds()) + "ul);\n");
        body.append("            (void)v;\n        }\n");
    }

    private String number(Rule rule, double value) {
        if (Double.isNaN(value)) {
            throw cannot(rule, Messages.of("portable.its-percents-need-a-profile"));
        }
        return arithmetic.value(value);
    }

    private String slope(Rule rule, double limit) {
        number(rule, limit);
        return arithmetic.slope(limit, rateHz);
    }

    private String slope(Rule rule, int index, double overSeconds) {
        int n = (int) Math.max(2, samples(rule, overSeconds));
        helpers.add(arithmetic.slopeHelper());
        state.append("    " + arithmetic.type() + " slope" + index + "[" + n + "];\n");
        return "slope_of(s->slope" + index + ", " + n + ", s->samples, " + arithmetic.slopeArgument(n, rateHz) + ", x)";
    }

    /** @return the first count of samples that lasts so long */
    private long samples(Rule rule, double seconds) {
        if (seconds > 0 && !(rateHz > 0)) {
            throw cannot(rule, Messages.of("portable.its-times-need-the-rate-state"));
        }
        return seconds > 0 ? (long) Math.ceil((seconds - ROUNDING_SECONDS) * rateHz) : 0;
    }

    /** @return names of its functions, behind the channel's */
    List<String> names() {
        return names;
    }

    String body() {
        String all =
                arithmetic.mayBeMissing() ? "    if (x == x) {\n" + body + "    }\n" : "    {\n" + body + "    }\n";
        return names.isEmpty() ? "" : all + "    s->samples++;\n";
    }

    String state() {
        return state.toString();
    }

    Set<String> helpers() {
        return helpers;
    }
}
