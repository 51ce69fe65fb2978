package zesty.signal.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.plan.Draft;
import zesty.signal.core.plan.Plan;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.kinds.ReaderKinds;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.Gap;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.core.scale.Scaling;
import zesty.signal.exchange.report.Report;
import zesty.signal.takes.TakeWriter;

/** Takes that came out as planned, and otherwise, held against their plan; and the page of a plan. */
class PlannedAgainstTest {
    @TempDir
    Path folder;

    private static Draft plan() {
        ReaderKind kind = ReaderKinds.of("level");
        return Draft.of(kind.name(), kind.needs().get(0), "mean:5")
                .withRate(100)
                .withChannels(2)
                .withConverter(new Plan.Converter(10, 5, 1, 1))
                .withSignal(1, "mean:5", List.of());
    }

    private Map<String, PlannedAgainst.Row> against(
            String name, double rate, double noise, double swing, int lost, String recipe, int channels)
            throws Exception {
        Random random = new Random(4);
        int n = 4000;
        double[][] rows = new double[channels][n];
        for (int i = 0; i < n; i++) {
            double slow = 512 + swing / 2 * Math.sin(2 * Math.PI * 0.07 * i / rate);
            for (int c = 0; c < channels; c++) {
                rows[c][i] = Math.rint(slow + noise * random.nextGaussian());
            }
        }
        List<Column> columns = new ArrayList<>();
        List<Channel> all = new ArrayList<>();
        for (int c = 0; c < channels; c++) {
            columns.add(new Column("x" + c, ""));
            all.add(new Channel("x" + c, "x" + c, Scaling.asItCame(""), Recipe.parse(c == 0 ? recipe : ""), true));
        }
        Path file = folder.resolve(name + ".zest");
        Rig rig = new Rig(
                "Wren", SourceSetup.at("stdin"), new DelimitedFormat(',', false, false, "", columns, null), all);
        try (TakeWriter writer = TakeWriter.create(file, name, rig, Instant.EPOCH)) {
            double[] seconds = new double[n];
            List<Gap> gaps = new ArrayList<>();
            double t = 0;
            for (int i = 0; i < n; i++) {
                if (lost > 0 && i == n / 2) {
                    gaps.add(new Gap(t - 1 / rate, t + lost / rate, lost));
                    t += lost / rate;
                }
                seconds[i] = t;
                t += 1 / rate;
            }
            TimeBase time = lost > 0 ? new TimeBase.Explicit(seconds) : new TimeBase.Steady(0, 1 / rate);
            writer.append(new Block(time, rows, n, gaps));
            writer.finish();
        }
        return PlannedAgainst.of(file, plan()).stream()
                .collect(Collectors.toMap(PlannedAgainst.Row::name, Function.identity()));
    }

    @Test
    void aTakeThatCameOutAsPlannedHasNothingToExplain() throws Exception {
        // 1 V of 5/1024 V a count are 205 counts; noise of 1 count, rounded, is 1.04.
        Map<String, PlannedAgainst.Row> rows = against("well", 100, 1, 205, 0, "mean:5", 2);
        assertThat(rows.values())
                .hasSize(6)
                .allSatisfy(
                        row -> assertThat(row.asPlanned()).as(row.toString()).isTrue())
                .allSatisfy(row -> assertThat(row.why()).isEmpty());
        assertThat(rows.get("rate").planned()).isEqualTo("100 rows/s");
        assertThat(rows.get("noise").planned()).isEqualTo("1 counts RMS");
    }

    @Test
    void whatCameOutOtherwiseIsNamedWithWhatExplainsIt() throws Exception {
        Map<String, PlannedAgainst.Row> rows = against("ill", 92, 6, 60, 40, "mean:50", 3);
        assertThat(rows.values()).noneMatch(PlannedAgainst.Row::asPlanned);
        assertThat(rows.get("rate").why()).startsWith("slower: the board waits a fixed time");
        assertThat(rows.get("noise").why()).startsWith("more: hum");
        assertThat(rows.get("swing").why()).startsWith("less: check gain");
        assertThat(rows.get("lost rows").why()).startsWith("the line is too full");
        assertThat(rows.get("delay of the recipe").why()).startsWith("the take's recipe");
        assertThat(rows.get("channels").real()).isEqualTo("3");
        Map<String, PlannedAgainst.Row> other = against("quick", 120, 0.2, 900, 0, "mean:5", 2);
        assertThat(other.get("rate").why()).startsWith("faster");
        assertThat(other.get("noise").why()).startsWith("less: the board averages");
        assertThat(other.get("swing").why()).startsWith("more: a larger signal");
    }

    /** The page says what is planned, each budget, the wiring to tick and the cautions. */
    @Test
    void thePageOfAPlanHasAllOfIt() {
        ReaderKind pulse = ReaderKinds.of("pulse");
        Draft draft = Draft.of("pulse", pulse.needs().get(0), "bandpass:0.5..8@2");
        Report report = PlanReport.of(draft, Instant.EPOCH);
        Report.Section section = report.sections().get(0);
        assertThat(report.title()).isEqualTo("Plan: Pulse");
        assertThat(section.facts())
                .anyMatch(fact -> fact.value().equals(draft.rowText().strip()));
        assertThat(section.tables().get(0).rows()).hasSize(7).anyMatch(row -> row.get(2)
                .equals("not enough: a tone of 100 Hz is aliased to 0 Hz"));
        assertThat(section.paragraphs().get(0).lines()).hasSize(4).allMatch(line -> line.startsWith("[  ]  "));
        assertThat(section.paragraphs().get(1).lines().get(0)).contains("not a medical device");
        assertThat(PlanReport.of(draft.withLine(9600, true), Instant.EPOCH)
                        .sections()
                        .get(0)
                        .facts())
                .noneMatch(fact -> fact.name().equals("A row as sent"));
    }
}
