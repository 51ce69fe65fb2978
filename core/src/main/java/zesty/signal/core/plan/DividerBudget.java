package zesty.signal.core.plan;

import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/**
 * What a divider gives to a pin.
 *
 * @param over whether that is above the converter's reference; null where that is not known
 * @param worstError share of the pin's voltage, both resistors at their worst
 */
public record DividerBudget(double atMaxVolts, Boolean over, double amps, double worstError) {
    public static DividerBudget of(Plan.Divider divider, Plan.Converter converter) {
        double share = share(divider.top(), divider.bottom());
        double tolerance = divider.tolerance();
        double high = share(divider.top() * (1 - tolerance), divider.bottom() * (1 + tolerance)) / share - 1;
        double low = 1 - share(divider.top() * (1 + tolerance), divider.bottom() * (1 - tolerance)) / share;
        double volts = divider.sourceMax() * share;
        return new DividerBudget(
                volts,
                converter == null ? null : volts > converter.ref() * (1 + 1e-12),
                divider.sourceMax() / (divider.top() + divider.bottom()),
                Math.max(high, low));
    }

    private static double share(double top, double bottom) {
        return bottom / (top + bottom);
    }

    Fault fault(Plan.Divider divider, Plan.Converter converter) {
        double top = divider.bottom() * (divider.sourceMax() / converter.ref() - 1);
        return new Fault(
                "divider",
                Messages.of(
                        "plan.the-pin-sees-v-where-the-converter",
                        Digits.about(atMaxVolts, 4),
                        Digits.of(converter.ref())),
                Messages.of("plan.a-top-resistor-of-or-more", Digits.about(top, 3)));
    }
}
