package zesty.signal.core.plan;

/** What a shunt costs and resolves. @param stepAmps of one count; NaN without a converter */
public record ShuntBudget(double dropVolts, double watts, double stepAmps) {
    public static ShuntBudget of(Plan.Shunt shunt, Plan.Converter converter) {
        double drop = shunt.ohms() * shunt.maxAmps();
        double step = converter == null ? Double.NaN : NoiseBudget.of(converter).stepVolts();
        return new ShuntBudget(drop, drop * shunt.maxAmps(), step / (shunt.ohms() * shunt.gain()));
    }
}
