package zesty.signal.core.sample;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** A source's clock against the computer's, by rows that come late by chance and never early. */
class ClockOffsetTest {
    /** @return what is left of the offset at the end, in s: found less true */
    private static double left(
            double offset, double drift, double jitter, double rate, double seconds, ClockOffset clock, long seed) {
        Random random = new Random(seed);
        double now = 0;
        double own = 0;
        for (int i = 0; i < seconds * rate; i++) {
            own = 100 + i / rate;
            now = own + offset + drift * (own - 100);
            // Late by an exponential, as in queues; now and then by half a second.
            double late = -jitter * Math.log(1 - random.nextDouble()) + (random.nextInt(200) == 0 ? 0.5 : 0);
            clock.saw(own, now + late);
        }
        return clock.offsetSeconds() - (now - own);
    }

    @ParameterizedTest
    @CsvSource({"5,0,0.01,50", "-3000,0,0.02,200", "0.25,1e-4,0.01,100", "12,-2e-4,0.02,20", "1e6,5e-5,0.005,500"})
    void theOffsetIsThatOfTheLeastDelayedRows(double offset, double drift, double jitter, double rate) {
        for (long seed = 0; seed < 10; seed++) {
            ClockOffset clock = new ClockOffset();
            double left = left(offset, drift, jitter, rate, 90, clock, seed);
            // The least of so many rows a second is late by the mean over their number; a line through sixty seconds of
            // those scatters by a part of that.
            assertThat(left).as("seed %d", seed).isBetween(-2 * jitter / rate - 1e-6, 8 * jitter / Math.sqrt(rate));
            assertThat(clock.drift()).isCloseTo(drift, within(1e-6 + 3 * jitter / rate));
        }
    }

    @Test
    void beforeAnythingCameNothingIsKnownAndDriftNeedsSomeTime() {
        ClockOffset clock = new ClockOffset();
        assertThat(clock.offsetSeconds()).isNaN();
        assertThat(clock.drift()).isZero();
        clock.saw(10, 15.5);
        assertThat(clock.offsetSeconds()).isEqualTo(5.5);
        clock.saw(11, 16.2);
        assertThat(clock.offsetSeconds()).isCloseTo(5.2, within(1e-12));
        // A later one that is more delayed says nothing.
        clock.saw(12, 19);
        assertThat(clock.offsetSeconds()).isCloseTo(5.2, within(1e-12));
        assertThat(clock.drift()).isZero();
    }

    @Test
    void aClockThatIsSetIsFollowedWithinAMinute() {
        ClockOffset clock = new ClockOffset();
        for (int i = 0; i < 4000; i++) {
            clock.saw(i / 50.0, i / 50.0 + 3 + 0.002 * (i % 5));
        }
        assertThat(clock.offsetSeconds()).isCloseTo(3, within(0.003));
        for (int i = 4000; i < 8000; i++) {
            clock.saw(i / 50.0 - 0.4, i / 50.0 + 3 + 0.002 * (i % 5));
        }
        assertThat(clock.offsetSeconds()).isCloseTo(3.4, within(0.003));
    }
}
