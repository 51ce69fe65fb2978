package zesty.signal.core.doctor;

import static org.assertj.core.api.Assertions.assertThat;
import static zesty.signal.core.doctor.Paper.made;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import zesty.signal.core.read.Nature;
import zesty.signal.core.read.kinds.ReaderKinds;

/** Signals as sensors give them, well and ill, made here from their shapes; what ails them is known because it was put in. */
class DoctorTest {
    private static final int SEEDS = 14;
    private static final double SECONDS = 20;

    /** A well signal in counts of a 12-bit converter, and the reader that works on it. */
    private record Well(double rate, double[] x, String reader) {}

    private static final List<String> SIGNALS =
            List.of("finger", "chest", "heel", "forearm", "hull", "whistle", "cups", "load", "sounder", "tank");

    private static Well well(String signal, Random random) {
        double rate =
                switch (signal) {
                    case "finger" -> random.nextBoolean() ? 100 : 200;
                    case "chest" -> 500;
                    case "forearm" -> 1000;
                    case "hull" -> 1600;
                    case "whistle" -> 4000;
                    case "cups" -> 400;
                    case "heel" -> 100;
                    default -> random.nextBoolean() ? 25 : 50;
                };
        double[] x = new double[(int) (SECONDS * rate)];
        double pace = 0.7 + 0.4 * random.nextDouble();
        double phase = random.nextDouble();
        double size = 300 + 500 * random.nextDouble();
        double hz = 30 + 200 * random.nextDouble();
        double walk = 0;
        for (int i = 0; i < x.length; i++) {
            double t = i / rate;
            double since = ((t / pace + phase) % 1) * pace;
            walk += random.nextGaussian() / Math.sqrt(rate) - walk / rate;
            x[i] = 2048
                    + switch (signal) {
                        // A log-normal rise and a later hump, after the usual shape of a finger's pulse.
                        case "finger" ->
                            size
                                            * (Math.exp(-0.5 * Math.pow((since - 0.18) / 0.06, 2))
                                                    + 0.35 * Math.exp(-0.5 * Math.pow((since - 0.42) / 0.08, 2)))
                                    + 4 * random.nextGaussian();
                        case "chest" ->
                            size
                                            * (Math.exp(-0.5 * Math.pow((since - 0.2) / 0.012, 2))
                                                    + 0.25 * Math.exp(-0.5 * Math.pow((since - 0.45) / 0.05, 2)))
                                    + 4 * random.nextGaussian();
                        case "heel" ->
                            0.3 * size * Math.sin(2 * Math.PI * (t / 5.7 + phase))
                                    + 0.1 * size * walk
                                    + 4 * random.nextGaussian();
                        case "forearm" -> (t % 4 > 2 ? 0.5 * size : 8) * random.nextGaussian() * 0.7;
                        case "hull" ->
                            0.2 * size * Math.sin(2 * Math.PI * hz * t)
                                    + 0.1 * size * Math.sin(2 * Math.PI * 2.37 * hz * t + phase)
                                    + 12 * random.nextGaussian();
                        case "whistle" ->
                            0.8 * size * Math.sin(2 * Math.PI * 3.1 * hz * t) + 20 * random.nextGaussian();
                        case "cups" -> (t * (4 + 3 * phase) % 1 < 0.5 ? 1500 : -1500) + 3 * random.nextGaussian();
                        case "load" -> 0.02 * size * t + 2 * random.nextGaussian();
                        case "sounder" ->
                            40 * Math.sin(2 * Math.PI * (0.23 * t + phase))
                                    + 15 * Math.sin(2 * Math.PI * 0.41 * t)
                                    + 3 * random.nextGaussian();
                        default -> 1.2 * random.nextGaussian() + 0.2 * size * Math.exp(-t / 20);
                    };
            x[i] = Math.rint(x[i]);
        }
        String reader =
                switch (signal) {
                    case "finger", "chest" -> "pulse";
                    case "forearm" -> "muscle";
                    case "hull" -> "vibration";
                    case "whistle" -> "tone";
                    case "cups" -> "wind";
                    default -> "";
                };
        return new Well(rate, x, reader);
    }

