package zesty.signal.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** The newest bytes of a link against a record of all that ever came. */
class ByteTailTest {
    @Test
    void theNewestBytesAreThoseThatCameWithTheirMoments() {
        for (long seed = 0; seed < 60; seed++) {
            Random random = new Random(seed);
            int capacity = 16 + random.nextInt(300);
            ByteTail tail = new ByteTail(capacity);
            ByteArrayOutputStream all = new ByteArrayOutputStream();
            List<long[]> arrivals = new ArrayList<>();
            for (int i = 0; i < 40; i++) {
                // Some arrivals are longer than all that is kept.
                byte[] some = new byte[1 + random.nextInt(random.nextInt(8) == 0 ? 3 * capacity : 60)];
                random.nextBytes(some);
                int length = 1 + random.nextInt(some.length);
                long nanos = 1000L * i + 7;
                arrivals.add(new long[] {all.size(), nanos});
                tail.append(some, length, nanos);
                all.write(some, 0, length);
                int most = 1 + random.nextInt(2 * capacity);
                ByteTail.Newest newest = tail.newest(most);
                byte[] whole = all.toByteArray();
                int expected = Math.min(most, Math.min(capacity, whole.length));
                assertThat(tail.count()).isEqualTo(whole.length);
                assertThat(newest.bytes())
                        .as("seed %d", seed)
                        .isEqualTo(Arrays.copyOfRange(whole, whole.length - expected, whole.length));
                assertThat(newest.first()).isEqualTo(whole.length - expected);
                for (int k = 0; k < 20; k++) {
                    long index = random.nextInt(whole.length);
                    long truth = 0;
                    for (long[] arrival : arrivals) {
                        truth = arrival[0] <= index ? arrival[1] : truth;
                    }
                    assertThat(newest.nanosOf(index)).isEqualTo(truth);
                }
            }
        }
    }

    @Test
    void aMomentThatIsForgottenIsNotInvented() {
        ByteTail tail = new ByteTail(1 << 16);
        for (int i = 0; i < 5000; i++) {
            tail.append(new byte[] {(byte) i}, 1, 1 + i);
        }
        ByteTail.Newest newest = tail.newest(5000);
        // The moments of the newest 4096 arrivals are kept.
        assertThat(newest.nanosOf(4999)).isEqualTo(5000);
        assertThat(newest.nanosOf(904)).isEqualTo(905);
        assertThat(newest.nanosOf(903)).isZero();
    }
}
