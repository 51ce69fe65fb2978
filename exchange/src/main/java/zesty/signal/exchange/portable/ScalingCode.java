package zesty.signal.exchange.portable;

import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import zesty.signal.core.scale.AnalogTemperature;
import zesty.signal.core.scale.Chained;
import zesty.signal.core.scale.Conversion;
import zesty.signal.core.scale.Decibels;
import zesty.signal.core.scale.Divider;
import zesty.signal.core.scale.Echo;
import zesty.signal.core.scale.Height;
import zesty.signal.core.scale.Line;
import zesty.signal.core.scale.MagneticCurrent;
import zesty.signal.core.scale.Polynomial;
import zesty.signal.core.scale.Scaling;
import zesty.signal.core.scale.Shunt;
import zesty.signal.core.scale.Thermistor;
import zesty.signal.core.scale.ValueTable;
import zesty.signal.core.text.Messages;

/** A scaling as statements on {@code x}. */
final class ScalingCode {
    private final StringBuilder body = new StringBuilder();
    private final Set<String> helpers = new TreeSet<>();

    /** @throws PortableException when something of it cannot go, naming it */
    ScalingCode(String column, Scaling scaling) {
        if (!scaling.columns().isEmpty()) {
            throw new PortableException(Messages.of(
                    "portable.its-scaling-takes-in-other-columns", column, String.join(", ", scaling.columns())));
        }
        if (scaling.converter() != null) {
            double volts = scaling.converter().volts(1);
            if (volts != 1) {
                say("volts of one count");
                line("x = x * " + Template.number(volts) + ";");
            }
        }
        conversion(column, scaling.conversion());
        if (scaling.correction() != 0) {
            say("corrections, added up");
            line("x = x + " + Template.number(scaling.correction()) + ";");
        }
    }

    private void say(String words) {
        body.append("    /* ").append(Template.comment(words)).append(" */\n");
    }

    private void line(String statement) {
        body.append("    ").append(statement).append('\n');
    }

    private void conversion(String column, Conversion conversion) {
        if (conversion instanceof Chained chained) {
            conversion(column, chained.first());
            conversion(column, chained.second());
        } else if (straight(conversion)) {
            double offset = conversion.apply(0);
            double slope = conversion.apply(1) - offset;
            if (slope != 1 || offset != 0) {
                say(conversion.words());
                line("x = " + Template.number(slope) + " * x + " + Template.number(offset) + ";");
            }
        } else if (conversion instanceof Polynomial polynomial) {
            say("polynomial, from its highest power down");
            List<Double> c = polynomial.coefficients();
            StringBuilder sum = new StringBuilder(Template.number(c.get(c.size() - 1)));
            for (int i = c.size() - 2; i >= 0; i--) {
                sum.insert(0, "(").append(") * x + ").append(Template.number(c.get(i)));
            }
            line("x = " + sum + ";");
        } else if (conversion instanceof ValueTable table) {
            table(table);
        } else if (conversion instanceof Thermistor thermistor) {
            thermistor(thermistor);
        } else if (conversion instanceof Decibels decibels) {
            say("decibels");
            line("x = x > 0 ? 20 * log10(x / " + Template.number(decibels.reference()) + ") : NAN;");
        } else if (conversion instanceof Height height) {
            say("standard atmosphere, up to 11 km");
            line("x = x > 0 ? " + Template.number(288.15 / 0.0065) + " * (1 - pow(x / "
                    + Template.number(height.seaHpa()) + ", "
                    + Template.number(8.31432 * 0.0065 / (9.80665 * 0.0289644)) + ")) : NAN;");
        } else {
            throw new PortableException(
                    Messages.of("portable.the-scaling-cannot-go-onto-a-board", column, conversion.words()));
        }
    }

    private static boolean straight(Conversion conversion) {
        return conversion instanceof Line
                || conversion instanceof Divider
                || conversion instanceof Shunt
                || conversion instanceof MagneticCurrent
                || conversion instanceof AnalogTemperature
                || conversion instanceof Echo;
    }

    private void table(ValueTable table) {
        helpers.add("table.c");
        say("table of " + table.x().size() + " points");
        line("{");
        line("    static const double from[] = {" + numbers(table.x()) + "};");
        line("    static const double to[] = {" + numbers(table.y()) + "};");
        line("    x = between(from, to, " + table.x().size() + ", x);");
        line("}");
    }

    private static String numbers(List<Double> values) {
        return String.join(", ", values.stream().map(Template::number).toList());
    }

    private void thermistor(Thermistor thermistor) {
        String supply = Template.number(thermistor.supplyVolts());
        String series = Template.number(thermistor.seriesOhms());
        say("resistance of the thermistor, by the divider");
        line("x = !(x > 0 && x < " + supply + ") ? NAN : "
                + (thermistor.side() == Thermistor.Side.LOW
                        ? series + " * x / (" + supply + " - x);"
                        : series + " * (" + supply + " - x) / x;"));
        if (thermistor.law() instanceof Thermistor.Beta beta) {
            say("1/T = 1/T0 + ln(R/R0)/beta, in kelvin");
            line("x = 1 / (" + Template.number(1 / (beta.t0Celsius() + 273.15)) + " + log(x / "
                    + Template.number(beta.r0()) + ") / " + Template.number(beta.beta()) + ") - 273.15;");
        } else {
            Thermistor.ThreeCoefficients law = (Thermistor.ThreeCoefficients) thermistor.law();
            say("1/T = a + b ln R + c (ln R)^3, in kelvin");
            line("x = log(x);");
            line("x = 1 / (" + Template.number(law.a()) + " + " + Template.number(law.b()) + " * x + "
                    + Template.number(law.c()) + " * x * x * x) - 273.15;");
        }
    }

    String body() {
        return body.toString();
    }

    Set<String> helpers() {
        return helpers;
    }
}
