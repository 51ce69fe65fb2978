package zesty.signal.core.plan;

import java.util.List;
import java.util.function.DoubleFunction;

/**
 * One budget of a plan as a bar: how much of it is used, and what happens when its end is pulled.
 *
 * @param value in words, with units. @param says what follows from it, a sentence
 * @param share used, 0 and more. @param limit beyond which it is over, as a share; NaN for none
 * @param over whether it is over, or too little where less is worse
 * @param mends changes that put it right, the smallest first; none where it is not over
 * @param pulled the plan with the bar's end at a share; null where it cannot be pulled
 */
public record Bar(
        String name,
        String value,
        String says,
        double share,
        double limit,
        boolean over,
        List<Mend> mends,
        DoubleFunction<Draft> pulled) {
    public Bar {
        mends = List.copyOf(mends);
    }

    /** A change in words, and the plan with it. */
    public record Mend(String words, Draft after) {}
}
