package zesty.signal.app.command;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.JsonNode;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zesty.signal.core.plan.Draft;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.kinds.ReaderKinds;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.Source;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.core.sample.Gap;
import zesty.signal.exchange.portable.PortableBoard;
import zesty.signal.exchange.portable.SourceFiles;
import zesty.signal.takes.RigJson;
import zesty.signal.takes.Take;

/** What is written of a plan for a board goes through a C compiler that forgives nothing, and sends what was planned. */
@Timeout(240)
class PlannedBoardCodeTest {
    @TempDir
    Path folder;

    private CCompiler compiler;

    @BeforeEach
    void compiler() {
        compiler = new CCompiler(folder);
    }

    /** A clock of its own that wraps, steps of 90 µs with a long pause now and then, and channels that count their readings. */
    private static final String HARNESS =
            """
            #include "board.h"
            #include <stdio.h>
            static uint32_t us = 4294960000u;
            static int32_t reads;
            uint32_t board_micros(void) { return us; }
            int32_t board_read(uint8_t channel) { return channel == 0 ? reads++ : -channel; }
            void board_write(const uint8_t *bytes, uint16_t n) { fwrite(bytes, 1, n, stdout); }
            int main(void)
            {
                long i;
                board_begin();
                for (i = 0; i < %d; i++) {
                    board_poll();
                    us += i %% 50000 == 49999 ? 250000u : 90u;
                }
                fprintf(stderr, "%%lu\\n", (unsigned long)board_dropped());
                return 0;
            }
            """;

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "100 | t_us=1234567,load=512;n=-3~ | 3",
                "333 | {\"ms\": 123.456, \"load\": 5, \"dropped\": 0}~ | 3",
                "50 | 12345678\t17~ | 2",
                "20 | t 12.50 load 7~ | 2",
                "1000 | load: 99 lbs?? 5% \\done~ | 2",
                "0.5 | t_ms;1200;500~ | 2"
            })
    void aPlannedBoardSendsItsRowsAtItsRateOverEveryWrapAndCountsWhatItDropped(double rate, String text, int numbers)
            throws Exception {
        Path plan = folder.resolve("plan.json");
        String row = new com.fasterxml.jackson.databind.ObjectMapper().writeValueAsString(text.replace("~", "\r\n"));
        Files.writeString(plan, "{\"row\":{\"rate_hz\":" + rate + ",\"text\":" + row + "}}");
        Path code = folder.resolve("code");
        Said said = Said.zesty("plan", plan.toString(), "--board", code.toString(), "--json");
        assertThat(said.json().path("rate").path("nyquist_hz").asDouble()).isEqualTo(rate / 2);
        long steps = (long) Math.min(2_000_000, 4000 / rate / 90e-6);
        Files.writeString(code.resolve("main.c"), String.format(Locale.ROOT, HARNESS, steps));
        String program = compiler.compiled(code);
        List<String> lines = compiler.run("", program).lines().toList();
        long dropped =
                Long.parseLong(Files.readString(folder.resolve("errors.txt")).strip());
        long pauses = steps / 50_000;
        double seconds = ((steps - 1) * 90.0 + pauses * (250_000.0 - 90)) * 1e-6;
        // Rows sent and rows dropped are together as many as were due, to the row at either end.
        assertThat(lines.size() + dropped).isCloseTo(Math.round(seconds * rate), within(1L + pauses));
        assertThat(dropped > 0).isEqualTo(pauses > 0 && rate > 8);
        String pattern = java.util.regex.Pattern.quote(text.replace("~", ""))
                .replaceAll("-?\\d+(\\.\\d+)?", "\\\\E(-?\\\\d+(?:\\\\.\\\\d+)?)\\\\Q");
        assertThat(lines).allMatch(one -> one.matches(pattern));
        if (text.startsWith("t_us")) {
            double[] us = lines.stream()
                    .mapToDouble(one -> Double.parseDouble(one.replaceAll("\\D+(\\d+),.*", "$1")))
                    .toArray();
            long odd = 0;
            for (int i = 1; i < us.length; i++) {
                double step = us[i] - us[i - 1];
                assertThat(step).as("row %d", i).isPositive();
                odd += step < 9_800 || step > 10_200 ? 1 : 0;
            }
            // The wrap of 32 bits is no step back; a pause makes one row late and the next keeps its own due time.
            assertThat(odd).isLessThanOrEqualTo(2 * pauses);
            assertThat(us[us.length - 1]).isGreaterThan(4_294_967_296.0);
            Files.writeString(folder.resolve("sent.txt"), String.join("\n", lines) + "\n");
            JsonNode decoded = Said.zesty("decode", folder.resolve("sent.txt").toString(), "--json")
                    .json();
            assertThat(decoded.path("columns")).hasSize(numbers);
            assertThat(decoded.path("rejected").asInt()).isZero();
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "{\"row\":{\"rate_hz\":100,\"text\":\"hello\"}} | the row's text has 0 numbers for channels",
                "{\"row\":{\"rate_hz\":100,\"bytes\":8}} | an odd number from 9 on; was 8",
                "{\"line\":{\"baud\":9600}} | a board's code needs the plan's row",
                "{\"row\":{\"rate_hz\":0,\"bytes\":9}} | row.rate_hz must be above 0",
                "{\"rows\":{}} | \"rows\" is no key of a plan",
                "{\"row\":{\"rate_hz\":100,\"bytes\":9},\"recipe\":\"lowpass:80@2\"} | lowpass:80@2"
            })
    void aPlanThatCannotBeIsRefusedByName(String text, String message) throws Exception {
        Path plan = folder.resolve("plan.json");
        Files.writeString(plan, text);
        Said said = Said.zesty(
                "plan", plan.toString(), "--board", folder.resolve("code").toString());
        assertThat(said.status()).as(said.err()).isEqualTo(2);
        assertThat(said.err()).contains(message);
        assertThat(folder.resolve("code")).doesNotExist();
    }

    /**
     * A planned board at the end of a cable. Told a time, it runs by a clock of its own that wraps after 7 s, in steps of 45 µs, and stands
     * still now and then; told none, by the machine's. Of each row it notes how many were dropped before it.
     */
    private static final String SENSOR =
            """
            #define _POSIX_C_SOURCE 199309L
            #include "board.h"
            #include <math.h>
            #include <stdio.h>
            #include <stdlib.h>
            #include <time.h>
            static uint32_t us = 4287967296u;
            static int stepped;
            static FILE *notes;
            uint32_t board_micros(void)
            {
                struct timespec now;
                if (stepped) {
                    return us;
                }
                clock_gettime(CLOCK_MONOTONIC, &now);
                return (uint32_t)now.tv_sec * 1000000u + (uint32_t)(now.tv_nsec / 1000);
            }
            int32_t board_read(uint8_t channel)
            {
                return (int32_t)(512.0 + 300.0 * sin(board_micros() * 1e-6 * (5 + channel)) + (rand() %% 5));
            }
            void board_write(const uint8_t *bytes, uint16_t n)
            {
                fwrite(bytes, 1, n, stdout);
                fprintf(notes, "%%lu %%lu\\n", (unsigned long)board_dropped(), (unsigned long)board_micros());
                if (!stepped) {
                    fflush(stdout);
                    fflush(notes);
                }
            }
            int main(int argc, char **argv)
            {
                struct timespec nap = {0, 300000};
                struct timespec pause = {0, 130000000};
                double seconds = argc > 2 ? atof(argv[2]) : 0;
                long i;
                notes = fopen(argv[1], "w");
                stepped = seconds > 0;
                board_begin();
                for (i = 0; !stepped || i * 45e-6 < seconds; i++) {
                    board_poll();
                    us += i %% 700000 == 699999 ? 250000u : 45u;
                    if (!stepped) {
                        nanosleep(i %% 3000 == 2999 ? &pause : &nap, NULL);
                    }
                }
                return fclose(notes);
            }
            """
                    .replace("%%", "%");

    private static List<Integer> dropped(Path notes) throws Exception {
        return noted(notes, 0).stream().map(Long::intValue).toList();
    }

    /** @return of each row that a board sent how many were dropped before it, or when it was sent, in its own microseconds */
    private static List<Long> noted(Path notes, int which) throws Exception {
        // The last line may be half written.
        String text = Files.readString(notes);
        return text.substring(0, text.lastIndexOf('\n'))
                .lines()
                .map(line -> Long.parseLong(line.split(" ")[which]))
                .toList();
    }

    /**
     * Twelve plans as the planner makes them, text and packets: ten minutes by a clock of the test's own, then all at once through cables
     * at the machine's time. Their streams are recognised with rate and channels without a word typed, and what was dropped is counted.
     */
    @Test
    void whatPlannedBoardsSendIsRecognisedAndCountedWithoutAWord() throws Exception {
        Random random = new Random(28);
        ReaderKind kind = ReaderKinds.of("level");
        List<Draft> drafts = new ArrayList<>();
        List<Process> cables = new ArrayList<>();
        try {
            for (int k = 0; k < 12; k++) {
                Draft draft = Draft.of(kind.name(), kind.needs().get(0), "")
                        .withRate(Math.rint(20 * Math.pow(20, random.nextDouble())))
                        .withChannels(1 + random.nextInt(5))
                        .withLine(1_000_000, k % 2 == 1);
                drafts.add(draft);
                Path code = folder.resolve("plan" + k);
                SourceFiles.write(code, PortableBoard.files(draft.plan()));
                Files.writeString(code.resolve("main.c"), SENSOR);
                Path board = Path.of(compiler.compiled(code));
                Files.move(board, folder.resolve("board" + k));
                tenMinutes(k, draft);
            }
            // A rig has eight sources at most.
            long all = through(cables, drafts, 0, 6) + through(cables, drafts, 6, 12);
            assertThat(all).isGreaterThan(100);
        } finally {
            cables.forEach(Process::destroy);
        }
    }

    /** Records some of the boards at once. @return how many rows were missing, of each as many as it dropped */
    private long through(List<Process> cables, List<Draft> drafts, int from, int to) throws Exception {
        List<Source> sources = new ArrayList<>();
        for (int k = from; k < to; k++) {
            String address = "serial:" + folder.resolve("cable" + k) + "@1000000";
            sources.add(new Source(k == from ? "" : "board" + k, SourceSetup.at(address), null));
        }
        Path rig = folder.resolve("cables.json");
        Files.writeString(rig, RigJson.write(new Rig("cables", sources, List.of(), List.of(), List.of(), Set.of())));
        String first = sources.get(0).setup().address();
        for (int k = from; k < to; k++) {
            cables.add(new ProcessBuilder(
                            "socat",
                            "pty,raw,echo=0,link=" + folder.resolve("cable" + k),
                            "EXEC:" + folder.resolve("board" + k) + " " + folder.resolve("notes" + k))
                    .redirectErrorStream(true)
                    .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                    .start());
        }
        String take = folder.resolve("take" + from + ".zest").toString();
        Said said = Said.zesty("record", first, "--rig", rig.toString(), "--for", "6s", "--out", take);
        assertThat(said.status()).as(said.err()).isZero();
        for (Process cable : cables) {
            cable.destroy();
            cable.waitFor();
        }
        cables.clear();
        JsonNode columns = Said.zesty("info", take, "--json").json().path("channels");
        long all = 0;
        try (Take read = Take.open(Path.of(take))) {
            int at = 0;
            for (int k = from; k < to; k++) {
                Draft draft = drafts.get(k);
                // Clock and number are columns of their own before the channels.
                double[] clock = read.column(at);
                double[] numbers = read.column(at + 1);
                for (int c = 0; c < draft.channels() + 2; c++) {
                    JsonNode column = columns.get(at++);
                    assertThat(column.path("rate_hz").asDouble())
                            .as("plan %d of %d channels, %s", k, draft.channels(), columns)
                            // The boards run on this machine, too: a row is as late as a busy one makes it.
                            .isCloseTo(draft.rateHz(), within(0.2 * draft.rateHz()));
                }
                assertThat(numbers.length).isGreaterThan((int) draft.rateHz());
                // The n-th row that a board sent has a number: n and what it had dropped by then.
                List<Integer> dropped = dropped(folder.resolve("notes" + k));
                List<Long> micros = noted(folder.resolve("notes" + k), 1);
                int begun = sentAt(micros, clock[0]);
                int ended = sentAt(micros, clock[clock.length - 1]);
                long truth = dropped.get(ended)
                        - dropped.get(begun)
                        // What was sent before the port was open to the end is lost on the way.
                        + (ended - begun + 1 - numbers.length);
                long missing =
                        read.gaps(k - from).stream().mapToLong(Gap::missing).sum();
                assertThat(missing)
                        .as("plan %d at %s rows/s", k, draft.rateHz())
                        .isEqualTo(truth);
                all += truth;
            }
            assertThat(columns).as(columns.toString()).hasSize(at);
        }
        return all;
    }

    /** @return which row of those a board sent has that clock: the one that was sent soonest after it was read */
    private static int sentAt(List<Long> micros, double clock) {
        int best = 0;
        for (int n = 0; n < micros.size(); n++) {
            best = after(micros.get(n), clock) < after(micros.get(best), clock) ? n : best;
        }
        assertThat(after(micros.get(best), clock))
                .as("clock %.0f among those from %d to %d", clock, micros.get(0), micros.get(micros.size() - 1))
                .isLessThan(1_000_000);
        return best;
    }

    private static long after(long micros, double clock) {
        return micros - (long) clock & 0xFFFFFFFFL;
    }

    /** Whether a board by its own clock sends each row that is due, or counts it. */
    private void tenMinutes(int k, Draft draft) throws Exception {
        Path notes = folder.resolve("stepped" + k);
        compiler.run("", folder.resolve("board" + k).toString(), notes.toString(), "600");
        List<Integer> dropped = dropped(notes);
        int last = dropped.get(dropped.size() - 1);
        // 600 s in steps of 45 µs, nineteen of them 250 ms long.
        double due = (600 + 19 * 0.25) * draft.rateHz();
        assertThat(dropped.size() + last).as("plan %d", k).isCloseTo((int) due, within(3));
        assertThat(last).isCloseTo((int) (19 * 0.25 * draft.rateHz()), within(2 * 19));
    }
}
