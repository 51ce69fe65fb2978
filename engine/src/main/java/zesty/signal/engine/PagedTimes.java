package zesty.signal.engine;

import zesty.signal.core.sample.Times;

/**
 * The times of a take that is too long for memory. Where its rows came evenly they are worked out; else pages of them are
 * read, and every {@value #KNOT} rows one is kept, so that a wide window needs no page again.
 */
final class PagedTimes implements Times {
    private static final int PAGE = 1 << 14;
    private static final int KNOT = 256;

    private final FiledRows rows;
    private final PageCache cache;
    private final double[] firsts;
    private final double[] periods;
    private final double[][] knots;
    private final double last;
    private volatile int recentPiece;
    private volatile Page recent = new Page(-1, new double[0]);

    private record Page(long from, double[] seconds) {}

    PagedTimes(FiledRows rows, PageCache cache) {
        this.rows = rows;
        this.cache = cache;
        firsts = new double[rows.pieces()];
        periods = new double[rows.pieces()];
        for (int piece = 0; piece < firsts.length; piece++) {
            firsts[piece] = rows.firstSeconds(piece);
            periods[piece] = rows.periodSeconds(piece);
        }
        knots = new double[(int) ((rows.count() + PAGE - 1) / PAGE)][];
        last = secondsAt(rows.count() - 1);
    }

    @Override
    public long start() {
        return 0;
    }

    @Override
    public long end() {
        return rows.count();
    }

    double lastSeconds() {
        return last;
    }

    @Override
    public double secondsAt(long row) {
        int piece = recentPiece;
        if (row < rows.start(piece) || row >= rows.start(piece + 1)) {
            piece = rows.pieceOf(row);
            recentPiece = piece;
        }
        if (periods[piece] == periods[piece]) {
            return firsts[piece] + (row - rows.start(piece)) * periods[piece];
        }
        Page page = recent;
        if (row < page.from() || row >= page.from() + page.seconds().length) {
            page = page(row);
            recent = page;
        }
        return page.seconds()[(int) (row - page.from())];
    }

    private Page page(long row) {
        long index = row / PAGE;
        double[] seconds = cache.get(this, index);
        if (seconds == null) {
            seconds = rows.seconds(index * PAGE, Math.min(rows.count(), (index + 1) * PAGE));
            cache.put(this, index, seconds);
            keepKnots((int) index, seconds);
        }
        return new Page(index * PAGE, seconds);
    }

    private void keepKnots(int page, double[] seconds) {
        double[] some = new double[(seconds.length + KNOT - 1) / KNOT];
        for (int k = 0; k < some.length; k++) {
            some[k] = seconds[k * KNOT];
        }
        knots[page] = some;
    }

    @Override
    public long firstAtOrAfter(double time) {
        return near(time, 0);
    }

    @Override
    public long near(double time, double withinSeconds) {
        if (!(time > firsts[0])) {
            return 0;
        }
        if (time > last) {
            return rows.count();
        }
        // The last piece that begins before the time.
        int low = 0;
        int high = firsts.length;
        while (high - low > 1) {
            int middle = low + high >>> 1;
            if (firsts[middle] < time) {
                low = middle;
            } else {
                high = middle;
            }
        }
        long start = rows.start(low);
        long end = rows.start(low + 1);
        double until = low + 1 < firsts.length ? firsts[low + 1] : last;
        if (periods[low] == periods[low]) {
            long row = start + (long) Math.ceil((time - firsts[low]) / periods[low]);
            row = Math.max(start, Math.min(end, row));
            while (row > start && secondsAt(row - 1) >= time) {
                row--;
            }
            while (row < end && secondsAt(row) < time) {
                row++;
            }
            return row;
        }
        return within(start, end, firsts[low], until, time, withinSeconds);
    }

    private static long between(long from, long to, double begin, double end, double time) {
        double part = end > begin ? Math.min(1, (time - begin) / (end - begin)) : 1;
        return from + Math.round(part * (to - from));
    }

    /** Among rows with times of their own, of which the first came before the time. */
    private long within(long start, long end, double begin, double until, double time, double withinSeconds) {
        long low = start;
        long high = end;
        double before = begin;
        double after = until;
        while (high - low > 1 && after - before > withinSeconds) {
            long middle = low + high >>> 1;
            long knot = middle / KNOT * KNOT;
            double[] known = knots[(int) (middle / PAGE)];
            boolean kept = known != null && knot > low;
            middle = kept ? knot : middle;
            double at = kept ? known[(int) (knot % PAGE / KNOT)] : secondsAt(middle);
            if (at < time) {
                low = middle;
                before = at;
            } else {
                high = middle;
                after = at;
            }
        }
        return high - low > 1 ? between(low, high, before, after, time) : high;
    }
}
