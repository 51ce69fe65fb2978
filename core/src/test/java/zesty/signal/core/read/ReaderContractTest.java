package zesty.signal.core.read;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import zesty.signal.core.read.kinds.ReaderKinds;
import zesty.signal.core.sample.TimeBase;

/** What every kind of reader keeps to, whatever it reads: a new kind is tested by being in the list. */
class ReaderContractTest {
    private static final double RATE = 400;

    static Stream<ReaderKind> kinds() {
        return ReaderKinds.all().stream();
    }

    private static Reader fresh(ReaderKind kind) {
        return kind.reader(Settings.of(kind, Map.of()), RATE);
    }

    /** Something that most readers find something in: bumps at a steady pace on a slope with noise, one gap's worth. */
    private static double[][] signal(ReaderKind kind, int n) {
        Random random = new Random(11);
        double[][] ports = new double[kind.fewestPorts()][n];
        for (double[] port : ports) {
            for (int i = 0; i < n; i++) {
                double phase = i / RATE % 0.8;
                port[i] = 0.001 * i + 100 * phase / 0.1 * Math.exp(1 - phase / 0.1) + random.nextGaussian();
            }
        }
        return ports;
    }

    private static String written(Reading reading) {
        StringBuilder text = new StringBuilder(reading.quality().toString()).append(reading.working());
        for (Item item : reading.items()) {
            text.append('\n').append(item.key()).append(' ');
            if (item instanceof Item.Numbers numbers) {
                text.append(Arrays.toString(numbers.values()));
            } else if (item instanceof Item.Trace trace) {
                text.append(Arrays.toString(trace.seconds())).append(Arrays.toString(trace.values()));
            } else if (item instanceof Item.Records records) {
                records.records().forEach(one -> text.append(Arrays.toString(one)));
            } else if (item instanceof Item.Events events) {
                events.events().forEach(e -> text.append(e.kind())
                        .append(e.startSeconds())
                        .append(e.why())
                        .append(e.size())
                        .append(Arrays.toString(e.values())));
            } else {
                text.append(item);
            }
        }
        return text.toString();
    }

    @ParameterizedTest
    @MethodSource("kinds")
    void theSizeOfThePiecesChangesNothingNotEvenAcrossAGap(ReaderKind kind) {
        int n = 12_000;
        double[][] all = signal(kind, n);
        for (double[] port : all) {
            Arrays.fill(port, 3000, 3010, Double.NaN);
            Arrays.fill(port, 7000, 7300, Double.NaN);
        }
        Random sizes = new Random(5);
        String[] answers = new String[3];
        for (int run = 0; run < answers.length; run++) {
            Reader reader = fresh(kind);
            for (int at = 0; at < n; ) {
                int end = at < 5000 ? 5000 : n;
                int length = Math.min(end - at, run == 0 ? n : 1 + sizes.nextInt(run == 1 ? 8 : 900));
                double[][] part = new double[all.length][];
                for (int p = 0; p < part.length; p++) {
                    part[p] = Arrays.copyOfRange(all[p], at, at + length);
                }
                if (at == 5000) {
                    reader.gap();
                }
                // After the gap three seconds have passed.
                int first = at;
                double[] seconds = new double[length];
                Arrays.setAll(seconds, i -> (first + i) / RATE + (first >= 5000 ? 3 : 0));
                reader.accept(part, length, new TimeBase.Explicit(seconds));
                at += length;
            }
            // Asking changes nothing.
            reader.reading(10, 20);
            reader.finish();
            answers[run] = written(reader.reading()) + written(reader.reading(20, 28));
        }
        assertThat(answers[1]).isEqualTo(answers[0]);
        assertThat(answers[2]).isEqualTo(answers[0]);
    }

    @ParameterizedTest
    @MethodSource("kinds")
    void littleNothingAndAConstantAreAnswersNotErrors(ReaderKind kind) {
        double[] flat = new double[4000];
        Arrays.fill(flat, 7);
        double[] missing = new double[4000];
        Arrays.fill(missing, Double.NaN);
        for (double[] signal : List.of(new double[0], new double[] {3}, new double[] {3, 4}, flat, missing)) {
            Reader reader = fresh(kind);
            double[][] ports = new double[kind.fewestPorts()][];
            Arrays.fill(ports, signal);
            reader.gap();
            reader.accept(ports, signal.length, new TimeBase.Steady(0, 1 / RATE));
            reader.gap();
            reader.finish();
            Reading reading = reader.reading();
            assertThat(reading.quality().share()).isBetween(0.0, 1.0);
            if (signal.length < 3 || signal == missing) {
                assertThat(reading.quality().reasons())
                        .as("%d samples", signal.length)
                        .isNotEmpty();
            }
            for (Item item : reading.items()) {
                if (item instanceof Item.Scalar scalar) {
                    assertThat(Double.isInfinite(scalar.value()))
                            .as(scalar.key())
                            .isFalse();
                }
            }
        }
    }

    @ParameterizedTest
    @MethodSource("kinds")
    void aKindIsWhatItSaysOfItself(ReaderKind kind) {
        Reader reader = fresh(kind);
        double[][] ports = signal(kind, 8000);
        reader.accept(ports, 8000, new TimeBase.Steady(0, 1 / RATE));
        reader.finish();
        Set<String> given = new HashSet<>();
        reader.reading().items().forEach(item -> assertThat(given.add(item.key()))
                .as(item.key())
                .isTrue());
        assertThat(given).contains(kind.scalars().stream().map(ScalarInfo::key).toArray(String[]::new));
        assertThat(given).contains(kind.otherKeys().toArray(String[]::new));
        assertThat(kind.detailKeys()).allMatch(key -> kind.scalar(key) != null);
        assertThat(kind.usualBands().keySet()).allMatch(key -> kind.scalar(key) != null);
        assertThat(kind.name()).matches("[a-z]+");
        for (Setting setting : kind.settings()) {
            // What is usual may be written, and nonsense may not.
            Settings.of(kind, Map.of(setting.key(), setting.usual()));
            org.assertj.core.api.Assertions.assertThatThrownBy(
                            () -> Settings.of(kind, Map.of(setting.key(), "no such thing\n".repeat(9))))
                    .isInstanceOf(ReaderException.class)
                    .hasMessageContaining(setting.key() + " takes " + setting.allowed());
        }
        assertThat(kind.unsuited(Settings.of(kind, Map.of()), "", 1e-9).isPresent()
                        || kind.unsuited(Settings.of(kind, Map.of()), "", RATE).isEmpty())
                .isTrue();
    }
}
