package zesty.signal.app.command;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.JsonNode;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.takes.RigJson;
import zesty.signal.takes.Take;

/** Recordings that begin and end on cue, over a file whose every row is known: a saw that climbs from 0 to 99, four times, at 100/s. */
@Timeout(240)
class CueTest {
    @TempDir
    Path folder;

    private String source;

    @BeforeEach
    void saw() throws Exception {
        StringBuilder text = new StringBuilder("t_ms,load,row\n");
        for (int i = 0; i < 400; i++) {
            text.append(i * 10)
                    .append(',')
                    .append(i % 100)
                    .append(',')
                    .append(i)
                    .append('\n');
        }
        Path file = folder.resolve("saw.txt");
        Files.writeString(file, text);
        source = "file:" + file;
    }

    private String at(String name) {
        return folder.resolve(name).toString();
    }

    private int[] rows(String name) throws Exception {
        try (Take take = Take.open(folder.resolve(name))) {
            take.verify();
            assertThat(take.damage()).isEmpty();
            double[] rows = take.column(2);
            assertThat(take.times()[rows.length - 1]).isEqualTo((rows[rows.length - 1] - rows[0]) / 100);
            return new int[] {(int) rows[0], (int) rows[rows.length - 1], rows.length};
        }
    }

    @Test
    void eachClimbIsATakeOfItsOwnFromItsSecondsBeforeToTheRowThatEndsIt() throws Exception {
        Said said = Said.zesty(
                "record",
                source,
                "--out",
                at("climb.zest"),
                "--start-when",
                "load >= 50",
                "--before",
                "200ms",
                "--stop-when",
                "load > 90",
                "--repeat");
        assertThat(said.status()).as(said.err()).isZero();
        assertThat(said.out().lines()).hasSize(5).last().asString().contains("4 takes: 248 rows");
        for (int climb = 0; climb < 4; climb++) {
            String name = climb == 0 ? "climb.zest" : "climb-" + (climb + 1) + ".zest";
            // 50 starts it, 20 rows before, 91 ends it and is in it.
            assertThat(rows(name)).containsExactly(100 * climb + 30, 100 * climb + 91, 62);
        }
        JsonNode info = Said.zesty("info", at("climb-2.zest"), "--json").json();
        assertThat(info.path("title").asText()).isEqualTo("climb-2");
        assertThat(info.path("marks").get(0).path("t_s").asDouble()).isEqualTo(0.2);
        assertThat(info.path("marks").get(0).path("text").asText()).isEqualTo("started: load >= 50");
    }

    @ParameterizedTest
    @CsvSource({
        "--start-when load > 97 --for 30ms, 98, 100, 3",
        "--start-when load > 97 --samples 5 --before 10ms, 97, 102, 6",
        "--start-when row >= 250 --before 60, 0, 399, 400",
        "--stop-when row >= 120, 0, 120, 121",
        "--start-when row <= 0 --stop-when load < 0, 0, 399, 400"
    })
    void timeAndRowsCountFromTheCueAndWhatCameBeforeIsOnTop(String words, int first, int last, int rows)
            throws Exception {
        List<String> line = new ArrayList<>(List.of("record", source, "--out", at("a.zest")));
        // A condition holds blanks: an option's words up to the next option are one value.
        for (String option : words.split(" (?=--)")) {
            line.addAll(List.of(option.split(" ", 2)));
        }
        Said said = Said.zesty(line.toArray(String[]::new));
        assertThat(said.status()).as(said.err()).isZero();
        assertThat(rows("a.zest")).containsExactly(first, last, rows);
    }

