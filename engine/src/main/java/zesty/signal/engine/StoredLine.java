package zesty.signal.engine;

import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.IntFunction;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.clean.RecipeException;
import zesty.signal.core.decode.PictureFormat;
import zesty.signal.core.decode.Stations;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.picture.Film;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.Source;
import zesty.signal.core.sample.FilledRun;
import zesty.signal.core.sample.Gap;
import zesty.signal.core.sample.SampleRate;
import zesty.signal.core.sample.Segments;
import zesty.signal.core.sample.SeriesRing;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.core.sample.TimeRing;
import zesty.signal.core.text.Messages;
import zesty.signal.takes.Take;

/** A line of samples of a stored take in time: all rows of a source, or those of one station. Any thread. */
final class StoredLine {
    /** How many rows a rate is looked up in, at the beginning, in the middle and at the end of what is not held. */
    private static final int LOOKED_AT = 1 << 14;
    /** A step that looks further than this either way would need more memory than there is. */
    private static final int MOST_CONTEXT = 1 << 20;
    /** The newest value is looked for among so many rows. */
    private static final int TAIL = 64;

    private final Source source;
    private final Rows rows;
    private final StreamSnapshot stream;
    private final PageCache cache;
    private final Pager pager;
    private final Map<Integer, PagedSeries> raws = new HashMap<>();

    private StoredLine(Source source, Rows rows, StreamSnapshot stream, PageCache cache, Pager pager) {
        this.source = source;
        this.rows = rows;
        this.stream = stream;
        this.cache = cache;
        this.pager = pager;
    }

    /** @param gaps as they are known; null to find them in the times */
    static StoredLine held(
            Source source, int index, double station, HeldRows rows, List<Gap> gaps, PageCache cache, Pager pager) {
        double[] seconds = rows.times();
        double rateHz = rateHz(rows);
        List<Gap> known = gaps == null ? Gap.between(Double.NaN, seconds, rateHz) : gaps;
        TimeRing times = new TimeRing(new SeriesRing(seconds.length).capacity());
        times.append(new TimeBase.Explicit(seconds), seconds.length);
        long lost = known.stream().mapToLong(Gap::missing).sum();
        double last = seconds[seconds.length - 1];
        StreamSnapshot stream = new StreamSnapshot(index, station, rateHz, times, last, 0, known, lost);
        return new StoredLine(source, rows, stream, cache, pager);
    }

    static StoredLine filed(Source source, int index, FiledRows rows, List<Gap> gaps, PageCache cache, Pager pager) {
        PagedTimes times = new PagedTimes(rows, cache);
        double rateHz = rateHz(rows);
        long lost = gaps.stream().mapToLong(Gap::missing).sum();
        StreamSnapshot stream =
                new StreamSnapshot(index, Double.NaN, rateHz, times, times.lastSeconds(), 0, gaps, lost);
        return new StoredLine(source, rows, stream, cache, pager);
    }

    /** @return this line with its pictures. @param base what gives them as they came */
    StoredLine withFilm(Film base) {
        return new StoredLine(source, new PictureRows(rows, base), stream.withFilm(base), cache, pager);
    }

    /** @return this line by what a rig makes of its pictures; the same where that is what it was made by */
    StoredLine pictured(Rig rig) {
        StreamFormat now = rig.sources().get(stream.source()).format();
        if (stream.film() == null || now.equals(source.format()) || !(now instanceof PictureFormat picture)) {
            return this;
        }
        Film film = stream.film() instanceof FiledFilm filed
                ? new FiledFilm(filed.take(), filed.source(), picture)
                : new HeldFilm(((HeldFilm) stream.film()).frames(), picture);
        Rows as = ((PictureRows) rows).stored();
        return new StoredLine(source.withFormat(now), new PictureRows(as, film), stream.withFilm(film), cache, pager);
    }

    /** @return begin and end of the rows that a rate is looked up in: all where they are held or few */
    private static long[][] lookedAt(Rows rows) {
        long n = rows.count();
        if (rows.held() || n <= 3 * LOOKED_AT) {
            return new long[][] {{0, n}};
        }
        long middle = (n - LOOKED_AT) / 2;
        return new long[][] {{0, LOOKED_AT}, {middle, middle + LOOKED_AT}, {n - LOOKED_AT, n}};
    }

    /** @return the channels of a rig that this line carries */
    List<Channel> channels(Rig rig) {
        return rig.channels().stream().filter(channel -> has(rig, channel)).toList();
    }

