package zesty.signal.engine;

import java.util.ArrayList;
import java.util.List;
import zesty.signal.core.read.ReaderException;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.ScalarInfo;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.scale.Digits;
import zesty.signal.exchange.report.Report;
import zesty.signal.takes.Mark;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeException;

/** What each reader says of each phase of a take, and of the whole of it: what changed with activity is one look. */
public final class PhaseTables {
    private static final int MOST_PHASES = 60;

    private PhaseTables() {}

    /**
     * @return a table a reader, a row a span that is marked and one for the whole; none where no span is marked. Waits for the disk
     * @throws TakeException when the take cannot be read
     */
    public static List<Report.Table> of(Take take) throws TakeException {
        List<Mark> spans =
                take.marks().stream().filter(Mark::isSpan).limit(MOST_PHASES).toList();
        List<Report.Table> tables = new ArrayList<>();
        Rig rig = take.rigOrPlain();
        if (!spans.isEmpty()) {
            for (ReaderSetup setup : rig.readers()) {
                tables.add(table(take, rig, setup, spans));
            }
        }
        return tables;
    }

    private static Report.Table table(Take take, Rig rig, ReaderSetup setup, List<Mark> spans) throws TakeException {
        String first = setup.columns().get(0);
        String name = rig.channels().stream()
                .filter(channel -> channel.column().equals(first))
                .map(channel -> channel.name())
                .findFirst()
                .orElse(first);
        String unit = rig.channels().stream()
                .filter(channel -> channel.column().equals(first))
                .map(channel -> channel.scaling().unit())
                .findFirst()
                .orElse("");
        String title = name + ", " + setup.readerKind().title() + ", phase by phase";
        List<double[]> parts = new ArrayList<>();
        spans.forEach(span -> parts.add(new double[] {span.seconds(), span.untilSeconds()}));
        parts.add(new double[] {Double.NEGATIVE_INFINITY, Double.POSITIVE_INFINITY});
        List<Reading> readings;
        try {
            readings = TakeReading.read(take, setup.kind(), setup.columns(), setup.settings(), parts);
        } catch (ReaderException e) {
            return new Report.Table(title, List.of("phase", ""), List.of(List.of("", e.getMessage())));
        }
        List<String> head = new ArrayList<>(List.of("phase", "length"));
        List<List<String>> rows = new ArrayList<>();
        for (int p = 0; p < parts.size(); p++) {
            boolean all = p == spans.size();
            double seconds = all
                    ? take.seconds()
                    : spans.get(p).untilSeconds() - spans.get(p).seconds();
            rows.add(new ArrayList<>(List.of(all ? "all" : spans.get(p).text(), Digits.fixed(seconds, 1) + " s")));
        }
        for (ScalarInfo info : setup.readerKind().scalars()) {
            List<String> values = readings.stream()
                    .map(reading -> TakeReport.value(reading, info, unit))
                    .toList();
            if (values.stream().anyMatch(value -> !value.isEmpty())) {
                head.add(info.words());
                for (int p = 0; p < rows.size(); p++) {
                    rows.get(p).add(values.get(p).isEmpty() ? "none" : values.get(p));
                }
            }
        }
        head.add("quality");
        for (int p = 0; p < rows.size(); p++) {
            rows.get(p).add(TakeReport.quality(readings.get(p)));
        }
        return new Report.Table(title, head, rows);
    }
}
