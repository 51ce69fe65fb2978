package zesty.signal.core.plan;

import zesty.signal.core.text.Messages;

/**
 * A shunt for a current: the largest standard value whose drop, amplified, stays within the converter's range, and which costs no more
 * than a share of the supply's voltage.
 *
 * @param ratedWatts what it must be made for: twice the power at the highest current, rounded up to what is made
 */
public record ShuntChoice(double ohms, double ratedWatts, ShuntBudget budget) {
    private static final double[] RATINGS = {0.125, 0.25, 0.5, 1, 2, 3, 5, 10, 25, 50, 100};
    private static final double MARGIN = 0.95;

    /** @param mostDropVolts what it may cost. @throws IllegalArgumentException when one of them makes no sense */
    public static ShuntChoice of(double maxAmps, double gain, double mostDropVolts, Plan.Converter converter) {
        Plan.above(Messages.of("plan.the-highest-current"), maxAmps);
        Plan.above(Messages.of("plan.the-gain"), gain);
        Plan.above(Messages.of("plan.the-drop-allowed"), mostDropVolts);
        double most = Math.min(MARGIN * converter.ref() / (maxAmps * gain), mostDropVolts / maxAmps);
        double ohms = StandardSeries.E12.atMost(most);
        ShuntBudget budget = ShuntBudget.of(new Plan.Shunt(ohms, maxAmps, gain), converter);
        double rated = RATINGS[RATINGS.length - 1];
        for (int i = RATINGS.length - 1; i >= 0; i--) {
            rated = RATINGS[i] >= 2 * budget.watts() ? RATINGS[i] : rated;
        }
        return new ShuntChoice(ohms, rated, budget);
    }
}
