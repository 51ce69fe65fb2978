package zesty.signal.engine;

import java.util.ArrayList;
import java.util.List;
import zesty.signal.core.read.Event;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.ReaderException;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.ScalarInfo;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.exchange.report.Report;
import zesty.signal.takes.Mark;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeException;

/** What each reader says of each phase of a take, and of the whole of it: what changed with activity is one look. */
public final class PhaseTables {
    /** What the titles of its tables end in. */
    public static final String TITLE = Messages.of("engine.phase-by-phase");

    private static final String NONE = Messages.of("engine.none");
    private static final String UNSURE = Messages.of("engine.unsure-2");

    private static final int MOST_PHASES = 60;
    /** Each phase is read from the take's begin, by each reader: so many rows in all take some ten seconds. */
    private static final long MOST_ROWS = 100_000_000;

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
        long work = take.rows() * (spans.size() + 2) * rig.readers().size();
        if (!spans.isEmpty() && work > MOST_ROWS) {
            tables.add(new Report.Table(
                    Messages.of("engine.takes-of-this-length", TITLE),
                    List.of(Messages.of("engine.phase"), ""),
                    List.of(List.of("", Messages.of("engine.are-not-read-phase-by-phase-cut-a")))));
        } else if (!spans.isEmpty()) {
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
        String title = name + ", " + setup.readerKind().title() + TITLE;
        List<double[]> parts = new ArrayList<>();
        spans.forEach(span -> parts.add(new double[] {span.seconds(), span.untilSeconds()}));
        List<Reading> readings = new ArrayList<>();
        Reading whole;
        try {
            whole = TakeReading.read(take, setup.kind(), setup.columns(), setup.settings());
            readings.addAll(TakeReading.read(
                    take, setup.kind(), setup.columns(), setup.readerKind().learned(setup.settings(), whole), parts));
        } catch (ReaderException e) {
            return new Report.Table(
                    title, List.of(Messages.of("engine.phase"), ""), List.of(List.of("", e.getMessage())));
        }
        List<String> head = new ArrayList<>(
                List.of(Messages.of("engine.phase"), Messages.of("engine.length"), Messages.of("engine.quality")));
        List<List<String>> rows = new ArrayList<>();
        for (int p = 0; p < spans.size(); p++) {
            rows.add(row(
                    spans.get(p).text(),
                    spans.get(p).untilSeconds() - spans.get(p).seconds(),
                    readings.get(p)));
        }
        rows.add(row(Messages.of("engine.all"), take.seconds(), whole));
        readings.add(whole);
        parts.add(new double[] {Double.NEGATIVE_INFINITY, Double.POSITIVE_INFINITY});
        events(whole, unit, parts, head, rows);
        for (ScalarInfo info : setup.readerKind().scalars()) {
            if (setup.readerKind().ofWhole().contains(info.key())) {
                continue;
            }
            List<String> values = new ArrayList<>();
            for (Reading reading : readings) {
                boolean sure = reading.quality().share() >= Comparison.LEAST_QUALITY;
                String value = TakeReport.value(reading, info, unit);
                values.add(value.isEmpty() ? NONE : sure ? value : UNSURE);
            }
            boolean said = values.subList(0, spans.size()).stream()
                    .anyMatch(value -> !value.equals(NONE) && !value.equals(UNSURE));
            if (said) {
                head.add(info.words());
                for (int p = 0; p < rows.size(); p++) {
                    rows.get(p).add(values.get(p));
                }
            }
        }
        return new Report.Table(title, head, rows);
    }

    private static List<String> row(String name, double seconds, Reading reading) {
        return new ArrayList<>(List.of(name, Digits.fixed(seconds, 1) + " s", TakeReport.quality(reading)));
    }

    /** The events of the whole whose middle lies in each part: what stands before it helps to tell them. */
    private static void events(
            Reading whole, String unit, List<double[]> parts, List<String> head, List<List<String>> rows) {
        for (Item item : whole.items()) {
            if (item instanceof Item.Events events && events.events().stream().anyMatch(Event::believed)) {
                boolean sized = events.events().stream().anyMatch(one -> Double.isFinite(one.size()));
                head.add(events.key());
                if (sized) {
                    head.add(Messages.of("engine.mean-height"));
                }
                for (int p = 0; p < parts.size(); p++) {
                    double[] part = parts.get(p);
                    List<Event> own = events.events().stream()
                            .filter(one -> one.believed() && middle(one) >= part[0] && middle(one) < part[1])
                            .toList();
                    rows.get(p).add(String.valueOf(own.size()));
                    double mean =
                            own.stream().mapToDouble(Event::size).average().orElse(Double.NaN);
                    if (sized) {
                        rows.get(p).add(Double.isNaN(mean) ? NONE : Digits.about(mean, 4) + " " + unit);
                    }
                }
                return;
            }
        }
    }

    private static double middle(Event event) {
        return (event.startSeconds() + Math.max(event.startSeconds(), event.endSeconds())) / 2;
    }
}
