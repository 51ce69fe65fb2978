package zesty.signal.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.function.IntToDoubleFunction;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.Series;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.core.scale.Scaling;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeException;
import zesty.signal.takes.TakeWriter;

/** Takes that are hardly any: a sensible picture or a plain sentence, from memory as from pages. */
class OddTakesTest {
    @TempDir
    Path folder;

    private Path written(int rows, String recipe, IntToDoubleFunction value) throws Exception {
        Rig rig = new Rig(
                "odd",
                SourceSetup.at(""),
                new DelimitedFormat(',', false, false, "", List.of(new Column("a", "V")), null),
                List.of(new Channel("a", "a", Scaling.asItCame("V"), Recipe.parse(recipe), true)));
        Path file = folder.resolve("odd.zest");
        try (TakeWriter writer = TakeWriter.create(file, "odd", rig, Instant.EPOCH)) {
            double[] values = new double[rows];
            for (int i = 0; i < rows; i++) {
                values[i] = value.applyAsDouble(i);
            }
            writer.append(new Block(new TimeBase.Steady(0, 0.01), new double[][] {values}, rows, List.of()));
            writer.finish();
        }
        return file;
    }

    private static ChannelSnapshot seen(Path file, long mostHeld) throws TakeException {
        try (Take take = Take.open(file)) {
            StoredTake stored = StoredTake.load(take, share -> true, mostHeld);
            ChannelSnapshot channel = stored.snapshot().channels().get(0);
            // All of it is drawn while the take is open.
            Series clean = channel.clean();
            float[] range = new float[2];
            clean.range(0, clean.end(), range);
            channel.stream().times().near(1e9, 1);
            for (long i = 0; i < clean.end(); i++) {
                clean.value(i);
            }
            return channel;
        }
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 1 << 22})
    void whatIsHardlyATakeIsDrawnOrTold(long mostHeld) throws Exception {
        ChannelSnapshot constant = seen(written(500, "bandpass:0.5..8@2", i -> 512), mostHeld);
        assertThat(constant.trouble()).isEmpty();
        assertThat(constant.level().highest()).isBetween(-1e-6, 1e-6);
        deleted();

        ChannelSnapshot huge = seen(written(2000, "lowpass:5@4", i -> i < 1000 ? 3 : 1e12), mostHeld);
        assertThat(huge.clean().value(0)).isBetween(2.0, 4.0);
        assertThat(huge.clean().value(1999)).isBetween(0.99e12, 1.01e12);
        deleted();

        ChannelSnapshot longer = seen(written(40, "median:9999 | mean:1000 | highpass:0.01@4", i -> i), mostHeld);
        assertThat(longer.clean().end()).isEqualTo(40);
        assertThat(Double.isInfinite(longer.clean().value(20))).isFalse();
        deleted();

        ChannelSnapshot nothing = seen(written(100, "lowpass:5@2", i -> Double.NaN), mostHeld);
        assertThat(nothing.clean().value(50)).isNaN();
        assertThat(nothing.level().samples()).isZero();
        deleted();

        ChannelSnapshot above = seen(written(100, "lowpass:60@2", i -> i), mostHeld);
        assertThat(above.trouble()).contains("60 Hz is not below half of 100 samples/s");
        assertThat(above.clean().value(50)).isEqualTo(50);
        deleted();

        ChannelSnapshot pair = seen(written(2, "", i -> i), mostHeld);
        assertThat(pair.clean().value(1)).isEqualTo(1);
    }

    @Test
    void oneSampleIsTold() throws Exception {
        Path file = written(1, "", i -> 1);
        assertThatThrownBy(() -> seen(file, 1)).hasMessageContaining("holds 1 rows; there is nothing to draw");
    }

    private void deleted() throws Exception {
        java.nio.file.Files.delete(folder.resolve("odd.zest"));
    }
}
