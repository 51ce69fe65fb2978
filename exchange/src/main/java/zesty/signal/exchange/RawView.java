package zesty.signal.exchange;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.Predicate;
import zesty.signal.core.picture.FrameSeries;
import zesty.signal.core.sample.SampleRate;
import zesty.signal.takes.Take;

/** A take's columns as they came. */
public final class RawView implements TakeView {
    private static final int ENOUGH_ROWS = 1 << 20;

    private final Take take;
    private final List<Source> sources = new ArrayList<>();
    /** By source of this view: the source of the take, and the columns of it. */
    private final List<Integer> of = new ArrayList<>();

    private final List<int[]> columns = new ArrayList<>();
    /** By source of this view: which pixels of its pictures follow the columns. */
    private final List<int[]> pixels = new ArrayList<>();

    /** @param wanted which columns, by their names; sources of which none is wanted are left away */
    public RawView(Take take, Predicate<String> wanted) {
        this.take = take;
        for (int s = 0; s < take.sources(); s++) {
            List<Column> own = new ArrayList<>();
            List<Integer> places = new ArrayList<>();
            for (int c = 0; c < take.columns().size(); c++) {
                var column = take.columns().get(c);
                if (take.sourceOf(c) == s && wanted.test(column.name())) {
                    own.add(new Column(column.name(), column.unit()));
                    places.add(c);
                }
            }
            int[] of = pixels(s, wanted, own);
            if (!own.isEmpty()) {
                sources.add(new Source(take.sourceName(s), own, take.rows(s), rate(take, s)));
                this.of.add(s);
                pixels.add(of);
                columns.add(places.stream().mapToInt(Integer::intValue).toArray());
            }
        }
    }

    /** Adds a column for each pixel that is wanted, where the take has pictures beside its columns. @return which they are */
    private int[] pixels(int source, Predicate<String> wanted, List<Column> own) {
        int[] size = take.pixelsAreColumns(source) ? null : take.frameSize(source);
        List<Integer> found = new ArrayList<>();
        String prefix = source == 0 ? "" : take.sourceName(source) + "/";
        String unit = take.columns().get(take.firstColumn(source)).unit();
        for (int p = 0; size != null && p < size[0] * size[1]; p++) {
            String name = prefix + FrameSeries.pixel(p % size[0], p / size[0]);
            if (wanted.test(name)) {
                own.add(new Column(name, unit));
                found.add(p);
            }
        }
        return found.stream().mapToInt(Integer::intValue).toArray();
    }

    private static double rate(Take take, int source) {
        List<double[]> parts = new ArrayList<>();
        int n = 0;
        for (int piece = 0; piece < take.pieces(source) && n < ENOUGH_ROWS; piece++) {
            parts.add(take.times(source, piece));
            n += parts.get(piece).length;
        }
        double[] times = new double[n];
        int at = 0;
        for (double[] part : parts) {
            System.arraycopy(part, 0, times, at, part.length);
            at += part.length;
        }
        return n > 1 ? SampleRate.of(times) : Double.NaN;
    }

    @Override
    public List<Source> sources() {
        return List.copyOf(sources);
    }

    private void pixels(int source, int piece, int[] wanted, double[][] values) {
        int before = columns.get(source).length;
        if (Arrays.stream(wanted).noneMatch(c -> c >= before)) {
            return;
        }
        int own = of.get(source);
        int rows = take.times(own, piece).length;
        for (int row = 0; row < rows; row++) {
            double[] frame = take.frame(own, take.rowOf(own, piece) + row);
            for (int c = 0; c < wanted.length; c++) {
                if (wanted[c] >= before) {
                    values[c] = row == 0 ? new double[rows] : values[c];
                    values[c][row] = frame == null ? Double.NaN : frame[pixels.get(source)[wanted[c] - before]];
                }
            }
        }
    }

    @Override
    public void read(int source, int[] wanted, Taker taker) throws IOException {
        int own = of.get(source);
        for (int piece = 0; piece < take.pieces(own); piece++) {
            double[][] values = new double[wanted.length][];
            for (int c = 0; c < wanted.length; c++) {
                if (wanted[c] < columns.get(source).length) {
                    values[c] = take.values(columns.get(source)[wanted[c]], piece);
                }
            }
            pixels(source, piece, wanted, values);
            taker.take(take.times(own, piece), values);
        }
    }
}
