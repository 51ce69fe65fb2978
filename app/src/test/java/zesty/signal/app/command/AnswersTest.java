package zesty.signal.app.command;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.JsonNode;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.function.IntToDoubleFunction;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.core.scale.Scaling;
import zesty.signal.takes.TakeWriter;

/** What {@code extract} and {@code spectrum} print of signals whose answers are known, key by key as the contract has them. */
@Timeout(240)
class AnswersTest {
    @TempDir
    Path folder;

    private Said extract(String kind, String file, String... more) {
        List<String> words =
                new ArrayList<>(List.of("extract", kind, folder.resolve(file).toString()));
        words.addAll(List.of(more));
        words.add("--json");
        return Said.zesty(words.toArray(String[]::new));
    }

    private void csv(String file, String header, int rows, IntToDoubleFunction... columns) throws Exception {
        StringBuilder text = new StringBuilder(header).append('\n');
        for (int i = 0; i < rows; i++) {
            int row = i;
            text.append(String.join(
                            ",",
                            Arrays.stream(columns)
                                    .map(c -> Double.toString(c.applyAsDouble(row)))
                                    .toList()))
                    .append('\n');
        }
        Files.writeString(folder.resolve(file), text);
    }

    private static List<String> keys(JsonNode node) {
        List<String> keys = new ArrayList<>();
        node.fieldNames().forEachRemaining(keys::add);
        return keys;
    }

    /** As boards print them: whole milliseconds, at more and at little fewer rows than that. Read as it is, and as a take. */
    @ParameterizedTest
    @ValueSource(ints = {860, 1700, 2000})
    void timesCoarserThanTheRowsAreNoGaps(int rateHz) throws Exception {
        csv(
                "ms.csv",
                "t_ms,x",
                20 * rateHz,
                i -> Math.floor(300 + i * 1000.0 / rateHz),
                i -> 0.5 * Math.sin(2 * Math.PI * 203 * i / rateHz));
        Said imported = Said.zesty(
                "import",
                folder.resolve("ms.csv").toString(),
                "--out",
                folder.resolve("ms.zest").toString());
        assertThat(imported.status()).isZero();
        for (String file : List.of("ms.csv", "ms.zest")) {
            JsonNode json = extract("vibration", file, "--column", "x").json();
            assertThat(json.path("peaks").get(0).path("hz").asDouble()).as(file).isCloseTo(203, within(0.1));
            assertThat(json.path("peaks").get(0).path("amplitude").asDouble()).isCloseTo(0.5, within(0.01));
            assertThat(json.path("peaks")).as(file).hasSize(1);
            assertThat(json.path("quality").asDouble()).as(file).isGreaterThan(0.98);
        }
    }

    /** The row at the end of each block is lost or sent twice, in whole milliseconds: it makes no lines of its own, of a take neither. */
    @ParameterizedTest
    @CsvSource({"12, 0, false", "8, 0, true", "12, 2, false", "7, 2, true"})
    void rowsThatAreLostOrSentTwiceRegularlyMakeNoLines(int each, int times, boolean imported) throws Exception {
        int[] taken = IntStream.range(1, 8000)
                .flatMap(i -> IntStream.generate(() -> i).limit(i % each == 0 ? times : 1))
                .toArray();
        csv(
                "block.csv",
                "t_ms,x",
                taken.length,
                i -> taken[i],
                i -> Math.sin(0.9 * taken[i]) + 0.4 * Math.sin(0.31 * taken[i] + 1));
        String of = "block.csv";
        String hints = "";
        if (imported) {
            of = "block.zest";
            hints = Said.zesty(
                            "import",
                            folder.resolve("block.csv").toString(),
                            "--out",
                            folder.resolve(of).toString())
                    .err();
        }
        Said said = extract("vibration", of, "--column", "x");
        JsonNode json = said.json();

        assertThat(json.path("peaks").get(0).path("hz").asDouble()).isCloseTo(900 / 2 / Math.PI, within(0.02));
        assertThat(json.path("peaks").get(0).path("amplitude").asDouble()).isCloseTo(1, within(0.01));
        assertThat(json.path("peaks").get(1).path("hz").asDouble()).isCloseTo(310 / 2 / Math.PI, within(0.02));
        assertThat(json.path("peaks").path(2).path("amplitude").asDouble()).isLessThan(0.01);
        assertThat(json.path("quality").asDouble()).isCloseTo(times == 2 ? 1 : 1 - 2.0 / each, within(0.01));
        String repeated = imported ? "left out: " + 7999 / each + " of " + taken.length : 7999 / each + " rows repeat";
        assertThat((hints + said.err()).contains(repeated)).isEqualTo(times == 2);
    }

