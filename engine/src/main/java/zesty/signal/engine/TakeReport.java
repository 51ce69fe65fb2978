package zesty.signal.engine;

import java.nio.file.Path;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import zesty.signal.core.prove.Proof;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.Quality;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.ScalarInfo;
import zesty.signal.core.rig.Caution;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.sample.Gap;
import zesty.signal.core.sample.Series;
import zesty.signal.core.sample.Times;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.exchange.report.Report;
import zesty.signal.takes.Mark;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeException;

/** Says of takes what a printed page should: lanes, numbers with their uncertainty, calibration, rig, markers, notes and cautions. */
public final class TakeReport {
    /** The table of all readings, and the paragraph of what lowers their quality. */
    public static final String READINGS = Messages.of("engine.readings");

    public static final String DOUBTS = Messages.of("engine.what-lowers-the-quality");

    private static final int COLUMNS = 700;
    private static final int MOST_MARKS = 60;
    private static final DateTimeFormatter WHEN = DateTimeFormatter.ofPattern(
                    Messages.of("engine.moment-as-written"), Messages.language())
            .withZone(ZoneId.systemDefault());
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern(
                    Messages.of("engine.day-as-written"), Messages.language())
            .withZone(ZoneId.systemDefault());

    private TakeReport() {}

    /**
     * @param files one at least
     * @param now when it is made
     * @throws TakeException when one cannot be read
     */
    public static Report of(List<Path> files, Instant now) throws TakeException {
        List<Report.Section> sections = new ArrayList<>();
        Map<String, String[]> side = new LinkedHashMap<>();
        List<String> titles = new ArrayList<>();
        for (int f = 0; f < files.size(); f++) {
            try (Take take = Take.open(files.get(f))) {
                StoredTake stored = StoredTake.load(take);
                sections.add(
                        section(take, stored, files.size() == 1 ? Messages.of("engine.the-recording") : take.title()));
                titles.add(take.title());
                for (List<String> row : numbers(stored)) {
                    side.computeIfAbsent(row.get(0) + " · " + row.get(1), key -> new String[files.size()])[f] =
                            row.get(2);
                }
            }
        }
        if (files.size() > 1) {
            List<String> head = new ArrayList<>(List.of(Messages.of("engine.number")));
            head.addAll(titles);
            List<List<String>> rows = new ArrayList<>();
            side.forEach((name, cells) -> {
                List<String> row = new ArrayList<>(List.of(name));
                for (String cell : cells) {
                    row.add(cell == null ? "" : cell);
                }
                rows.add(row);
            });
            sections.add(
                    0,
                    new Report.Section(
                            Messages.of("engine.side-by-side"),
                            List.of(),
                            List.of(),
                            List.of(),
                            List.of(new Report.Table(Messages.of("engine.main-numbers"), head, rows)),
                            List.of()));
        }
        String title = files.size() == 1 ? titles.get(0) : Messages.of("engine.takes", files.size());
        return new Report(title, Messages.of("engine.report-of", WHEN.format(now)), sections);
    }

