package zesty.signal.app.window.bench.scale;

import zesty.signal.app.window.workspace.TimeWindow;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.prove.SteadyMean;
import zesty.signal.core.sample.Series;
import zesty.signal.core.sample.Times;
import zesty.signal.engine.ChannelSnapshot;

/** What a channel reads while it is kept steady. */
final class SteadyReading {
    private static final double HELD_SECONDS = 2;
    private static final int MOST = 4000;

    private SteadyReading() {}

    /** @return the steady mean of what the chain gives: of the last seconds, or of what is in sight of a stored take */
    static SteadyMean.Held of(ChannelSnapshot snapshot, Workspace workspace) {
        Series raw = snapshot.raw();
        Times times = snapshot.stream().times();
        boolean live = workspace.shown().isLive();
        TimeWindow inSight = workspace.shown().window();
        double from = live ? snapshot.stream().lastSeconds() - HELD_SECONDS : inSight.from();
        long end = live ? raw.end() : Math.min(raw.end(), times.firstAtOrAfter(inSight.to()));
        long first = Math.max(times.firstAtOrAfter(from), Math.max(raw.start(), end - MOST));
        int n = (int) Math.max(0, end - first);
        double[] values = new double[n];
        boolean alone = snapshot.channel().scaling().columns().isEmpty();
        for (int i = 0; i < n; i++) {
            // What other columns were at each row is in the cleaned signal only.
            values[i] = alone
                    ? snapshot.channel().scaling().apply(raw.value(first + i))
                    : snapshot.clean()
                            .value(Math.min(first + i, snapshot.clean().end() - 1));
        }
        return SteadyMean.of(values, n, snapshot.scalingNow().stepSize());
    }
}