    private static double[] times(int n, double rate) {
        double[] t = new double[n];
        Arrays.setAll(t, i -> i / rate);
        return t;
    }

    private static List<Finding> examine(Well well) {
        return Doctor.examine(
                new Examined(well.x(), times(well.x().length, well.rate()), 0, 4095, nature(well.reader()), Map.of()));
    }

    @Test
    void ofAHundredWellSignalsItSpeaksOfOneAtTheMost() {
        List<String> spoken = new ArrayList<>();
        for (int i = 0; i < 100; i++) {
            String signal = SIGNALS.get(i % SIGNALS.size());
            for (Finding finding : examine(well(signal, new Random(100 + i)))) {
                spoken.add(signal + " " + i + ": " + finding);
            }
        }
        assertThat(spoken).hasSizeLessThanOrEqualTo(1);
    }

    /** What is put into a signal, and into which ones it makes sense to put it. */
    enum Ill {
        FLAT(Diagnosis.FLAT, "finger", "heel", "load", "hull"),
        AT_END(Diagnosis.AT_END, "finger", "chest", "sounder", "load"),
        CLIPPED(Diagnosis.CLIPPED, "finger", "chest", "forearm", "hull", "whistle"),
        LOOSE(Diagnosis.LOOSE, "chest", "finger", "heel", "sounder"),
        MISSING(Diagnosis.DROPOUTS, "finger", "heel", "load", "chest"),
        FAILED(Diagnosis.DROPOUTS, "heel", "load", "sounder", "tank"),
        MOTOR(Diagnosis.IN_STEP, "finger", "chest", "heel", "forearm"),
        HUM(Diagnosis.HUM, "finger", "chest", "heel", "forearm"),
        FOLDED_HUM(Diagnosis.HUM, "load", "tank", "sounder"),
        UNEVEN(Diagnosis.UNEVEN, "finger", "heel", "load", "hull"),
        KNOCKED(Diagnosis.STEPPED, "heel", "load", "sounder", "tank"),
        FOLDED(Diagnosis.FOLDED, "hull", "heel", "finger"),
        WANDERS(Diagnosis.WANDER, "finger", "chest"),
        DRIFTS(Diagnosis.DRIFT, "finger", "chest"),
        NOISE(Diagnosis.NOISE, "finger", "chest", "heel"),
        COARSE(Diagnosis.FEW_BITS, "finger", "heel", "chest");

        final Diagnosis diagnosis;
        final List<String> signals;

        Ill(Diagnosis diagnosis, String... signals) {
            this.diagnosis = diagnosis;
            this.signals = List.of(signals);
        }
    }