    private static Report.Section section(Take take, StoredTake stored, String title) throws TakeException {
        Rig rig = stored.snapshot().rig();
        List<Report.Fact> facts = new ArrayList<>();
        facts.add(new Report.Fact(Messages.of("engine.recorded"), WHEN.format(take.started())));
        facts.add(new Report.Fact(Messages.of("engine.length-2"), Digits.fixed(take.seconds(), 1) + " s"));
        facts.add(new Report.Fact(Messages.of("engine.rows-2"), String.valueOf(take.rows())));
        facts.add(new Report.Fact(Messages.of("engine.rig"), rig.name()));
        List<Gap> gaps = take.gaps();
        if (!gaps.isEmpty()) {
            double missing = gaps.stream().mapToDouble(Gap::seconds).sum();
            facts.add(new Report.Fact(
                    Messages.of("engine.gaps"), Messages.of("engine.s-in-all", gaps.size(), Digits.fixed(missing, 2))));
        }
        if (!take.tags().isEmpty()) {
            facts.add(new Report.Fact(Messages.of("engine.tags"), String.join(", ", take.tags())));
        }
        if (!take.damage().isEmpty()) {
            facts.add(new Report.Fact(
                    Messages.of("engine.damaged"),
                    Messages.of("engine.places-left-out", take.damage().size())));
        }
        if (!take.mended().isEmpty()) {
            facts.add(new Report.Fact(Messages.of("engine.repaired"), take.mended()));
        }
        List<Report.Lane> lanes = new ArrayList<>();
        double[] marks = take.marks().stream().mapToDouble(Mark::seconds).toArray();
        for (ChannelSnapshot channel : stored.snapshot().channels()) {
            if (channel.channel().shown() && channel.clean() != null) {
                lanes.add(lane(channel, marks, take.seconds()));
            }
        }
        List<Report.Table> tables = new ArrayList<>();
        List<List<String>> numbers = numbers(stored);
        if (!numbers.isEmpty()) {
            tables.add(new Report.Table(
                    READINGS,
                    List.of(
                            Messages.of("engine.channel"),
                            Messages.of("engine.number"),
                            Messages.of("engine.value"),
                            Messages.of("engine.quality")),
                    numbers));
        }
        tables.addAll(PhaseTables.of(take));
        tables.add(setup(rig));
        if (!take.marks().isEmpty()) {
            tables.add(new Report.Table(
                    take.marks().size() > MOST_MARKS
                            ? Messages.of("engine.markers-the-first", MOST_MARKS)
                            : Messages.of("engine.markers"),
                    List.of(Messages.of("engine.time"), Messages.of("engine.marker-2")),
                    take.marks().stream()
                            .limit(MOST_MARKS)
                            .map(mark -> List.of(
                                    Digits.fixed(mark.seconds(), 2)
                                            + (mark.isSpan()
                                                    ? Messages.of("engine.to", Digits.fixed(mark.untilSeconds(), 2))
                                                    : "")
                                            + " s",
                                    mark.text()))
                            .toList()));
        }
        List<Report.Paragraph> paragraphs = new ArrayList<>();
        if (!take.notes().isBlank()) {
            paragraphs.add(new Report.Paragraph(
                    Messages.of("engine.notes"), take.notes().lines().toList()));
        }
        List<String> doubts = doubts(stored);
        if (!doubts.isEmpty()) {
            paragraphs.add(new Report.Paragraph(DOUBTS, doubts));
        }
        // Read once at the bench, and again on paper.
        Set<Caution> cautions = new TreeSet<>(rig.acknowledged());
        cautions.addAll(rig.cautions());
        if (!cautions.isEmpty()) {
            paragraphs.add(new Report.Paragraph(
                    Messages.of("engine.cautions"),
                    cautions.stream().map(Caution::words).toList()));
        }
        return new Report.Section(title, facts, lanes, TakePictures.of(stored, take.marks()), tables, paragraphs);
    }

    private static Report.Lane lane(ChannelSnapshot channel, double[] marks, double seconds) {
        Series series = channel.clean();
        Times times = channel.stream().times();
        double from = times.secondsAt(times.start());
        double to = Math.max(from + 1e-9, Math.max(seconds, times.secondsAt(times.end() - 1)));
        float[] low = new float[COLUMNS];
        float[] high = new float[COLUMNS];
        float[] extremes = new float[2];
        double joined = channel.joinedSeconds();
        int last = -1;
        for (int c = 0; c < COLUMNS; c++) {
            long a = times.firstAtOrAfter(from + (to - from) * c / COLUMNS);
            long b = c == COLUMNS - 1 ? times.end() : times.firstAtOrAfter(from + (to - from) * (c + 1) / COLUMNS);
            low[c] = Float.NaN;
            high[c] = Float.NaN;
            if (b > a) {
                series.range(a + channel.lateSamples(), b + channel.lateSamples(), extremes);
                low[c] = (float) channel.channel().display().apply(extremes[0]);
                high[c] = (float) channel.channel().display().apply(extremes[1]);
                // Slow rows leave columns between them without one: the line goes on unless a gap is there.
                if (last >= 0 && (to - from) * (c - last) / COLUMNS <= joined + (to - from) / COLUMNS) {
                    for (int between = last + 1; between < c; between++) {
                        float share = (between - last) / (float) (c - last);
                        low[between] = low[last] + share * (low[c] - low[last]);
                        high[between] = high[last] + share * (high[c] - high[last]);
                    }
                }
                last = low[c] == low[c] ? c : last;
            }
        }
        return new Report.Lane(channel.channel().name(), channel.channel().unit(), from, to, low, high, marks);
    }