    /** A board that draws on a display every 25 rows, or whose turns take now longer and now shorter, shakes no other lines by it. */
    @ParameterizedTest
    @CsvSource({"0.034, 0.02, 0.8", "0.06, 0, 0.75", "0.01, 0.2, 0.95"})
    void aLoopThatIsNotOnTimeMakesNoLines(double pause, double scatter, double quality) throws Exception {
        Random random = new Random(3);
        double[] seconds = new double[4000];
        for (int i = 1; i < seconds.length; i++) {
            seconds[i] = seconds[i - 1] + (i % 25 == 0 ? pause : 0.01) * (1 + scatter * random.nextGaussian());
        }
        csv(
                "loop.csv",
                "t,x",
                4000,
                i -> seconds[i],
                i -> 0.5 * Math.sin(2 * Math.PI * 17 * seconds[i]) + 0.01 * random.nextGaussian());
        JsonNode json = extract("vibration", "loop.csv", "--column", "x").json();

        assertThat(json.path("peaks").get(0).path("hz").asDouble()).isCloseTo(17, within(0.02));
        assertThat(json.path("peaks").get(0).path("amplitude").asDouble()).isCloseTo(0.5, within(0.015));
        for (int i = 1; i < json.path("peaks").size(); i++) {
            assertThat(json.path("peaks").get(i).path("amplitude").asDouble()).isLessThan(0.015);
        }
        assertThat(json.path("turning_hz").isNull()).isTrue();
        assertThat(json.path("quality").asDouble()).isGreaterThan(quality);
    }

    /** Times of what happens now and then, in whole eighths of a second: they stand in the file, and are not to be made even. */
    @Test
    void unevenTimesStayAsTheyAre() throws Exception {
        Random random = new Random(11);
        double[] seconds = new double[300];
        for (int i = 1; i < seconds.length; i++) {
            seconds[i] = seconds[i - 1] + new double[] {0.125, 0.125, 0.25}[random.nextInt(3)];
        }
        csv("uneven.csv", "t,x", seconds.length, i -> seconds[i], i -> i % 40 < 20 ? 0 : 9);
        Path rules = Files.writeString(
                folder.resolve("rules.json"),
                "{\"rules\":[{\"name\":\"up\",\"watch\":{\"column\":\"x\"},\"when\":\"above\",\"limit\":5}],\"outputs\":[]}");
        JsonNode decisions = Said.zesty(
                        "decide", folder.resolve("uneven.csv").toString(), "--rules", rules.toString(), "--json")
                .json()
                .path("decisions");
        assertThat(decisions).hasSize(14);
        for (int d = 0; d < decisions.size(); d++) {
            assertThat(decisions.get(d).path("t_s").asDouble()).isEqualTo(seconds[20 * (d + 1)]);
        }
    }

