package zesty.signal.core.plan;

import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** How much of a serial line a stream takes. @param share of what the line can carry. @param highestRateHz at the most that is allowed */
public record LineBudget(double bytesPerSecond, double share, boolean fits, double highestRateHz) {
    /** What a line may be filled to: clocks differ, boards pause, and a reader must be able to catch up. */
    public static final double MOST = 0.8;

    private static final int[] SPEEDS = {
        9600, 19_200, 38_400, 57_600, 115_200, 230_400, 460_800, 921_600, 1_000_000, 2_000_000
    };

    public static LineBudget of(Plan.Line line, Plan.Row row) {
        double bytes = row.rateHz() * row.bytes();
        double share = bytes * line.bitsAByte() / line.baud();
        return new LineBudget(
                bytes, share, share <= MOST * (1 + 1e-12), MOST * line.baud() / (line.bitsAByte() * row.bytes()));
    }

    Fault fault(Plan.Line line, Plan.Row row) {
        double needed = bytesPerSecond * line.bitsAByte() / MOST;
        String faster = "";
        for (int speed : SPEEDS) {
            if (faster.isEmpty() && speed >= needed) {
                faster = Messages.of("plan.a-line-of-baud", speed);
            }
        }
        double bytes = MOST * line.baud() / (line.bitsAByte() * row.rateHz());
        return new Fault(
                "line",
                Messages.of("plan.the-stream-takes-of-the-line-more", Digits.about(100 * share, 3)),
                Messages.of(
                        "plan.rows-of-bytes-at-most-or-rows-s-at",
                        faster,
                        (int) Math.floor(bytes),
                        Digits.about(Math.floor(highestRateHz * 10) / 10, 4)));
    }
}
