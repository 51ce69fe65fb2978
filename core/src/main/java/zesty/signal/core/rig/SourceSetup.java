package zesty.signal.core.rig;

import java.util.List;
import java.util.Objects;
import zesty.signal.core.text.Messages;

/**
 * Where a rig's bytes come from and what is known of it beforehand.
 *
 * @param address as {@code record} of the command line takes it; empty for none yet
 * @param statedRateHz the rate the maker states, used where the board sends no clock; NaN when unknown
 * @param warmUpSeconds for how long after the link opens the samples are kept but not read, 0 or more
 * @param orders lines that the maker sends to the board often
 * @param passOver shapes of lines that the maker knows and that need not be set aside, as {@code RejectedLines} has them
 */
public record SourceSetup(
        String address, double statedRateHz, double warmUpSeconds, List<String> orders, List<String> passOver) {
    /** A sample in eleven days; a hundred million a second. */
    private static final double LEAST_RATE_HZ = 1e-6;

    private static final double MOST_RATE_HZ = 1e8;

    public SourceSetup {
        Objects.requireNonNull(address, "address");
        orders = List.copyOf(orders);
        passOver = List.copyOf(passOver);
        if (statedRateHz < LEAST_RATE_HZ || statedRateHz > MOST_RATE_HZ) {
            throw new IllegalArgumentException(Messages.of("rig.a-declared-rate-lies-between-0", statedRateHz));
        }
        if (!(warmUpSeconds >= 0) || warmUpSeconds > 3600) {
            throw new IllegalArgumentException(Messages.of("rig.a-warm-up-takes-0-to-3600-s-was", warmUpSeconds));
        }
    }

    /** Nothing known but the address. */
    public static SourceSetup at(String address) {
        return new SourceSetup(address, Double.NaN, 0, List.of(), List.of());
    }

    /** @return whether no real board is behind it: a simulated one, or a file */
    public boolean madeUp() {
        return address.startsWith("sim:") || address.startsWith("file:") || address.isEmpty();
    }

    public SourceSetup withAddress(String other) {
        return new SourceSetup(other, statedRateHz, warmUpSeconds, orders, passOver);
    }

    public SourceSetup withStatedRate(double otherHz) {
        return new SourceSetup(address, otherHz, warmUpSeconds, orders, passOver);
    }

    public SourceSetup withWarmUp(double otherSeconds) {
        return new SourceSetup(address, statedRateHz, otherSeconds, orders, passOver);
    }

    public SourceSetup withOrders(List<String> others) {
        return new SourceSetup(address, statedRateHz, warmUpSeconds, others, passOver);
    }

    public SourceSetup withPassOver(List<String> others) {
        return new SourceSetup(address, statedRateHz, warmUpSeconds, orders, others);
    }
}
