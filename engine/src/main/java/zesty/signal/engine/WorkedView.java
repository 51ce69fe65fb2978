package zesty.signal.engine;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Predicate;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.sample.Series;
import zesty.signal.core.sample.Times;
import zesty.signal.exchange.TakeView;

/** A stored take's channels scaled, or cleaned forward and back, as its rig says. It must stay open meanwhile. */
public final class WorkedView implements TakeView {
    private static final int PIECE = 1 << 14;

    private final List<Source> sources = new ArrayList<>();
    private final List<List<ChannelSnapshot>> channels = new ArrayList<>();

    private WorkedView(StoredTake take, Predicate<Channel> wanted) {
        Snapshot snapshot = take.snapshot();
        for (StreamSnapshot stream : snapshot.streams()) {
            List<ChannelSnapshot> own = snapshot.channels().stream()
                    .filter(one -> one.stream().key().equals(stream.key()) && wanted.test(one.channel()))
                    .toList();
            if (!own.isEmpty()) {
                List<Column> columns = own.stream()
                        .map(one -> new Column(
                                one.channel().name(), one.channel().scaling().unit()))
                        .toList();
                String name = snapshot.rig().sources().get(stream.source()).name();
                sources.add(new Source(name, columns, stream.times().end(), stream.rateHz()));
                channels.add(own);
            }
        }
    }

    /** @param wanted which channels */
    public static TakeView cleaned(StoredTake take, Predicate<Channel> wanted) {
        return new WorkedView(take, wanted);
    }

    /** The same without what the recipes do. Works the take out again. */
    public static TakeView scaled(StoredTake take, Predicate<Channel> wanted) {
        Rig rig = take.snapshot().rig();
        Rig plain = rig.withChannels(
                rig.channels().stream().map(one -> one.withRecipe(Recipe.NONE)).toList());
        return new WorkedView(take.with(plain), wanted);
    }

    @Override
    public List<Source> sources() {
        return List.copyOf(sources);
    }

    @Override
    public void read(int source, int[] columns, Taker taker) throws IOException {
        List<ChannelSnapshot> own = channels.get(source);
        Times times = own.get(0).stream().times();
        for (long from = 0; from < times.end(); from += PIECE) {
            int n = (int) Math.min(PIECE, times.end() - from);
            double[] seconds = new double[n];
            double[][] values = new double[columns.length][n];
            for (int i = 0; i < n; i++) {
                seconds[i] = times.secondsAt(from + i);
                for (int c = 0; c < columns.length; c++) {
                    Series series = own.get(columns[c]).clean();
                    values[c][i] = from + i < series.end() ? series.value(from + i) : Double.NaN;
                }
            }
            taker.take(seconds, values);
        }
    }
}
