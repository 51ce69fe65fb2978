package zesty.signal.core.plan;

/** What a bridge with its amplifier gives. @param step of the quantity, by one count; NaN without a converter */
public record BridgeBudget(double fullScaleVolts, double step) {
    public static BridgeBudget of(Plan.Bridge bridge, Plan.Converter converter) {
        double volts = bridge.millivoltsPerVolt() / 1000 * bridge.excitation() * bridge.gain();
        double step = converter == null ? Double.NaN : NoiseBudget.of(converter).stepVolts();
        return new BridgeBudget(volts, step / volts * bridge.fullScale());
    }
}
