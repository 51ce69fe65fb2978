package zesty.signal.core.plan;

import java.util.ArrayList;
import java.util.List;
import zesty.signal.core.clean.Recipe;

/**
 * All budgets of a plan that its parts allow; null where they do not.
 *
 * @param bytesPerDay of the stream on a disk; NaN where no row is known
 * @param wrong what goes over, in the order of the parts
 */
public record Budgets(
        LineBudget line,
        RateBudget rate,
        NoiseBudget converter,
        DelayBudget recipe,
        MemoryBudget memory,
        double bytesPerDay,
        BatteryBudget battery,
        DividerBudget divider,
        ShuntBudget shunt,
        BridgeBudget bridge,
        List<Fault> wrong) {
    private static final double DAY_SECONDS = 86_400;

    /** @throws zesty.signal.core.clean.RecipeException when the recipe makes no sense or does not fit the rate */
    public static Budgets of(Plan plan) {
        Plan.Row row = plan.row();
        LineBudget line = plan.line() == null || row == null ? null : LineBudget.of(plan.line(), row);
        Plan.Signal signal = plan.signal() == null ? new Plan.Signal(Double.NaN, List.of()) : plan.signal();
        RateBudget rate = row == null ? null : RateBudget.of(row.rateHz(), signal);
        NoiseBudget converter = plan.converter() == null ? null : NoiseBudget.of(plan.converter());
        DelayBudget recipe = plan.recipe().isBlank() || row == null
                ? null
                : DelayBudget.of(Recipe.parse(plan.recipe()), row.rateHz());
        DividerBudget divider = plan.divider() == null ? null : DividerBudget.of(plan.divider(), plan.converter());
        List<Fault> wrong = new ArrayList<>();
        if (line != null && !line.fits()) {
            wrong.add(line.fault(plan.line(), row));
        }
        if (rate != null) {
            wrong.addAll(rate.faults(row.rateHz(), signal));
        }
        if (divider != null && Boolean.TRUE.equals(divider.over())) {
            wrong.add(divider.fault(plan.divider(), plan.converter()));
        }
        return new Budgets(
                line,
                rate,
                converter,
                recipe,
                plan.memory() == null ? null : MemoryBudget.of(plan.memory(), row),
                row == null ? Double.NaN : row.rateHz() * row.bytes() * DAY_SECONDS,
                plan.battery() == null ? null : BatteryBudget.of(plan.battery()),
                divider,
                plan.shunt() == null ? null : ShuntBudget.of(plan.shunt(), plan.converter()),
                plan.bridge() == null ? null : BridgeBudget.of(plan.bridge(), plan.converter()),
                List.copyOf(wrong));
    }
}
