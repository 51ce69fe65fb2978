package zesty.signal.core.read;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import org.junit.jupiter.api.Test;
import zesty.signal.core.act.Band;
import zesty.signal.core.sample.TimeBase;

class LevelAndBandTest {
    @Test
    void noiseIsMeasuredOnASlopeAndTheWindowForgets() {
        LevelReader reader = new LevelReader(10, 100);
        Random random = new Random(3);
        double[] data = new double[5000];
        for (int i = 0; i < data.length; i++) {
            data[i] = i * 0.01 + 0.3 * random.nextGaussian();
        }
        reader.accept(data, data.length, new TimeBase.Steady(0, 0.01));
        LevelReader.Level level = reader.level();
        assertThat(level.samples()).isEqualTo(1001);
        assertThat(level.mean()).isCloseTo(44.99, within(0.05));
        // 1000 differences: the deviation of a standard deviation is about 2.7 %.
        assertThat(level.noise()).isCloseTo(0.3, within(0.025));

        // All at once, as of a stored take, it is the same as one sample after the other.
        data[77] = Double.NaN;
        LevelReader all = new LevelReader(1000, 100);
        all.accept(data, data.length, new TimeBase.Steady(0, 0.01));
        LevelReader.Level whole = LevelReader.of(data, data.length);
        assertThat(whole.samples()).isEqualTo(all.level().samples()).isEqualTo(4999);
        assertThat(whole.mean()).isCloseTo(all.level().mean(), within(1e-9));
        assertThat(whole.noise()).isCloseTo(all.level().noise(), within(1e-9));
        assertThat(whole.lowest()).isEqualTo(all.level().lowest());
        assertThat(whole.highest()).isEqualTo(all.level().highest());
    }

    @Test
    void aBandLetsGoOnlyAfterItsSlack() {
        Band band = new Band(60, 100, 3);
        Band.Side side = Band.Side.UNKNOWN;
        double[] rates = {80, 100.5, 98, 97.5, 96.9, 59, 62.9, 63.1, Double.NaN};
        Band.Side[] expected = {
            Band.Side.INSIDE,
            Band.Side.ABOVE,
            Band.Side.ABOVE,
            Band.Side.ABOVE,
            Band.Side.INSIDE,
            Band.Side.BELOW,
            Band.Side.BELOW,
            Band.Side.INSIDE,
            Band.Side.UNKNOWN
        };
        for (int i = 0; i < rates.length; i++) {
            side = band.next(side, rates[i]);
            assertThat(side).as("rate " + rates[i]).isEqualTo(expected[i]);
        }
        assertThatThrownBy(() -> new Band(60, 50, 0)).hasMessageContaining("low < high");
    }
}
