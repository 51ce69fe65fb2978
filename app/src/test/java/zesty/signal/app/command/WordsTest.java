package zesty.signal.app.command;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.ByteArrayOutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zesty.signal.boards.sim.SimulatedBoard;
import zesty.signal.boards.sim.SimulatedBoards;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.rig.Caution;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.core.scale.Scaling;
import zesty.signal.takes.RigJson;

/** What commands answer, asked in this process; the answers are known on paper or from published tables. */
@Timeout(240)
class WordsTest {
    @TempDir
    Path folder;

    @ParameterizedTest
    @CsvSource({
        // Counts: volts are counts · 5 / 1024.
        "linear10mv 153,74.70703125,1e-12",
        "linear10mv 153 --set offset=0.5,24.70703125,1e-12",
        "linear10mv 153 --set steps=1023 --set ref=3.3,49.35483870967742,1e-12",
        "ntc-beta 512,25,1e-9",
        "ntc-beta 512 --set side=high,25,1e-9",
        "ntc-beta 10000 --set input=ohms,25,1e-9",
        "ntc-beta 2500 --set input=ohms --set beta=3435 --set t0=20,59.3362,0.001",
        "divider 1023 --set top=30000 --set bottom=7500,24.9755859375,1e-12",
        "shunt 512 --set gain=20,1.25,1e-12",
        "shunt 512 --set gain=20 --set zero=2.5,0,1e-12",
        "hall-current 717 --set sensitivity=0.1,10.009765625,1e-12",
        "hall-current 2048 --set sensitivity=0.066 --set bits=12 --set ref=3.3,0,1e-12",
        // Millivolts against the published tables, which are to 1 µV: 0.06 °C.
        "thermocouple-k 4.096,100,0.06",
        "thermocouple-k -5.891,-200,0.06",
        "thermocouple-k 3.298 --set cold=20,100,0.06",
        "thermocouple-j 5.269,100,0.06",
        "thermocouple-t 4.279,100,0.06",
        "thermocouple-e 6.319,100,0.06",
        "thermocouple-n 2.774,100,0.06",
        "thermocouple-s 9.587,1000,0.06",
        "thermocouple-r 10.506,1000,0.06",
        "thermocouple-b 4.834,1000,0.06",
        // Half of 5831 µs at 343.2 m/s; the standard atmosphere has 898.75 hPa at 1000 m.
        "echo-distance 5831,1.00064,1e-4",
        "echo-distance 5831 --set temp=0,0.96590515,1e-8",
        "pressure-altitude 1013.25,0,1e-9",
        "pressure-altitude 898.746,1000,0.1",
        "pressure-altitude 1000 --set sea=1000,0,1e-9"
    })
    void conversionsGiveWhatTheTablesSay(String words, double expected, double near) throws Exception {
        List<String> line = new ArrayList<>(List.of("convert"));
        line.addAll(List.of(words.split(" ")));
        line.add("--json");
        Said said = Said.zesty(line.toArray(String[]::new));
        assertThat(said.status()).as(said.err()).isZero();
        assertThat(said.json().path("values").get(0).asDouble()).isCloseTo(expected, within(near));
        assertThat(said.json().path("kind").asText()).isEqualTo(words.split(" ")[0]);
        assertThat(said.json().path("unit").asText()).isNotEmpty();
    }

    @Test
    void severalValuesAreConvertedAtOnceOrNoneOfThem() throws Exception {
        JsonNode json = Said.zesty("convert", "thermocouple-k", "0", "4.096", "-5.891", "--json")
                .json();
        assertThat(json.path("values")).hasSize(3);
        assertThat(json.path("values").get(2).asDouble()).isCloseTo(-200, within(0.06));
        assertThat(json.path("unit").asText()).isEqualTo("°C");
        Said beyond = Said.zesty("convert", "thermocouple-k", "0", "99", "--json");
        assertThat(beyond.status()).isEqualTo(2);
        assertThat(beyond.err())
                .contains("99 mV is outside type K: with this cold junction it takes -6.458 to 54.886 mV");
        assertThat(beyond.out()).isEmpty();
        assertThat(Said.zesty("convert", "divider", "0", "--set", "top=1", "--set", "bottom=1")
                        .out()
                        .strip())
                .isEqualTo("0 V");
    }