    /** A number of a reader is there once it could be read: the take begins then, and says by what. */
    @Test
    void aReadersNumberStartsItToo() throws Exception {
        Path rig = folder.resolve("rig.json");
        Files.writeString(
                rig,
                RigJson.write(Rig.blank("Wren", "sim:deck")
                        .withReader(ReaderSetup.on("pulse", "pulse", Map.of("kind", "optical")))));
        String[] line = {
            "record",
            "sim:deck",
            "--rig",
            rig.toString(),
            "--out",
            at("rate.zest"),
            "--samples",
            "50",
            "--start-when",
            ""
        };
        line[9] = "rate of pulse > 30";
        Said said = Said.zesty(line);
        assertThat(said.status()).as(said.err()).isZero();
        JsonNode info = Said.zesty("info", at("rate.zest"), "--json").json();
        assertThat(info.path("rows").asInt()).isEqualTo(50);
        assertThat(info.path("marks").get(0).path("text").asText()).isEqualTo("started: rate of pulse > 30");
        line[5] = at("none.zest");
        line[9] = "weight of pulse > 30";
        assertThat(Said.zesty(line).err()).contains("the source has no column 'weight of pulse'");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "1 | --start-when | load > 500 | ended before load > 500 came; nothing was recorded",
                "2 | --start-when | pull > 5 | the source has no column 'pull'; it has t_ms, load, row",
                "2 | --start-when | load = 5 | a condition is COLUMN > NUMBER",
                "2 | --stop-when | load > 5d | a condition is COLUMN > NUMBER",
                "2 | --before | 5s | --before needs --start-when or --at",
                "2 | --at | 25:00 | --at is a time of day such as 14:30"
            })
    void whatNeverComesOrMakesNoSenseIsSaidAndNoTakeIsMade(int status, String option, String value, String message) {
        Said said = Said.zesty("record", source, "--out", at("none.zest"), option, value);
        assertThat(said.status()).as(said.err()).isEqualTo(status);
        assertThat(said.err()).contains(message);
        assertThat(folder.resolve("none.zest")).doesNotExist();
    }

    @Test
    void aTakeOfAnotherRecordingIsNeverWrittenOver() throws Exception {
        Files.writeString(folder.resolve("climb-2.zest"), "somebody's");
        Said said = Said.zesty(
                "record", source, "--out", at("climb.zest"), "--start-when", "load > 97", "--samples", "1", "--repeat");
        assertThat(said.status()).as(said.err()).isZero();
        assertThat(folder.resolve("climb-2.zest")).hasContent("somebody's");
        assertThat(said.out()).contains("4 takes: 4 rows");
        assertThat(rows("climb-5.zest")).containsExactly(398, 398, 1);
    }

    /** Killed at any moment, armed or within a take, everything up to the last second is there, and every take opens. */
    @ParameterizedTest
    @CsvSource({"700", "1300", "2100"})
    void killedWhileItRepeatsKeepsEveryTakeWhole(int afterMs) throws Exception {
        Process recording = Run.start(
                folder,
                Run.line(
                        "256m",
                        "record",
                        "sim:deck",
                        "--out",
                        at("beat.zest"),
                        "--start-when",
                        "pulse > 600",
                        "--before",
                        "100ms",
                        "--for",
                        "300ms",
                        "--repeat"));
        Path first = folder.resolve("beat.zest");
        while (!Files.exists(first)) {
            assertThat(recording.isAlive()).isTrue();
            TimeUnit.MILLISECONDS.sleep(20);
        }
        TimeUnit.MILLISECONDS.sleep(afterMs);
        recording.destroyForcibly().waitFor();
        int whole = 0;
        try (var files = Files.list(folder)) {
            for (Path file :
                    files.filter(one -> one.toString().endsWith(".zest")).toList()) {
                Said said = Said.zesty("info", file.toString(), "--json");
                if (said.err().contains("its recording ended before the first row was saved")) {
                    continue;
                }
                JsonNode info = said.json();
                assertThat(info.path("damage")).isEmpty();
                boolean broken = !info.path("mended").asText().isEmpty();
                whole += broken ? 0 : 1;
                assertThat(info.path("rows").asInt()).as("%s", file).satisfies(rows -> assertThat(
                                broken || rows >= 60 && rows <= 81)
                        .isTrue());
            }
        }
        String said = Files.readString(folder.resolve("out.txt"));
        assertThat(whole).isGreaterThanOrEqualTo((int) said.lines().count());
        assertThat(said.lines()).allMatch(line -> line.matches(".*: \\d+ rows, 0\\.\\d+ s"));
    }

    @Test
    void aTableAndADumpBecomeTakesThatAnswerLikeTheirFiles() throws Exception {
        StringBuilder text = new StringBuilder("Zeit [ms];Zug [N]\r\n");
        for (int i = 0; i < 100; i++) {
            text.append(i * 20)
                    .append(';')
                    .append(String.format(Locale.GERMANY, "%.2f", 5.0 + i % 4))
                    .append("\r\n");
        }
        Files.writeString(folder.resolve("sheet.csv"), text);
        Said imported = Said.zesty("import", at("sheet.csv"), "--out", at("sheet.zest"));
        assertThat(imported.err()).contains("a decimal comma").contains("time is column 'Zeit [ms]', by its unit");
        JsonNode ofTake = Said.zesty("extract", "level", at("sheet.zest"), "--raw", "--json")
                .json();
        assertThat(ofTake.path("mean").asDouble()).isCloseTo(6.5, within(1e-12));
        assertThat(Said.zesty("extract", "level", at("sheet.csv"), "--column", "Zug", "--json")
                        .json()
                        .path("mean")
                        .asDouble())
                .isCloseTo(6.5, within(1e-12));
        for (String format : List.of("csv", "edf", "h5", "npz", "wav")) {
            String out = at("back." + format);
            assertThat(Said.zesty("export", at("sheet.zest"), "--to", out).status())
                    .isZero();
            JsonNode back = Said.zesty("extract", "level", out, "--column", "Zug", "--json")
                    .json();
            assertThat(back.path("mean").asDouble()).as(format).isCloseTo(6.5, within(1e-12));
            assertThat(back.path("samples").asInt()).as(format).isEqualTo(100);
        }
        Files.writeString(folder.resolve("kept.txt"), "temp:\n20.5\n21\nvolts:\n3.1\n");
        Said refused = Said.zesty("import", at("kept.txt"), "--out", at("kept.zest"), "--layout", "blocks");
        assertThat(refused.status()).isEqualTo(2);
        assertThat(refused.err()).contains("volts is 1 short");
        Files.writeString(folder.resolve("kept.txt"), "20.5 21\n3.1 3.2\n");
        assertThat(Said.zesty(
                                "import",
                                at("kept.txt"),
                                "--out",
                                at("kept.zest"),
                                "--layout",
                                "blocks",
                                "--columns",
                                "temp,volts",
                                "--period",
                                "600",
                                "--start",
                                "2026-05-02T10:00:00Z")
                        .status())
                .isZero();
        JsonNode info = Said.zesty("info", at("kept.zest"), "--json").json();
        assertThat(info.path("started").asText()).isEqualTo("2026-05-02T10:00:00Z");
        assertThat(info.path("seconds").asDouble()).isEqualTo(600);
    }
}