    /** Times on a grid of which a row in so many is missing are fine enough: the rate is that of the grid. */
    @ParameterizedTest
    @ValueSource(doubles = {0.05, 0.12, 0.2, 0.35})
    void rowsLostByChanceLeaveTheRateAsItIs(double lost) throws Exception {
        Random random = new Random(7);
        int[] rows = IntStream.range(0, 8000)
                .filter(i -> i == 0 || random.nextDouble() >= lost)
                .toArray();
        csv("lost.csv", "t,x", rows.length, i -> rows[i] / 200.0, i -> Math.sin(2 * Math.PI * 31.7 * rows[i] / 200));
        JsonNode json = extract("vibration", "lost.csv", "--column", "x").json();

        assertThat(json.path("peaks").get(0).path("hz").asDouble()).isCloseTo(31.7, within(0.01));
        assertThat(json.path("peaks").get(0).path("amplitude").asDouble())
                .isCloseTo(1, within(lost > 0.3 ? 0.1 : 0.02));
        assertThat(json.path("quality").asDouble()).isCloseTo(Math.max(0.3, 1 - 2 * lost), within(0.03));
    }

    @Test
    void whatComesAtAnotherRateIsTold() throws Exception {
        csv("two.csv", "t,x", 9000, i -> i < 6000 ? i / 500.0 : 12 + (i - 6000) / 1000.0, i -> Math.sin(i));
        String told = "two.csv: from about 11.9 s on samples come at 1000/s, not at 500/s";
        assertThat(Said.zesty("spectrum", folder.resolve("two.csv").toString(), "--column", "x", "--json")
                        .err())
                .contains(told);
        String out = folder.resolve("out.csv").toString();
        String file = folder.resolve("two.csv").toString();
        assertThat(Said.zesty("clean", file, "--column", "x", "--recipe", "lowpass:50@2", "--out", out)
                        .err())
                .contains(told);
        assertThat(extract("vibration", "two.csv", "--column", "x")
                        .json()
                        .path("quality")
                        .asDouble())
                .isLessThan(0.7);
    }

    @Test
    void vibrationOfThreeAxes() throws Exception {
        csv(
                "v.csv",
                "ax,ay,az",
                4000,
                i -> 0.3 * Math.sin(2 * Math.PI * 40 * i / 800.0),
                i -> 0.4 * Math.sin(2 * Math.PI * 40 * i / 800.0),
                i -> 1);
        JsonNode json = extract(
                        "vibration", "v.csv", "--column", "ax", "--column", "ay", "--column", "az", "--rate", "800")
                .json();
        assertThat(keys(json)).contains("rms", "peak", "crest", "kurtosis", "peaks", "clipped", "quality");
        assertThat(json.path("rms").asDouble()).isCloseTo(0.5 / Math.sqrt(2), within(1e-9));
        assertThat(json.path("peaks").get(0).path("hz").asDouble()).isCloseTo(40, within(0.01));
        assertThat(json.path("peaks").get(0).path("amplitude").asDouble()).isCloseTo(0.5, within(0.005));
        assertThat(extract("vibration", "v.csv", "--column", "ax", "--column", "ay", "--column", "az", "--column", "ax")
                        .status())
                .isEqualTo(2);
        assertThat(extract("vibration", "v.csv", "--column", "ax", "--rate", "800", "--set", "peaks=2.5")
                        .err())
                .contains("peaks takes a whole number");
    }