    @ParameterizedTest
    @CsvSource({
        // Points (1,2) (2,3) (3,5), worked by hand.
        "line,'0.333333333333 1.5',0.235702260396,0.333333333333",
        "ratio,'0 1.642857142857',0.267261241912,0.357142857143",
        "offset,'1.333333333333 1',0.471404520791,0.666666666667",
        "quadratic,'2 -0.5 0.5',0,0"
    })
    void fitsAreTheOnesWorkedByHand(String model, String coefficients, double rms, double most) throws Exception {
        Path points = Files.writeString(folder.resolve("points.csv"), "raw,reference\n1,2\n2,3\n3,5\n");
        JsonNode json = Said.zesty("calibrate", points.toString(), "--model", model, "--json")
                .json();
        String[] expected = coefficients.split(" ");
        assertThat(json.path("coefficients")).hasSize(expected.length);
        for (int i = 0; i < expected.length; i++) {
            assertThat(json.path("coefficients").get(i).asDouble())
                    .isCloseTo(Double.parseDouble(expected[i]), within(1e-9));
        }
        assertThat(json.path("rms_residual").asDouble()).isCloseTo(rms, within(1e-9));
        assertThat(json.path("max_residual").asDouble()).isCloseTo(most, within(1e-9));
        assertThat(json.path("r2").asDouble()).isBetween(0.7, 1.0);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '!',
            value = {
                "convert linear10mw 5!no conversion is called 'linear10mw'",
                "convert linear10mv five!'five'",
                "convert linear10mv 5 --set refs=3!refs",
                "convert linear10mv 5 --set ref=0!--set ref must be above 0 V, was 0",
                "convert linear10mv 5 --set bits=40!bits",
                "convert ntc-beta 5 --set side=left!side is low or high, was 'left'",
                "convert divider 5!top",
                "convert linear10mv!needs a value",
                "calibrate DIR/one.csv --model quadratic!at least two",
                "calibrate DIR/same.csv --model line!points that differ",
                "calibrate DIR/three.csv --model cubic!needs 4 points that differ, there are 3",
                "calibrate DIR/three.csv --model bent!'bent'",
                "calibrate DIR/text.csv!line 3, column reference: 'much' where a number should be",
                "calibrate DIR/named.csv!no column 'raw'; it has a, b",
                "record sim:deck --rig DIR/body.json --out DIR/o.zest!DIR/body.json is no rig",
                "record tcp:board:7070 --rig DIR/pulse.json --out DIR/o.zest!computer off its charger",
                "record sim:deck --rig DIR/where.json --out DIR/o.zest!none of the known kinds",
                "decode DIR/three.csv --format DIR/one.csv!one.csv"
            })
    void wrongWordsAreOneLineAndStatusTwo(String words, String said) throws Exception {
        Files.writeString(folder.resolve("one.csv"), "raw,reference\n1,2\n");
        Files.writeString(folder.resolve("same.csv"), "raw,reference\n1,2\n1,3\n");
        Files.writeString(folder.resolve("three.csv"), "raw,reference\n1,2\n2,3\n3,5\n");
        Files.writeString(folder.resolve("text.csv"), "raw,reference\n1,2\n2,much\n");
        Files.writeString(folder.resolve("named.csv"), "a,b\n1,2\n2,3\n");
        Files.writeString(folder.resolve("body.json"), "{}");
        Rig pulse = Rig.blank("r", "sim:deck")
                .withChannels(List.of(new Channel("pulse", "pulse", Scaling.asItCame(""), Recipe.NONE, true)))
                .withReader(ReaderSetup.on("pulse", "pulse", java.util.Map.of()));
        Files.writeString(folder.resolve("pulse.json"), RigJson.write(pulse));
        Rig where = Rig.blank("r", "sim:deck").joined("x", SourceSetup.at("nowhere:1"));
        Files.writeString(folder.resolve("where.json"), RigJson.write(where));
        Said ran = Said.zesty(words.replace("DIR", folder.toString()).split(" "));
        assertThat(ran.status()).as(ran.err() + ran.out()).isEqualTo(2);
        assertThat(ran.err().lines())
                .as(ran.err())
                .singleElement()
                .asString()
                .contains(said.replace("DIR", folder.toString()));
        assertThat(ran.out()).isEmpty();
        assertThat(folder.resolve("o.zest")).doesNotExist();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '!',
            value = {
                "clean in.csv --column x --recipe lowpass:60@2 --out o.csv!must be below 50 Hz",
                "clean in.csv --column y --recipe mean:3 --out o.csv!no column 'y'; it has t, x, label",
                "clean in.csv --column label --recipe mean:3 --out o.csv!line 2, column label: 'a' where a number",
                "clean in.csv --column x --rate -5 --recipe mean:3 --out o.csv!--rate must be above 0",
                "clean in.csv --column x --rate fast --recipe mean:3 --out o.csv!--rate must be a number, was 'fast'",
                "clean in.csv --column x --recipe mean:3 --both-ways --once-through --out o.csv!mutually exclusive",
                "clean no.csv --column x --recipe mean:3 --out o.csv!no.csv is not there",
                "clean empty.csv --column x --recipe mean:3 --out o.csv!is empty",
                "clean one.csv --column x --rate 9 --recipe mean:3 --out o.csv!holds one row",
                "extract pulse in.csv --column x --set knd=optical --json!no setting is called 'knd'; there is kind",
                "extract pulse in.csv --column x --set kind=radio --json!kind takes optical or electrical, was 'radio'",
                "extract pulse in.csv --column x --rate 10 --json!needs 20 to 100000 samples/s, not 10",
                "extract puls in.csv --column x --json!no extractor is called 'puls'",
                "decode empty.csv!is empty",
                "decode in.csv --format morse!no format is called 'morse'",
                "record usb:1 --out o.zest!none of the known kinds",
                "record sim:deck --out o.zest --for soon!'soon' is no duration",
                "record sim:deck --out o.csv --for 1s!must end in .zest",
                "simulate boat!no simulated board is called 'boat'",
                "simulate deck --sped 2!simulate does not take '--sped'; it takes --tcp, --seed, --for, --speed",
                "info in.csv!is no take",
                "export in.csv --to o.csv!is no take"
            })
    void wrongWordsAboutFilesAreOneLineAndWriteNothing(String words, String said) throws Exception {
        Files.writeString(folder.resolve("in.csv"), "t,x,label\n0,1,a\n0.01,2,b\n0.02,3,c\n");
        Files.writeString(folder.resolve("one.csv"), "x\n1\n");
        Files.writeString(folder.resolve("empty.csv"), "");
        Said ran = Said.in(folder, words);
        assertThat(ran.status()).as(ran.err()).isEqualTo(2);
        assertThat(ran.err().lines()).as(ran.err()).singleElement().asString().contains(said);
        assertThat(ran.out()).isEmpty();
        assertThat(folder.resolve("o.csv")).doesNotExist();
        assertThat(folder.resolve("o.zest")).doesNotExist();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '!',
            value = {
                "info text.zest!2!text.zest is no take, or cannot be read: it is not the file of a take",
                "info folder.zest!2!folder.zest is a folder, no take",
                "decode folder.zest!2!folder.zest is a folder; a file of bytes is needed",
                "clean in.csv --column a --rate 9 --recipe mean:3 --out in.csv!2!in.csv is what is read, under this or another name",
                "clean in.csv --column a --rate 9 --recipe mean:3 --out take.zest!2!take.zest is there already",
                "export take.zest --to in.csv!2!in.csv is there already",
                "record file:rows.txt --out take.zest!2!take.zest is there already",
                "clean huge.csv --column a --rate 9 --recipe mean:3 --out o.csv!2!longer than 16 million signs",
                "calibrate far.csv --json!2!too large or differ too much to be fitted",
                "record tcp:127.0.0.1:1 --out o.zest!1!does not answer (nobody listens there)",
                "record tcp:*x:7070 --out o.zest!2!write tcp:*@ADDRESS:PORT"
            })
    void badFilesAreToldInOurOwnWords(String words, int status, String said) throws Exception {
        Files.writeString(folder.resolve("text.zest"), "this is no take\n".repeat(300));
        Files.createDirectory(folder.resolve("folder.zest"));
        Files.writeString(folder.resolve("in.csv"), "a\n1\n2\n3\n4\n");
        Files.writeString(folder.resolve("far.csv"), "raw,reference\n1e308,1\n-1e308,2\n5e307,1e308\n");
        Files.writeString(folder.resolve("rows.txt"), "1,2\n".repeat(10_000));
        if (words.contains("huge")) {
            Files.writeString(folder.resolve("huge.csv"), "a\n1\n" + "9".repeat(17_000_000) + "\n");
        }
        Files.writeString(folder.resolve("take.zest"), "somebody's");
        Said ran = Said.in(folder, words);
        assertThat(ran.err().lines()).singleElement().asString().contains(said);
        assertThat(ran.status()).isEqualTo(status);
        assertThat(ran.out()).isEmpty();
        assertThat(ran.err()).doesNotContain("Exception", "java.", "SQL");
        assertThat(folder.resolve("take.zest")).hasContent("somebody's");
        assertThat(folder.resolve("in.csv")).hasContent("a\n1\n2\n3\n4\n");
        assertThat(folder.resolve("o.csv")).doesNotExist();
        assertThat(folder.resolve("o.zest")).doesNotExist();
    }

