package zesty.signal.core.decode;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;

/** A busy computer, or a slow board, shows few packets of what it sends. */
class FewPacketsTest {
    @Test
    void aClockAndACountArePartedRightlyFromTwelvePacketsOn() {
        List<String> wrong = new ArrayList<>();
        for (int seed = 0; seed < 200; seed++) {
            PacketLayouts layouts = new PacketLayouts(seed);
            String fields = "UQ" + "a".repeat(1 + layouts.random.nextInt(5));
            double rate = 20 * Math.pow(20, layouts.random.nextDouble());
            // Of four bytes, as far as they do not wrap meanwhile; one in eight in its last seconds.
            double micros = 0x1p32 - 5e6 - layouts.random.nextDouble() * (seed % 8 == 7 ? 1e7 : 0x1p32 - 5e6);
            int rows = 12 + layouts.random.nextInt(30);
            wrong.addAll(layouts.wrong(fields, PacketLayouts.STARTS[1], true, rate, micros, rows));
        }
        assertThat(wrong).isEmpty();
    }

    /** Some look like others: one in thirty is parted otherwise. */
    @Test
    void layoutsOfAllSortsAreMostlyPartedRightly() {
        List<String> wrong = new ArrayList<>();
        for (int seed = 0; seed < 250; seed++) {
            wrong.addAll(new PacketLayouts(seed).ofAnySort(24, 123));
        }
        assertThat(wrong).as("%s", wrong).hasSizeLessThan(11);
    }
}