    @Test
    void hitsWindToneAndStep() throws Exception {
        Random random = new Random(1);
        csv(
                "h.csv",
                "t,knock",
                8000,
                i -> i / 1000.0,
                i -> 0.01 * random.nextGaussian()
                        + (i % 2000 >= 500
                                ? 2 * Math.exp(-(i % 2000 - 500) / 30.0) * Math.sin((i % 2000 - 500) * 0.5)
                                : 0));
        JsonNode hits = extract("hits", "h.csv", "--column", "knock").json();
        assertThat(keys(hits)).contains("hits", "count", "threshold", "release", "dead_s");
        assertThat(hits.path("count").asInt()).isEqualTo(4);
        assertThat(hits.path("hits").get(2).path("t_s").asDouble()).isCloseTo(4.501, within(0.002));
        assertThat(hits.path("hits").get(2).path("peak").asDouble()).isBetween(1.7, 2.0);

        csv("w.csv", "t,pulses", 60, i -> i + 1, i -> 3);
        JsonNode wind = extract("wind", "w.csv", "--column", "pulses", "--set", "factor=1.2", "--set", "offset=0.4")
                .json();
        assertThat(keys(wind)).contains("mean_mps", "gust_mps", "lull_mps", "beaufort", "series");
        assertThat(wind.path("mean_mps").asDouble()).isCloseTo(4, within(1e-9));
        assertThat(wind.path("beaufort").asInt()).isEqualTo(3);
        assertThat(keys(wind.path("series").get(0))).containsExactly("t_s", "mps");
        csv("e.csv", "edge_s", 30, i -> i * 0.5);
        JsonNode edges = extract("wind", "e.csv", "--column", "edge_s", "--set", "input=edges")
                .json();
        assertThat(edges.path("mean_mps").asDouble()).isCloseTo(2, within(1e-9));
        csv("f.csv", "edge_s", 5, i -> 5 - i);
        Said fall = extract("wind", "f.csv", "--column", "edge_s", "--set", "input=edges");
        assertThat(fall.status()).isEqualTo(2);
        assertThat(fall.err()).contains("times of edges must rise");

        csv("t.csv", "mic", 8000, i -> 0.2 * Math.sin(2 * Math.PI * 330 * i / 4000.0));
        JsonNode tone =
                extract("tone", "t.csv", "--column", "mic", "--rate", "4000").json();
        assertThat(keys(tone)).contains("hz", "level_db", "confidence");
        assertThat(tone.path("hz").asDouble()).isCloseTo(330, within(0.01));
        assertThat(tone.path("level_db").asDouble()).isCloseTo(20 * Math.log10(0.2 / Math.sqrt(2)), within(1e-6));

        csv(
                "s.csv",
                "t,drive,answer",
                800,
                i -> i / 20.0,
                i -> i < 100 ? 0 : 10,
                i -> i < 120 ? 5 : 5 + 20 * (1 - Math.exp(-(i - 120) / 20.0 / 2)));
        JsonNode step = extract("step", "s.csv", "--column", "drive", "--column", "answer")
                .json();
        assertThat(keys(step)).contains("baseline", "gain", "tau_s", "dead_s", "rise_s", "settled", "rms_residual");
        assertThat(step.path("settled").isBoolean()).isTrue();
        assertThat(step.path("settled").asBoolean()).isTrue();
        assertThat(step.path("gain").asDouble()).isCloseTo(2, within(0.001));
        assertThat(step.path("tau_s").asDouble()).isCloseTo(2, within(0.01));
        assertThat(step.path("dead_s").asDouble()).isCloseTo(1, within(0.01));
        csv("n.csv", "t,drive,answer", 800, i -> i / 20.0, i -> i < 100 ? 0 : 10, i -> 5);
        JsonNode none = extract("step", "n.csv", "--column", "drive", "--column", "answer")
                .json();
        assertThat(none.path("tau_s").isNull()).isTrue();
        assertThat(none.path("settled").asBoolean()).isFalse();
    }