    @Test
    void aTitleIsShownAndNotObeyedByTheTerminal() throws Exception {
        Path rows = Files.writeString(folder.resolve("rows.txt"), "1,2\n".repeat(10_000));
        String take = folder.resolve("red\u001b[31m\u0007.zest").toString();
        assertThat(Said.zesty("record", "file:" + rows, "--out", take).status()).isZero();
        Said info = Said.zesty("info", take);
        assertThat(info.status()).isZero();
        assertThat(info.out()).doesNotContain("\u001b").contains("red\u241b[31m\u2407");
    }

    private Path capture(String board, int frames) throws Exception {
        SimulatedBoard simulated = SimulatedBoards.create(board, 1);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.writeBytes(simulated.greeting());
        for (int i = 0; i < frames; i++) {
            simulated.next(out);
        }
        return Files.write(folder.resolve(board + ".bin"), out.toByteArray());
    }

    @ParameterizedTest
    @CsvSource({
        "hull,cobs,300",
        "forearm,frames,300",
        "masthead,labelled,60",
        "locker,sentence,60",
        "cupboard,json,60",
        "hoist,delimited,60",
        "barometer,registers,60"
    })
    void anyBoardsCaptureIsDecodedToTheNumbersItSent(String board, String kind, int frames) throws Exception {
        SimulatedBoard truth = SimulatedBoards.create(board, 1);
        truth.greeting();
        List<double[]> sent = new ArrayList<>();
        for (int i = 0; i < frames; i++) {
            truth.next(new ByteArrayOutputStream());
            sent.addAll(List.of(truth.newest()));
        }
        JsonNode json = Said.zesty("decode", capture(board, frames).toString(), "--json")
                .json();
        assertThat(json.path("format").asText()).isEqualTo(kind);
        int columns = truth.columns().size();
        assertThat(json.path("columns")).hasSize(columns);
        for (int c = 0; c < columns; c++) {
            JsonNode values = json.path("columns").get(c).path("values");
            // What stands at the end without an ending is kept for later.
            assertThat(values.size()).isBetween(sent.size() - 2, sent.size());
            int ahead = sent.size() - values.size();
            for (int row = 0; row < values.size(); row++) {
                double expected = sent.get(row)[c];
                JsonNode value = values.get(row);
                assertThat(value.isNull() ? Double.NaN : value.asDouble())
                        .as(
                                "%s row %d of %s, %d ahead",
                                json.path("columns").get(c).path("name"), row, board, ahead)
                        .isEqualTo(expected);
            }
        }
    }