    private static List<Finding> examine(Ill ill, int seed) {
        Random random = new Random(1000L * ill.ordinal() + seed);
        Well well = well(ill.signals.get(seed % ill.signals.size()), random);
        double[] x = well.x().clone();
        double rate = well.rate();
        double[] t = times(x.length, rate);
        double spread = deviation(x);
        Map<String, double[]> others = Map.of();
        switch (ill) {
            case FLAT -> Arrays.fill(x, x[0]);
            case AT_END -> Arrays.setAll(x, i -> random.nextInt(50) == 0 ? 1 : 0);
            case CLIPPED -> {
                double from = 2048 + spread * (0.5 + 0.4 * random.nextDouble());
                boolean both = random.nextBoolean();
                Arrays.setAll(x, i -> Math.rint(Math.min(from, both ? Math.max(4096 - from, x[i]) : x[i])));
            }
            case LOOSE -> {
                double level = 0;
                double next = 1;
                for (int i = 0; i < x.length; i++) {
                    if (t[i] > next) {
                        level = level == 0 ? (random.nextBoolean() ? 1 : -1) * (8 * spread + 400) : 0;
                        next = t[i] + 0.7 + 1.5 * random.nextDouble();
                    }
                    x[i] = Math.rint(x[i] + level);
                }
            }
            case MISSING -> {
                for (int i = 0; i < x.length; i++) {
                    x[i] = random.nextInt(40) == 0 ? Double.NaN : x[i];
                }
            }
            case FAILED -> {
                for (int k = 0; k < 6; k++) {
                    x[3 + random.nextInt(x.length - 6)] = 0;
                }
            }
            case MOTOR -> {
                double[] duty = new double[x.length];
                double now = 0;
                double next = 1;
                for (int i = 0; i < x.length; i++) {
                    if (t[i] > next) {
                        now = now > 0 ? 0 : 60;
                        next = t[i] + 1 + 1.5 * random.nextDouble();
                    }
                    duty[i] = now;
                    x[i] = Math.rint(x[i] + (now > 0 ? (0.15 * spread + 25) * random.nextGaussian() : 0));
                }
                others = Map.of("winch", duty, "depth", times(x.length, 3));
            }
            case HUM, FOLDED_HUM -> {
                // At 25, 50 and 100/s mains of 50 Hz folds down to a level or stands on half the rate: nobody can tell.
                double hz = (rate > 100 && random.nextBoolean() ? 50 : 60) + 0.1 * random.nextGaussian();
                double high = ill == Ill.FOLDED_HUM ? 20 + 3 * spread : (0.3 + random.nextDouble()) * spread;
                for (int i = 0; i < x.length; i++) {
                    x[i] = Math.rint(x[i] + high * Math.sin(2 * Math.PI * hz * t[i]));
                }
            }
            case UNEVEN -> {
                for (int i = 0; i < x.length; i++) {
                    t[i] += 0.3 * random.nextGaussian() / rate * (random.nextInt(3) == 0 ? 0 : 1);
                }
                Arrays.sort(t);
            }
            case KNOCKED -> {
                int at = (int) ((0.3 + 0.4 * random.nextDouble()) * x.length);
                double by = (random.nextBoolean() ? 1 : -1) * (6 * spread + 100);
                for (int i = at; i < x.length; i++) {
                    double since = (i - at) / rate;
                    double ring = 1.5 * Math.exp(-since / 0.08) * Math.cos(2 * Math.PI * 9 * since);
                    x[i] = Math.rint(x[i] + by * (1 + ring));
                }
            }
            case FOLDED -> {
                double hz = rate * (0.55 + 0.07 * random.nextDouble());
                // Close to an image of mains, mains is the better guess.
                while (rate < 300 && (Math.abs(hz - 60) < 2 || Math.abs(hz - 120) < 2)) {
                    hz += 1;
                }
                for (int i = 0; i < x.length; i++) {
                    x[i] = Math.rint(x[i] + 1.2 * spread * Math.sin(2 * Math.PI * hz * t[i]));
                }
            }
            case WANDERS -> {
                double slow = 0.15 + 0.1 * random.nextDouble();
                for (int i = 0; i < x.length; i++) {
                    x[i] = Math.rint(x[i] + 5 * spread * Math.sin(2 * Math.PI * (slow * t[i] + 0.1 * seed)));
                }
            }
            case DRIFTS -> Arrays.setAll(x, i -> Math.rint(x[i] + 0.6 * spread * t[i]));
            case NOISE ->
                Arrays.setAll(x, i -> Math.rint(x[i] + (0.6 + random.nextDouble()) * spread * random.nextGaussian()));
            case COARSE -> {
                double grain = spread * (0.8 + 0.6 * random.nextDouble());
                Arrays.setAll(x, i -> Math.rint(x[i] / grain));
            }
        }
        return Doctor.examine(new Examined(x, t, 0, 4095, nature(well.reader()), others));
    }

    private static double deviation(double[] x) {
        double mean = Arrays.stream(x).average().orElse(0);
        return Math.sqrt(
                Arrays.stream(x).map(v -> (v - mean) * (v - mean)).average().orElse(0));
    }

