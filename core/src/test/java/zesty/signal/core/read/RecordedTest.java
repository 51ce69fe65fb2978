package zesty.signal.core.read;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;
import zesty.signal.core.sample.TimeBase;

class RecordedTest {
    /** Tells what it was asked to read. */
    private static final class Told extends Recorded {
        private final List<String> seen = new ArrayList<>();

        Told() {
            super(1);
        }

        @Override
        protected Reading read(Segment stretch) {
            StringBuilder runs = new StringBuilder();
            for (int[] run : stretch.runs()) {
                runs.append(run[0]).append('-').append(run[1]).append(' ');
            }
            seen.add(runs.toString().strip());
            return new Reading(
                    new Quality(1, List.of()),
                    List.of(
                            new Item.Numbers("values", "", stretch.ports()[0]),
                            new Item.Scalar("span", stretch.span()),
                            new Item.Scalar("ports", stretch.ports().length)),
                    List.of());
        }
    }

    private static double[] values(Reading reading) {
        return ((Item.Numbers) reading.items().get(0)).values();
    }

    @Test
    void aSpanHasTheSamplesFromItsBeginToItsEndAndGapsWhereTheyWere() {
        Told told = new Told();
        told.accept(new double[][] {{0, 1, 2, 3}}, 4, new TimeBase.Steady(0, 1));
        told.gap();
        told.accept(new double[][] {{10, 11, Double.NaN, 13}}, 4, new TimeBase.Steady(10, 1));
        told.gap();
        told.gap();
        told.accept(new double[][] {{20}}, 1, new TimeBase.Steady(20, 1));
        told.gap();
        told.finish();
        assertThat(values(told.reading())).containsExactly(0, 1, 2, 3, 10, 11, Double.NaN, 13, 20);
        assertThat(told.reading().scalar("span")).isEqualTo(20);
        // Both ends belong to it; a gap at its begin is none within it.
        assertThat(values(told.reading(2, 11))).containsExactly(2, 3, 10, 11);
        assertThat(values(told.reading(10, 12.5))).containsExactly(10, 11, Double.NaN);
        assertThat(values(told.reading(4, 9))).isEmpty();
        assertThat(values(told.reading(30, 5))).isEmpty();
        assertThat(told.seen).containsExactly("0-4 4-6 7-8 8-9", "0-4 4-6 7-8 8-9", "0-2 2-4", "0-2", "", "");
    }

    @Test
    void aGapBeforeAnythingCameIsNoneAndPortsAreAsManyAsCome() {
        Told told = new Told();
        assertThat(values(told.reading())).isEmpty();
        told.gap();
        told.accept(new double[][] {{1, 2}, {3, Double.NaN}, {5, 6}}, 2, new TimeBase.Explicit(new double[] {4, 4.5}));
        assertThat(told.reading().scalar("ports")).isEqualTo(3);
        // A sample that lacks one port belongs to no run.
        assertThat(told.seen).containsExactly("", "0-1");
    }

    @Test
    void ofMoreThanItKeepsTheOldestGoesAndTheNewestIsWhole() {
        Told told = new Told();
        int block = 1 << 20;
        double[] ports = new double[block];
        int blocks = 10;
        for (int b = 0; b < blocks; b++) {
            int first = b * block;
            Arrays.setAll(ports, i -> first + i);
            told.accept(new double[][] {ports}, block, new TimeBase.Steady(first, 1));
            if (b == 1 || b == 8) {
                told.gap();
            }
        }
        double[] kept = values(told.reading());
        int last = blocks * block - 1;
        assertThat(kept[kept.length - 1]).isEqualTo(last);
        assertThat(kept[0]).isEqualTo(last - kept.length + 1.0);
        assertThat(kept.length).isBetween(4 * block, 8 * block);
        assertThat(told.dropped()).isEqualTo(blocks * (long) block - kept.length);
        assertThat(told.reading().quality().share()).isLessThan(0.5);
        assertThat(told.reading().quality().reasons())
                .singleElement()
                .asString()
                .startsWith("only the newest " + kept.length + " samples are in it");
        // Of a stretch that is still there nothing is missing.
        assertThat(told.reading(last - 100.0, last).quality()).isEqualTo(new Quality(1, List.of()));
        // The gap that is still in it lies where it lay.
        int gap = 9 * block - (int) kept[0];
        assertThat(told.seen.get(0)).isEqualTo("0-" + gap + " " + gap + "-" + kept.length);
    }
}