    @Test
    void motionAndMuscle() throws Exception {
        csv("m.csv", "ax,ay,az", 300, i -> -0.5, i -> 0, i -> Math.sqrt(0.75));
        String[] three = {"--column", "ax", "--column", "ay", "--column", "az", "--rate", "100"};
        JsonNode motion = extract("motion", "m.csv", three).json();
        assertThat(keys(motion))
                .contains("roll_deg", "pitch_deg", "heading_deg", "steps", "activity_g", "face", "events");
        assertThat(motion.path("pitch_deg")).hasSize(300);
        assertThat(motion.path("pitch_deg").get(299).asDouble()).isCloseTo(30, within(1e-9));
        assertThat(motion.path("heading_deg").get(0).isNull()).isTrue();
        assertThat(motion.path("face").asText()).isEqualTo("+z");
        assertThat(motion.path("steps").asInt()).isZero();
        Said four = extract(
                "motion",
                "m.csv",
                "--column",
                "ax",
                "--column",
                "ay",
                "--column",
                "az",
                "--column",
                "ax",
                "--rate",
                "100");
        assertThat(four.status()).isEqualTo(2);
        assertThat(four.err()).contains("3, 6 or 9 columns");

        Random random = new Random(2);
        csv("emg.csv", "emg", 20_000, i -> 512 + (i / 1000 % 5 == 3 ? 80 : 4) * random.nextGaussian());
        JsonNode muscle = extract("muscle", "emg.csv", "--column", "emg", "--rate", "1000", "--set", "rest=0..2.5")
                .json();
        assertThat(keys(muscle)).contains("bursts", "baseline", "snr_db", "duty");
        assertThat(muscle.path("bursts")).hasSize(4);
        assertThat(keys(muscle.path("bursts").get(0)))
                .containsExactly("onset_s", "offset_s", "peak", "mean", "percent");
        assertThat(muscle.path("bursts").get(1).path("onset_s").asDouble()).isCloseTo(8, within(0.02));
        assertThat(muscle.path("bursts").get(1).path("offset_s").asDouble()).isCloseTo(9, within(0.02));
        assertThat(muscle.path("duty").asDouble()).isCloseTo(0.2, within(0.005));
        assertThat(muscle.path("snr_db").asDouble()).isCloseTo(20 * Math.log10(20), within(1.0));
        Said slow = extract("muscle", "emg.csv", "--column", "emg", "--rate", "100");
        assertThat(slow.status()).isEqualTo(2);
        assertThat(slow.err()).contains("needs 400 samples/s or more, not 100");
    }

    @Test
    void aTakeAnswersAsItsColumnsDo() throws Exception {
        double[] counts = new double[6000];
        Arrays.setAll(counts, i -> Math.rint(100 * Math.sin(2 * Math.PI * 33 * i / 500.0)));
        DelimitedFormat format = new DelimitedFormat(',', false, false, "", List.of(new Column("ax", "")), null);
        Rig rig = new Rig(
                "r",
                SourceSetup.at("stdin"),
                format,
                List.of(new Channel("ax", "Hum", Scaling.asItCame("g"), Recipe.NONE, true)));
        Path take = folder.resolve("hum.zest");
        try (TakeWriter writer = TakeWriter.create(take, "hum", rig, Instant.EPOCH)) {
            writer.append(new Block(new TimeBase.Steady(0, 0.002), new double[][] {counts}, 6000, List.of()));
            writer.finish();
        }
        csv("hum.csv", "ax", 6000, i -> counts[i]);
        JsonNode ofTake = extract("vibration", "hum.zest", "--column", "ax").json();
        JsonNode ofFile = extract("vibration", "hum.csv", "--column", "ax", "--rate", "500")
                .json();
        assertThat(ofTake.path("peaks").get(0)).isEqualTo(ofFile.path("peaks").get(0));
        assertThat(ofTake.path("rms").asDouble()).isCloseTo(ofFile.path("rms").asDouble(), within(1e-12));
        JsonNode spectrum = Said.zesty("spectrum", take.toString(), "--column", "ax", "--segment", "500", "--json")
                .json();
        assertThat(spectrum.path("hz")).hasSize(251);
        // A tone of 100 counts on a bin of a Hann window: its power over 1.5 bins of noise bandwidth.
        assertThat(spectrum.path("density").get(33).asDouble()).isCloseTo(5000 / 1.5, within(10.0));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '!',
            value = {
                "--segment 0!--segment is a whole number of samples from 1 on, was 0",
                "--segment 2.5!--segment is a whole number of samples from 1 on, was 2.5",
                "--segment 99999!longer than the 400 samples there are",
                "--window square!no window is called 'square'; there are none, hann, blackmanharris, flattop",
                "--overlap 1!--overlap is a share from 0 to below 1, was 1",
                "--rate 0!--rate must be above 0",
                "--column nope!no column 'nope'"
            })
    void aSpectrumThatCannotBeIsRefused(String words, String said) throws Exception {
        csv("x.csv", "x", 400, i -> i % 7);
        List<String> all =
                new ArrayList<>(List.of("spectrum", folder.resolve("x.csv").toString()));
        if (!words.contains("--column")) {
            all.addAll(List.of("--column", "x"));
        }
        if (!words.contains("--rate")) {
            all.addAll(List.of("--rate", "100"));
        }
        all.addAll(List.of(words.split(" ")));
        all.add("--json");
        Said ran = Said.zesty(all.toArray(String[]::new));
        assertThat(ran.status()).isEqualTo(2);
        assertThat(ran.err().lines()).singleElement().asString().contains(said);
        assertThat(ran.out()).isEmpty();
    }