    @Test
    void ofTwoHundredIllSignalsItFindsNearlyAllAndNamesMostFirst() {
        int found = 0;
        int first = 0;
        int all = 0;
        StringBuilder missed = new StringBuilder();
        for (Ill ill : Ill.values()) {
            for (int seed = 0; seed < SEEDS; seed++) {
                List<Finding> told = examine(ill, seed);
                all++;
                boolean here = told.stream().anyMatch(f -> f.diagnosis() == ill.diagnosis);
                boolean leads = here && told.get(0).diagnosis() == ill.diagnosis;
                found += here ? 1 : 0;
                first += leads ? 1 : 0;
                if (!leads) {
                    missed.append(ill)
                            .append(" in ")
                            .append(ill.signals.get(seed % ill.signals.size()))
                            .append(": ")
                            .append(told.stream()
                                    .map(f -> f.diagnosis() + " (" + f.evidence() + ")")
                                    .toList())
                            .append('\n');
                }
            }
        }
        assertThat(all).isGreaterThanOrEqualTo(200);
        assertThat((double) found / all).as(missed.toString()).isGreaterThanOrEqualTo(0.95);
        assertThat((double) first / all).as(missed.toString()).isGreaterThanOrEqualTo(0.9);
    }

    @ParameterizedTest
    @EnumSource(Ill.class)
    void whatItSaysHasNumbersACauseAndSomethingToDo(Ill ill) {
        for (int seed = 0; seed < 3; seed++) {
            List<Finding> told = examine(ill, seed);
            assertThat(told).hasSizeLessThanOrEqualTo(3).allSatisfy(f -> {
                assertThat(f.evidence()).containsPattern("[0-9]");
                assertThat(f.cause()).isNotBlank();
                assertThat(f.remedy()).isNotBlank();
                zesty.signal.core.clean.Recipe.parse(f.recipe());
            });
        }
    }

    /** What lost rows, a rail or a knock bring about by themselves is not told beside them; what they do not is. */
    @Test
    void whatAnotherFindingBringsAboutIsNotToldBesideIt() {
        int n = 1281;
        double[] wander = made(n, i -> 100 * Math.cos(2 * Math.PI * 4 * i / (n - 1)) + (i % 2 == 0 ? 1 : -1));
        assertThat(named(wander)).containsExactly(Diagnosis.WANDER);
        assertThat(named(made(n, i -> i % 20 == 0 ? Double.NaN : wander[i]))).containsExactly(Diagnosis.DROPOUTS);
        double[] knocked = made(n, i -> i % 3 + (i < 640 ? 0 : i < 645 ? 130 : 100));
        assertThat(named(knocked)).containsExactly(Diagnosis.STEPPED);
        assertThat(named(made(n, i -> i % 20 == 0 ? Double.NaN : knocked[i]))).containsExactly(Diagnosis.DROPOUTS);
        assertThat(named(made(n, i -> i % 25 == i / 100 ? 1 : 0))).containsExactly(Diagnosis.AT_END);
    }

    private static List<Diagnosis> named(double[] x) {
        return Doctor.examine(new Examined(x, times(x.length, 64), 0, 1023, Nature.ON_A_LEVEL, Map.of())).stream()
                .map(Finding::diagnosis)
                .toList();
    }

    @Test
    void nothingMuchSaysNothing() {
        assertThat(Doctor.examine(new Examined(new double[0], new double[0], 0, 1023, Nature.LEVEL, Map.of())))
                .isEmpty();
        assertThat(Doctor.examine(new Examined(new double[] {5}, new double[] {0}, 0, 1023, nature("pulse"), Map.of())))
                .isEmpty();
        double[] none = new double[300];
        Arrays.fill(none, Double.NaN);
        assertThat(Doctor.examine(new Examined(none, times(300, 100), 0, 1023, Nature.LEVEL, Map.of())))
                .isEmpty();
        double[] huge = new double[1000];
        Random random = new Random(1);
        Arrays.setAll(huge, i -> (i < 500 ? 0 : 1e12) + random.nextInt(7));
        // A leap without a knock may be what is measured, however large.
        assertThat(Doctor.examine(new Examined(huge, times(1000, 100), Double.NaN, Double.NaN, Nature.LEVEL, Map.of())))
                .isEmpty();
    }

    private static Nature nature(String reader) {
        return reader.isEmpty() ? Nature.LEVEL : ReaderKinds.of(reader).nature();
    }
}