    private static double rateHz(Rows rows) {
        double[] seconds = Arrays.stream(lookedAt(rows))
                .flatMapToDouble(part -> Arrays.stream(rows.seconds(part[0], part[1])))
                .toArray();
        return SampleRate.of(seconds);
    }

    private double rowsEach(int column) {
        long[][] parts = lookedAt(rows);
        if (parts.length == 1) {
            double[] all = rows.values(column, 0, rows.count());
            return ChannelChain.rowsEach(all, 0, all.length);
        }
        long between = 0;
        long values = 0;
        for (long[] part : parts) {
            // From the first value to the last: a part may begin and end between two.
            double[] some = rows.values(column, part[0], part[1]);
            int first = 0;
            int last = some.length - 1;
            while (first < last && some[first] != some[first]) {
                first++;
            }
            while (last > first && some[last] != some[last]) {
                last--;
            }
            between += last - first;
            for (int i = first; i < last; i++) {
                values += some[i] == some[i] ? 1 : 0;
            }
        }
        return ChannelChain.rowsEach(between, values);
    }

    Source source() {
        return source;
    }

    Rows rows() {
        return rows;
    }

    StreamSnapshot stream() {
        return stream;
    }

    boolean has(Rig rig, Channel channel) {
        String own = rig.ownName(channel.column());
        return stream.source() == rig.sourceOf(channel.column())
                && Stations.indexOf(source.format(), own) >= 0
                && Double.compare(stream.station(), Stations.stationOf(source.format(), own)) == 0;
    }

    private int columnOf(Rig rig, Channel channel) {
        return Stations.indexOf(source.format(), rig.ownName(channel.column()));
    }

    ChannelChain chain(Rig rig, Channel channel) {
        int column = columnOf(rig, channel);
        return new ChannelChain(rig, channel, column, stream.rateHz(), rowsEach(column));
    }

    /** @return segments of rows from the first on */
    Segments segments() {
        return new Segments(stream.rateHz(), source.setup().warmUpSeconds());
    }

    /** @return each column's values of rows {@code from … to - 1}, read when it is asked for */
    IntFunction<double[]> columns(long from, long to) {
        Map<Integer, double[]> read = new HashMap<>();
        return column -> read.computeIfAbsent(column, c -> rows.values(c, from, to));
    }

    /** @return what arrived of a channel */
    PagedSeries raw(Rig rig, Channel channel) {
        int column = columnOf(rig, channel);
        synchronized (raws) {
            return raws.computeIfAbsent(column, c -> {
                PagedSeries series = series(PagedSeries.PAGE, (from, to) -> rows.values(c, from, to));
                boolean asRecorded = c < PictureFormat.SUMMARIES || !(source.format() instanceof PictureFormat);
                boolean mended =
                        stream.film() != null && !stream.film().setup().mend().isNone();
                Rows stored = rows instanceof PictureRows pictures ? pictures.stored() : rows;
                if (stored instanceof FiledRows filed && asRecorded && !mended) {
                    series.known(filed.cells(c), Take.CELL);
                }
                return series;
            });
        }
    }

    private PagedSeries series(long pageRows, PagedSeries.Maker maker) {
        long rowsEach = rows.held() ? rows.count() : pageRows;
        return new PagedSeries(rows.count(), (int) Math.max(1, rowsEach), cache, maker, pager::want);
    }

    /** A channel as it is drawn: nothing in it is late. */
    final class Drawing {
        private final Rig rig;
        private final Channel channel;
        private final Recipe recipe;
        private final ChannelChain scaled;
        private final long context;
        private final double longestHoleSeconds;
        private final PagedSeries series;
        private volatile String trouble;

        Drawing(Rig rig, Channel channel) {
            this.rig = rig;
            this.channel = channel.withRecipe(Recipe.NONE);
            scaled = chain(rig, this.channel);
            trouble = scaled.trouble();
            Recipe wanted = channel.recipe();
            long reach = 0;
            try {
                double each = stream.rateHz() / scaled.rateHz();
                double looked = Math.ceil(wanted.context(scaled.rateHz()) * each);
                reach = looked > MOST_CONTEXT ? Long.MAX_VALUE : (long) looked;
            } catch (RecipeException e) {
                trouble = e.getMessage();
                wanted = Recipe.NONE;
            }
            if (reach == Long.MAX_VALUE && !rows.held()) {
                trouble = Messages.of("engine.drawn-without-its-recipe-a-step-of", rows.count());
                wanted = Recipe.NONE;
                reach = 0;
            }
            recipe = wanted;
            context = reach;
            longestHoleSeconds = recipe.longestHoleSeconds(scaled.rateHz());
            long page = PagedSeries.PAGE
                    * Math.max(1, -Math.floorDiv(-4 * Math.min(context, rows.count()), PagedSeries.PAGE));
            series = StoredLine.this.series(page, this::make);
        }

