package zesty.signal.engine;

import java.util.List;
import java.util.Optional;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.sample.Gap;
import zesty.signal.core.sample.TimeRing;

/**
 * Everything there is to see at one moment: of a running trail, or of a stored take.
 *
 * @param rig in force, with the format once it is known
 * @param rateHz rows a second; NaN until known
 * @param times of the rows; null until the first has come
 * @param lastSeconds time of the newest row; NaN before the first
 * @param lastArrivalNanos when that one arrived, by the computer's steady clock
 * @param gaps the newest ones, oldest first
 */
public record Sight(
        LinkHealth health,
        Rig rig,
        double rateHz,
        TimeRing times,
        double lastSeconds,
        long lastArrivalNanos,
        List<ChannelSight> channels,
        List<Gap> gaps,
        RecordingSight recording) {

    public Sight {
        channels = List.copyOf(channels);
        gaps = List.copyOf(gaps);
    }

    /** @return what there is to see before anything runs */
    public static Sight nothing(Rig rig) {
        return new Sight(
                LinkHealth.IDLE, rig, Double.NaN, null, Double.NaN, 0, List.of(), List.of(), RecordingSight.NONE);
    }

    public Optional<ChannelSight> channel(String column) {
        return channels.stream()
                .filter(c -> c.channel().column().equals(column))
                .findFirst();
    }

    /** @return the time line's now: with the computer's clock while the link is alive, in s */
    public double nowSeconds(long nanoTime) {
        boolean running = health.state() != LinkState.STORED && health.state() != LinkState.OVER;
        return running ? lastSeconds + Math.max(0, (nanoTime - lastArrivalNanos) * 1e-9) : lastSeconds;
    }
}
