package zesty.signal.engine;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import zesty.signal.core.decode.PictureFormat;
import zesty.signal.core.decode.Role;
import zesty.signal.core.decode.Stations;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.picture.FrameRing;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.Source;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.core.text.Messages;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeException;

/**
 * The lines of samples of a take: one for each source, or each station of one. A take of few values is read into memory, of
 * a long one pages are read when they are looked at.
 *
 * @param rig the take's own, fitted to what it holds, with the stations that turned up
 */
record TakeLines(Rig rig, List<StoredLine> lines) {
    /** How far the work is when all is read from the disk. */
    static final double READ_SHARE = 0.4;

    /** A take of so many values, times included, is held in memory: 32 MB. */
    static final long MOST_HELD = 1 << 22;
    /** Of several stations this many times as much: their rows are parted in memory. */
    private static final int STATIONS_MORE = 16;
    /** Pages of so many values are kept: 128 MB. */
    private static final long MOST_PAGED = 1 << 24;

    /** What pages are kept in and made by, and up to how many values need none. */
    record Pages(PageCache cache, Pager pager, long mostHeld) {
        static Pages upTo(long mostHeld) {
            return new Pages(new PageCache(MOST_PAGED), new Pager(), mostHeld);
        }
    }

    /** @return whether all of it is in memory */
    boolean held() {
        return lines.stream().allMatch(line -> line.rows().held());
    }

    /** @return the lines of all sources that have rows enough to draw */
    static TakeLines of(Take take, Pages pages, Progress progress) throws TakeException {
        Rig rig = take.rigOrPlain();
        List<StoredLine> lines = new ArrayList<>();
        for (int s = 0; s < rig.sources().size(); s++) {
            if (take.rows(s) > 1) {
                TakeLines own = of(take, s, rig.fittedTo(s, rig.sources().get(s).format()), pages, progress);
                rig = own.rig();
                lines.addAll(own.lines());
            }
        }
        return new TakeLines(rig, lines);
    }

    /** @return the lines of one source */
    static TakeLines of(Take take, int index, Rig rig, Pages pages, Progress progress) throws TakeException {
        Source source = rig.sources().get(index);
        PictureFormat picture = picture(take, index, source);
        int columns = source.format() instanceof PictureFormat
                ? PictureFormat.SUMMARIES
                : source.format().columns().size();
        int stationColumn = source.format().indexOf(Role.STATION);
        boolean isLong = values(take, rig) > pages.mostHeld();
        if (isLong && stationColumn < 0) {
            FiledRows rows = new FiledRows(take, index, columns);
            StoredLine filed = StoredLine.filed(source, index, rows, take.gaps(index), pages.cache(), pages.pager());
            return new TakeLines(
                    rig, List.of(picture == null ? filed : filed.withFilm(new FiledFilm(take, index, picture))));
        }
        HeldRows held = held(take, index, columns, progress);
        if (stationColumn < 0) {
            StoredLine line =
                    StoredLine.held(source, index, Double.NaN, held, take.gaps(index), pages.cache(), pages.pager());
            return new TakeLines(rig, List.of(picture == null ? line : line.withFilm(film(take, index, picture))));
        }
        Rig fitted = rig;
        List<StoredLine> lines = new ArrayList<>();
        Block all = new Block(new TimeBase.Explicit(held.times()), held.columns(), held.times().length, List.of());
        for (Map.Entry<Double, Block> part : Stations.part(all, stationColumn).entrySet()) {
            Block block = part.getValue();
            double[] own = ((TimeBase.Explicit) block.time()).seconds();
            if (own.length > 1) {
                HeldRows rows = new HeldRows(block.columns(), own);
                lines.add(StoredLine.held(source, index, part.getKey(), rows, null, pages.cache(), pages.pager()));
                fitted = fitted.withStation(index, part.getKey());
            }
        }
        return new TakeLines(fitted, lines);
    }

    /** @return the format of a source whose pictures the take has; null without any */
    private static PictureFormat picture(Take take, int index, Source source) {
        int[] size = take.frameSize(index);
        return source.format() instanceof PictureFormat picture
                        && size != null
                        && size[0] == picture.width()
                        && size[1] == picture.rows()
                ? picture
                : null;
    }

    /** The pictures of a small take, all of them in memory. */
    private static HeldFilm film(Take take, int index, PictureFormat picture) {
        FrameRing frames = new FrameRing(picture.width() * picture.rows(), (int) take.rows(index));
        for (long row = 0; row < take.rows(index); row++) {
            frames.append(take.frame(index, row));
        }
        return new HeldFilm(frames, picture);
    }

    /** @return how many values the take has, times included */
    private static long values(Take take, Rig rig) {
        long values = 0;
        for (int s = 0; s < rig.sources().size(); s++) {
            StreamFormat format = rig.sources().get(s).format();
            values += take.rows(s) * (format == null ? 1L : format.columns().size() + 1L);
            int[] size = take.frameSize(s);
            values += size == null ? 0 : take.rows(s) * size[0] * size[1];
        }
        return values;
    }

    private static HeldRows held(Take take, int index, int count, Progress progress) throws TakeException {
        long most = MOST_HELD * STATIONS_MORE;
        if (take.rows(index) * (count + 1) > most) {
            throw new TakeException(Messages.of(
                    "engine.holds-rows-of-several-stations-up", take.file(), take.rows(index), most / (count + 1)));
        }
        double[][] columns = new double[count][];
        int first = take.firstColumn(index);
        for (int c = 0; c < count; c++) {
            columns[c] = take.column(first + c);
            progress.at(READ_SHARE * (c + 1) / count);
        }
        return new HeldRows(columns, take.times(index));
    }
}
