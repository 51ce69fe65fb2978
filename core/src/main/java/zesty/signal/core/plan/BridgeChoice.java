package zesty.signal.core.plan;

/** The gain that brings a bridge's full scale to nine tenths of the converter's range. @param budget what it then gives */
public record BridgeChoice(double gain, BridgeBudget budget) {
    private static final double MARGIN = 0.9;

    /** @param fullScale of the quantity, in its own unit. @throws IllegalArgumentException when one of them makes no sense */
    public static BridgeChoice of(double mvPerV, double excitation, double fullScale, Plan.Converter converter) {
        Plan.Bridge plain = new Plan.Bridge(mvPerV, excitation, 1, fullScale);
        double gain =
                MARGIN * converter.ref() / BridgeBudget.of(plain, converter).fullScaleVolts();
        return new BridgeChoice(gain, BridgeBudget.of(new Plan.Bridge(mvPerV, excitation, gain, fullScale), converter));
    }
}