    /** Rows of channel, number, value with uncertainty and unit, quality. */
    static List<List<String>> numbers(StoredTake stored) {
        List<List<String>> rows = new ArrayList<>();
        for (ChannelSnapshot channel : stored.snapshot().channels()) {
            for (ReaderSnapshot reader : channel.readers()) {
                if (!reader.setup().columns().get(0).equals(channel.channel().column())) {
                    continue;
                }
                ReaderKind kind = reader.kind();
                String name = channel.channel().name() + ", " + kind.title();
                if (reader.reading() == null) {
                    rows.add(List.of(name, "", reader.trouble(), ""));
                    continue;
                }
                boolean first = true;
                for (ScalarInfo info : kind.scalars()) {
                    String value = value(
                            reader.reading(), info, channel.channel().scaling().unit());
                    if (!value.isEmpty()) {
                        rows.add(List.of(name, info.words(), value, first ? quality(reader) : ""));
                        first = false;
                    }
                }
                if (first) {
                    rows.add(List.of(name, "", Messages.of("engine.nothing-found"), quality(reader)));
                }
            }
        }
        return rows;
    }

    private static String quality(ReaderSnapshot reader) {
        return quality(reader.reading());
    }

    static String quality(Reading reading) {
        return Messages.of("engine.of-2", reading.quality().segments(), Quality.SEGMENTS);
    }

    /** @return a number with its uncertainty and unit; empty where there is none */
    static String value(Reading reading, ScalarInfo info, String channelUnit) {
        for (Item item : reading.items()) {
            if (item instanceof Item.Scalar scalar
                    && scalar.key().equals(info.key())
                    && Double.isFinite(scalar.value())) {
                String unit = info.unit(channelUnit);
                String number = info.decimals() < 0
                        ? Digits.about(scalar.value(), 4)
                        : Digits.fixed(scalar.value(), info.decimals());
                String doubt = scalar.uncertainty() > 0 ? " ± " + Digits.about(scalar.uncertainty(), 2) : "";
                return number + doubt + (unit.isEmpty() ? "" : " " + unit);
            }
        }
        return "";
    }

    private static List<String> doubts(StoredTake stored) {
        List<String> doubts = new ArrayList<>();
        for (ChannelSnapshot channel : stored.snapshot().channels()) {
            if (!channel.trouble().isEmpty()) {
                doubts.add(channel.channel().name() + ": " + channel.trouble());
            }
            for (ReaderSnapshot reader : channel.readers()) {
                boolean own =
                        reader.setup().columns().get(0).equals(channel.channel().column());
                if (own && reader.reading() != null) {
                    reader.reading()
                            .quality()
                            .reasons()
                            .forEach(reason -> doubts.add(channel.channel().name() + ", "
                                    + reader.kind().title() + ": " + reason));
                }
            }
        }
        return doubts;
    }

    private static Report.Table setup(Rig rig) {
        List<List<String>> rows = new ArrayList<>();
        for (Channel channel : rig.channels()) {
            Proof proof = channel.proof();
            rows.add(List.of(
                    channel.name(),
                    channel.column(),
                    channel.unit(),
                    channel.recipe().steps().isEmpty()
                            ? Messages.of("engine.none")
                            : channel.recipe().text(),
                    proof == null
                            ? Messages.of("engine.not-calibrated")
                            : Messages.of(
                                    "engine.largest-error",
                                    DAY.format(Instant.ofEpochSecond(proof.epochSeconds())),
                                    Digits.about(proof.worstMiss(), 2),
                                    proof.unit())));
        }
        return new Report.Table(
                Messages.of("engine.channels-2"),
                List.of(
                        Messages.of("engine.channel"),
                        Messages.of("engine.column"),
                        Messages.of("engine.unit"),
                        Messages.of("engine.recipe-2"),
                        Messages.of("engine.calibration")),
                rows);
    }
}