        PagedSeries series() {
            return series;
        }

        double rateHz() {
            return scaled.rateHz();
        }

        double longestHoleSeconds() {
            return longestHoleSeconds;
        }

        String trouble() {
            return trouble;
        }

        /** @return the newest values of the other columns that it takes in */
        double[] latestOthers() {
            long from = Math.max(0, rows.count() - TAIL);
            ChannelChain last = chain(rig, channel);
            last.part(columns(from, rows.count()), 0, (int) (rows.count() - from), rows.seconds(from, rows.count()), 0);
            return last.latestOthers();
        }

        /** @return the newest value that is there; NaN when none is near the end */
        double latest() {
            if (!rows.held()) {
                return newest(make(Math.max(0, rows.count() - TAIL), rows.count()));
            }
            // All of it is one page, which is worked out once.
            long at = rows.count() - 1;
            while (at > 0 && Double.isNaN(series.value(at))) {
                at--;
            }
            return series.value(at);
        }

        private double[] make(long from, long to) {
            double warmUp = source.setup().warmUpSeconds();
            long back = Math.max(context, (long) Math.ceil(warmUp * stream.rateHz()));
            long begin = back > from ? 0 : from - back;
            long stop = Math.min(rows.count(), context > rows.count() ? rows.count() : to + context);
            double[] seconds = rows.seconds(begin, stop);
            IntFunction<double[]> columns = columns(begin, stop);
            Segments segments = begin == 0
                    ? segments()
                    : Segments.after(stream.times().secondsAt(begin - 1), stream.rateHz(), warmUp);
            double[] clean = new double[(int) (to - from)];
            Arrays.fill(clean, Double.NaN);
            int shift = (int) (from - begin);
            double[] values = new double[seconds.length];
            int first = 0;
            int end = 0;
            for (Segments.Segment segment : segments.part(seconds, 0, seconds.length)) {
                if (segment.cold() || segment.stepSeconds() == Double.POSITIVE_INFINITY) {
                    clean(values, seconds, first, end, clean, shift);
                    first = segment.from();
                    end = first;
                }
                if (!segment.cold()) {
                    synchronized (scaled) {
                        ChannelChain.Part part =
                                scaled.part(columns, segment.from(), segment.to(), seconds, Double.POSITIVE_INFINITY);
                        System.arraycopy(part.rows, 0, values, segment.from(), segment.length());
                    }
                    end = segment.to();
                }
            }
            clean(values, seconds, first, end, clean, shift);
            return clean;
        }

        /** Cleans rows {@code from … to - 1}, holes filled where they are short, and puts those in sight where they belong. */
        private void clean(double[] values, double[] seconds, int from, int to, double[] clean, int shift) {
            for (FilledRun run : FilledRun.of(
                    values,
                    seconds,
                    from,
                    to,
                    scaled.rateHz(),
                    longestHoleSeconds,
                    recipe.fillsByItself() && !scaled.sparse())) {
                try {
                    recipe.bothWays(run.values(), scaled.rateHz());
                } catch (RecipeException e) {
                    trouble = e.getMessage();
                }
                for (int i = 0; i < run.row().length; i++) {
                    int at = run.row()[i] - shift;
                    if (run.row()[i] >= 0 && at >= 0 && at < clean.length) {
                        clean[at] = run.values()[i];
                    }
                }
            }
        }
    }

    /** @return the newest value of a channel as it arrived; NaN when none is near the end */
    double latestRaw(Rig rig, Channel channel) {
        long from = rows.held() ? 0 : Math.max(0, rows.count() - TAIL);
        return newest(rows.values(columnOf(rig, channel), from, rows.count()));
    }

    private static double newest(double[] values) {
        for (int i = values.length - 1; i >= 0; i--) {
            if (!Double.isNaN(values[i])) {
                return values[i];
            }
        }
        return Double.NaN;
    }
}
