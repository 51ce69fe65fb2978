package zesty.signal.engine;

import java.util.List;
import java.util.Optional;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.sample.Gap;
import zesty.signal.core.sample.Series;
import zesty.signal.core.scale.Scaling;

/**
 * One channel at one moment.
 *
 * @param stream the line of samples it belongs to
 * @param rateHz its own values a second: those of its stream, unless its column comes with some of the rows only
 * @param raw what arrived, in the column's own numbers; sample i belongs to row i of its stream
 * @param clean the scaled and cleaned signal, in the channel's unit; sample i + {@code lateSamples} belongs to row i
 * @param lateSamples by how many samples the cleaned signal stands behind because it looks ahead
 * @param delaySeconds by how much the cleaned signal is late in all, as far as that is one number
 * @param longestHoleSeconds what is missing for no longer is filled for its recipe and joined in its lane
 * @param latestRaw the newest value as it arrived; NaN when none
 * @param latestClean the newest cleaned value; NaN when none
 * @param level of the cleaned signal
 * @param readers the answers of the readers that have it as their first channel, in the rig's order
 * @param warming whether its newest samples are kept but not read yet, because the board is warming up
 * @param beyond the value furthest beyond the channel's limits lately; NaN while it keeps within
 * @param scalingNow its chain with the other columns that it takes in as they are now
 * @param trouble why the channel cannot be cleaned or read, in words; empty when it can
 */
public record ChannelSnapshot(
        Channel channel,
        StreamSnapshot stream,
        double rateHz,
        Series raw,
        Series clean,
        int lateSamples,
        double delaySeconds,
        double longestHoleSeconds,
        double latestRaw,
        double latestClean,
        LevelNow level,
        List<ReaderSnapshot> readers,
        boolean warming,
        double beyond,
        Scaling scalingNow,
        String trouble) {
    public ChannelSnapshot {
        readers = List.copyOf(readers);
    }

    /** @return how far apart samples may be that a line joins, in s */
    public double joinedSeconds() {
        return Math.max(Gap.PERIODS / rateHz, longestHoleSeconds);
    }

    /** @return whether nothing is read of it yet because a caution comes first; it is recorded, and drawn raw */
    public boolean waits() {
        return trouble.equals(ChannelRunner.WAITS);
    }

    /** @return its first reader; empty when it is read as a level only */
    public Optional<ReaderSnapshot> reader() {
        return readers.stream().findFirst();
    }

    /** @return its reader of that kind */
    public Optional<ReaderSnapshot> reader(String kind) {
        return readers.stream().filter(r -> r.setup().kind().equals(kind)).findFirst();
    }
}
