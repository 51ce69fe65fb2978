package zesty.signal.core.plan;

/** How long a battery lasts through a round of states. */
public record BatteryBudget(double meanMilliamps, double hours) {
    public static BatteryBudget of(Plan.Battery battery) {
        double charge = 0;
        double seconds = 0;
        for (Plan.State state : battery.states()) {
            charge += state.milliamps() * state.seconds();
            seconds += state.seconds();
        }
        double mean = charge / seconds;
        return new BatteryBudget(mean, mean > 0 ? battery.milliampHours() / mean : Double.NaN);
    }
}
