package zesty.signal.app.wording;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zesty.signal.engine.LinkState;

class WordingTest {
    /** A measured rate is as good as a clock is, and no better. */
    @ParameterizedTest
    @CsvSource({
        "3.9990,4/s",
        "1999.3,1999/s",
        "100.02,100/s",
        "99.2,99.2/s",
        "0.5,0.5/s",
        "0.3333333,0.3333/s",
        "12.25,12.25/s",
        "48000.4,48000/s",
        "NaN,0/s",
        "Infinity,0/s"
    })
    void ratesAreWholeWhereAClockMayBeThatFarOff(double hz, String words) {
        assertThat(Wording.rate(hz)).isEqualTo(words);
    }

    @ParameterizedTest
    @CsvSource({"0,00:00", "-3,00:00", "59.9,00:59", "61,01:01", "3599.5,59:59", "3600,1:00:00", "86399,23:59:59"})
    void timesAreMinutesAndHours(double seconds, String words) {
        assertThat(Wording.clock(seconds)).isEqualTo(words);
    }

    @ParameterizedTest
    @CsvSource({"0,0 kB", "1500,2 kB", "2500000,2.5 MB", "3.2e9,3 GB", "-5,0 kB"})
    void sizesAreRoundedToWhatOneActsOn(double bytes, String words) {
        assertThat(Wording.size(bytes)).isEqualTo(words);
    }

    /** A number that is no longer live is stale, as every screen calls it. */
    @Test
    void everyStateHasItsOneWord() {
        assertThat(Wording.state(LinkState.HELD)).isEqualTo("stale");
        assertThat(Wording.state(LinkState.LOST)).isEqualTo("lost");
        for (LinkState state : LinkState.values()) {
            assertThat(Wording.state(state)).isNotBlank().doesNotContain("held");
        }
    }
}
