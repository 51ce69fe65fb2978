package zesty.signal.exchange.portable;

import java.util.Arrays;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import zesty.signal.core.fixed.Factor;
import zesty.signal.core.fixed.FixedChain;
import zesty.signal.core.fixed.FixedStep;

/** A channel's steps in whole numbers as statements on {@code x}, with what they remember as fields of {@code s}. */
final class FixedCode {
    private static final int LONG_BYTES = 8;

    private final StringBuilder body = new StringBuilder();
    private final StringBuilder state = new StringBuilder();
    private final Set<String> helpers = new TreeSet<>();
    private int count;
    private long bytes = LONG_BYTES;
    private int products;
    private int divisions;

    FixedCode(FixedChain chain) {
        chain.steps().forEach(this::step);
    }

    private void line(String statement) {
        body.append("    ").append(statement).append('\n');
    }

    private void field(String declaration, long itsBytes) {
        state.append("    ").append(declaration).append(";\n");
        bytes += itsBytes;
    }

    private String times(String what, Factor factor) {
        helpers.add("fixed_times.c");
        products += 2;
        return "times(" + what + ", " + factor.mantissa() + ", " + factor.shift() + ")";
    }

    private void step(FixedStep step) {
        count++;
        if (step instanceof FixedStep.Up up) {
            line("x = x * (INT64_C(1) << " + up.bits() + ");");
        } else if (step instanceof FixedStep.Times one) {
            line("x = " + times("x", one.factor()) + ";");
        } else if (step instanceof FixedStep.Plus plus) {
            line("x = x + INT64_C(" + plus.number() + ");");
        } else if (step instanceof FixedStep.Absolute) {
            line("x = x < 0 ? -x : x;");
        } else if (step instanceof FixedStep.Section section) {
            section(section);
        } else if (step instanceof FixedStep.Average mean) {
            mean(mean.samples());
        } else if (step instanceof FixedStep.RootMeanSquare rms) {
            String part = "(INT64_C(1) << " + rms.shift() + ")";
            helpers.add("fixed_root.c");
            line("x = (x < 0 ? -x : x) / " + part + ";");
            line("x = x * x;");
            mean(rms.samples());
            line("x = root(x) * " + part + ";");
            products++;
        } else if (step instanceof FixedStep.Smooth smooth) {
            field("int64_t e" + count, LONG_BYTES);
            line("s->e" + count + " += " + times("x - s->e" + count, smooth.alpha()) + ";");
            line("x = s->e" + count + ";");
        } else if (step instanceof FixedStep.Curve curve) {
            curve(curve);
        }
    }

    private void section(FixedStep.Section section) {
        helpers.add("fixed_times.c");
        helpers.add("fixed_section.c");
        field("int64_t z" + count + "[4]", 4 * LONG_BYTES);
        products += 3 * section.whole().length;
        line("{");
        line("    static const coefficient c[5] = {");
        for (int k = 0; k < section.whole().length; k++) {
            Factor rest = section.rest()[k];
            line("        {" + section.whole()[k] + ", " + rest.mantissa() + ", " + rest.shift() + "}"
                    + (k < section.whole().length - 1 ? "," : ""));
        }
        line("    };");
        line("    x = section(c, s->z" + count + ", x);");
        line("}");
    }

    private void mean(int samples) {
        helpers.add("fixed_mean.c");
        field("int64_t window" + count + "[" + samples + "]", (long) LONG_BYTES * samples);
        field("int64_t sum" + count, LONG_BYTES);
        field("unsigned int at" + count, Integer.BYTES);
        line("x = moving_mean(s->window" + count + ", " + samples + ", &s->at" + count + ", &s->sum" + count + ", x);");
        divisions++;
    }

    private void curve(FixedStep.Curve curve) {
        helpers.add("fixed_curve.c");
        products++;
        line("{");
        line("    static const int32_t y[] = {"
                + Arrays.stream(curve.y()).mapToObj(Integer::toString).collect(Collectors.joining(",\n        "))
                + "};");
        line("    x = curve(y, " + curve.y().length + ", " + curve.apartBits() + ", " + curve.shift() + ", x - INT64_C("
                + curve.first() + "));");
        line("}");
    }

    String body() {
        return body.toString();
    }

    String state() {
        return state.toString();
    }

    Set<String> helpers() {
        return helpers;
    }

    /** @return what a comment says of its cost, by the places to fill */
    Map<String, String> cost() {
        return Map.of(
                "bytes",
                String.valueOf(bytes),
                "work",
                products + " products of 32 bits" + (divisions == 0 ? "" : " and " + divisions + " divisions"));
    }
}
