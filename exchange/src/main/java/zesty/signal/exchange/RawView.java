package zesty.signal.exchange;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Predicate;
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
            if (!own.isEmpty()) {
                sources.add(new Source(take.sourceName(s), own, take.rows(s), rate(take, s)));
                of.add(s);
                columns.add(places.stream().mapToInt(Integer::intValue).toArray());
            }
        }
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

    @Override
    public void read(int source, int[] wanted, Taker taker) throws IOException {
        int own = of.get(source);
        for (int piece = 0; piece < take.pieces(own); piece++) {
            double[][] values = new double[wanted.length][];
            for (int c = 0; c < wanted.length; c++) {
                values[c] = take.values(columns.get(source)[wanted[c]], piece);
            }
            taker.take(take.times(own, piece), values);
        }
    }
}