    @Test
    void whatIsFarTooLongIsRefusedAndAColumnCalledTStandsBesideTheTime() throws Exception {
        Path rig = folder.resolve("long.json");
        csv("t.csv", "t,x", 50, i -> i / 10.0, i -> i);
        Path out = folder.resolve("cleaned.csv");
        assertThat(Said.zesty(
                                "clean",
                                folder.resolve("t.csv").toString(),
                                "--column",
                                "t",
                                "--recipe",
                                "offset:1",
                                "--out",
                                out.toString())
                        .status())
                .isZero();
        assertThat(Files.readAllLines(out).subList(0, 3)).containsExactly("t,t_board", "0.0,1", "0.1,1.1");
        String formula = "x" + " + x".repeat(20_000);
        org.assertj.core.api.Assertions.assertThatThrownBy(
                        () -> new zesty.signal.core.scale.Formula(formula, java.util.Map.of(), "V"))
                .hasMessageContaining("a formula has at most 2000 signs, this one has");
        assertThat(rig).doesNotExist();
    }

    @Test
    void tuningFindsTheThresholdForTheTrueEvents() throws Exception {
        StringBuilder knocks = new StringBuilder("t,knock\n");
        StringBuilder truth = new StringBuilder("t\n");
        for (int i = 0; i < 10_000; i++) {
            // Every second a knock of 100 counts, half a second later one of 30 that does not count.
            double since = i % 1000 / 1000.0;
            double value = 100 * Math.exp(-since / 0.02) + (since >= 0.5 ? 30 * Math.exp(-(since - 0.5) / 0.02) : 0);
            knocks.append(i / 1000.0).append(',').append(value).append('\n');
            if (i % 1000 == 0 && i > 0) {
                truth.append(i / 1000.0).append('\n');
            }
        }
        String file = Files.writeString(folder.resolve("knocks.csv"), knocks).toString();
        String true1 = Files.writeString(folder.resolve("truth.csv"), truth).toString();
        JsonNode told = Said.zesty("tune", file, "--column", "knock", "--truth", true1, "--within", "0.05", "--json")
                .json();
        List<String> keys = new ArrayList<>();
        told.fieldNames().forEachRemaining(keys::add);
        assertThat(keys).containsExactly("threshold", "release", "dead_s", "found", "missed", "false", "f1", "margin");
        assertThat(told.get("threshold").asDouble()).isBetween(30.0, 100.0);
        assertThat(told.get("found").asInt()).isEqualTo(9);
        assertThat(told.get("missed").asInt()).isZero();
        assertThat(told.get("margin").get(0).asDouble()).isGreaterThanOrEqualTo(29.9);
        assertThat(told.get("margin").get(1).asDouble()).isBetween(80.0, 100.0);
        Said none = Said.zesty("tune", file, "--column", "knock", "--json");
        assertThat(none.status()).isEqualTo(2);
        assertThat(none.err()).contains("--truth TRUTH.csv");
        Said wrong = Said.zesty("tune", file, "--column", "knock", "--truth", file, "--within", "-1");
        assertThat(wrong.status()).isEqualTo(2);
        assertThat(wrong.err()).contains("--within is a time above 0 s, was -1");
    }
}