    @Test
    void aRigOfTwoSourcesIsRecordedToldAndExported() throws Exception {
        Rig two = Rig.blank("two", "sim:deck").joined("hoist", SourceSetup.at("sim:hoist"));
        Files.writeString(folder.resolve("two.json"), RigJson.write(two.acknowledging(Caution.LOAD)));
        Path take = folder.resolve("two.zest");
        Said recorded = Said.zesty(
                "record",
                "sim:deck",
                "--rig",
                folder.resolve("two.json").toString(),
                "--for",
                "5s",
                "--out",
                take.toString());
        assertThat(recorded.status()).as(recorded.err()).isZero();
        JsonNode info = Said.zesty("info", take.toString(), "--json").json();
        assertThat(info.path("channels")).hasSize(8);
        assertThat(info.path("channels").get(1).path("name").asText()).isEqualTo("pulse");
        assertThat(info.path("channels").get(1).path("rate_hz").asDouble()).isCloseTo(200, within(1.0));
        assertThat(info.path("channels").get(7).path("name").asText()).isEqualTo("hoist/load");
        assertThat(info.path("channels").get(7).path("rate_hz").asDouble()).isCloseTo(10, within(0.5));
        assertThat(Said.zesty(
                                "export",
                                take.toString(),
                                "--to",
                                folder.resolve("two.csv").toString())
                        .status())
                .isZero();
        assertThat(Files.readAllLines(folder.resolve("two.csv")).get(0)).startsWith("t,t_us,pulse");
        assertThat(Files.readAllLines(folder.resolve("two-2.csv")).get(0)).isEqualTo("t,hoist/t_ms,hoist/load");
        Said cleaned = Said.zesty(
                "clean",
                take.toString(),
                "--column",
                "hoist/load",
                "--recipe",
                "median:3",
                "--out",
                folder.resolve("c.csv").toString());
        assertThat(cleaned.status()).as(cleaned.err()).isZero();
    }
}
