package zesty.signal.engine;

import java.util.BitSet;
import java.util.function.BiConsumer;
import zesty.signal.core.sample.CellPyramid;
import zesty.signal.core.sample.Series;

/**
 * A signal of a stored take, worked out page by page when it is looked at. Its extremes are kept once a page has been
 * worked out, so that all of it can be seen at once. Any thread.
 */
final class PagedSeries implements Series {
    /** Rows in a page, at least. */
    static final int PAGE = 1 << 16;

    /** More pages than this are never fetched for one look: on a screen they are cells anyway. */
    private static final int MOST_AT_HAND = 8;

    /** Makes the samples {@code from … to - 1}. Any thread. */
    @FunctionalInterface
    interface Maker {
        double[] make(long from, long to);
    }

    private final long count;
    private final int pageRows;
    private final PageCache cache;
    private final Maker maker;
    private final BiConsumer<PagedSeries, Integer> wanted;
    private final CellPyramid cells;
    private final BitSet filled;
    private volatile Page recent = new Page(-1, new double[0]);

    private record Page(long from, double[] values) {}

    /**
     * @param pageRows a multiple of {@link #PAGE}, or at least {@code count}
     * @param wanted hears of pages that were asked for and are not at hand
     */
    PagedSeries(long count, int pageRows, PageCache cache, Maker maker, BiConsumer<PagedSeries, Integer> wanted) {
        this.count = count;
        this.pageRows = pageRows;
        this.cache = cache;
        this.maker = maker;
        this.wanted = wanted;
        cells = new CellPyramid(count);
        filled = new BitSet(pages());
    }

    @Override
    public long start() {
        return 0;
    }

    @Override
    public long end() {
        return count;
    }

    int pages() {
        return (int) ((count + pageRows - 1) / pageRows);
    }

    /** Takes extremes that are known before any page is. @param extremes lowest and highest of each {@code rows} rows */
    void known(double[] extremes, int rows) {
        int each = rows / CellPyramid.CELL;
        for (int k = 0; k < extremes.length / 2; k++) {
            cells.coarse(k * each, each, extremes[2 * k], extremes[2 * k + 1]);
        }
    }

    @Override
    public double value(long index) {
        Page page = recent;
        if (index < page.from() || index >= page.from() + page.values().length) {
            int number = (int) (index / pageRows);
            double[] values = cache.get(this, number);
            page = new Page((long) number * pageRows, values == null ? make(number) : values);
            recent = page;
        }
        return page.values()[(int) (index - page.from())];
    }

    /** Works a page out and keeps it. */
    double[] make(int page) {
        double[] values = worked(page);
        cache.put(this, page, values);
        return values;
    }

    private double[] worked(int page) {
        long from = (long) page * pageRows;
        double[] values = maker.make(from, Math.min(count, from + pageRows));
        fill(page, values);
        return values;
    }

    private void fill(int page, double[] values) {
        synchronized (filled) {
            if (!filled.get(page)) {
                cells.fill((long) page * pageRows, values, values.length);
                filled.set(page);
            }
        }
    }

    /** @return whether a page is at hand */
    boolean holds(int page) {
        return cache.holds(this, page);
    }

    /** @return whether the extremes of a page are known */
    boolean filled(int page) {
        synchronized (filled) {
            return filled.get(page);
        }
    }

    /** Works a page's extremes out, unless they are known. A page that is all there is is kept as well. */
    void sweep(int page) {
        if (!filled(page)) {
            if (pages() == 1) {
                make(page);
            } else {
                worked(page);
            }
        }
    }

    @Override
    public boolean atHand(long from, long to) {
        long first = Math.max(0, from) / pageRows;
        long last = (Math.min(count, to) - 1) / pageRows;
        if (last - first >= MOST_AT_HAND) {
            return false;
        }
        boolean all = true;
        for (long page = first; page <= last; page++) {
            if (!cache.holds(this, page)) {
                wanted.accept(this, (int) page);
                all = false;
            }
        }
        return all;
    }

    @Override
    public void range(long from, long to, float[] extremes) {
        if (to - from < WIDE && from >= 0 && to <= count) {
            int number = (int) (from / pageRows);
            double[] values = number == (int) ((to - 1) / pageRows) ? peek(number) : null;
            if (values != null) {
                long first = (long) number * pageRows;
                float low = Float.NaN;
                float high = Float.NaN;
                for (int i = (int) (from - first); i < to - first; i++) {
                    float value = (float) values[i];
                    low = value >= low ? low : value == value ? value : low;
                    high = value <= high ? high : value == value ? value : high;
                }
                extremes[0] = low;
                extremes[1] = high;
                return;
            }
        }
        cells.range(from, to, extremes);
    }

    private double[] peek(int number) {
        Page page = recent;
        if (page.from() == (long) number * pageRows) {
            return page.values();
        }
        double[] values = cache.get(this, number);
        if (values != null) {
            recent = new Page((long) number * pageRows, values);
        }
        return values;
    }
}
