package zesty.signal.engine;

import java.util.List;
import java.util.Optional;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.sample.Times;

/**
 * Everything there is to see at one moment: of a running trail, or of a stored take.
 *
 * @param links what is known of the link of each source, in the rig's order; at least one
 * @param rig in force, with the format once it is known
 * @param act what is decided and driven; of a stored take nothing
 * @param streams the source's line of samples, or one for each station; empty before the first sample
 */
public record Snapshot(
        List<LinkHealth> links,
        Rig rig,
        List<StreamSnapshot> streams,
        List<ChannelSnapshot> channels,
        RecordingSnapshot recording,
        ActSnapshot act) {

    /** Where nothing is decided. */
    public Snapshot(
            List<LinkHealth> links,
            Rig rig,
            List<StreamSnapshot> streams,
            List<ChannelSnapshot> channels,
            RecordingSnapshot recording) {
        this(links, rig, streams, channels, recording, ActSnapshot.NONE);
    }

    public Snapshot {
        links = List.copyOf(links);
        streams = List.copyOf(streams);
        channels = List.copyOf(channels);
    }

    /** @return what there is to see before anything runs */
    public static Snapshot nothing(Rig rig) {
        return new Snapshot(List.of(LinkHealth.IDLE), rig, List.of(), List.of(), RecordingSnapshot.NONE);
    }

    /** @return what is known of the first source's link */
    public LinkHealth health() {
        return links.get(0);
    }

    /** @return what is known of the link of a source */
    public LinkHealth health(int source) {
        return source < links.size() ? links.get(source) : LinkHealth.IDLE;
    }

    /** @return the state of a line of samples: its source's, or lost when it alone is silent */
    public LinkState state(StreamSnapshot stream, long nanoTime) {
        return stream.state(health(stream.source()).state(), nanoTime);
    }

    public Optional<ChannelSnapshot> channel(String column) {
        return channels.stream()
                .filter(c -> c.channel().column().equals(column))
                .findFirst();
    }

    /** @return the channel in focus: the one chosen, else the first one shown */
    public Optional<ChannelSnapshot> focused(String column) {
        return channel(column)
                .or(() -> channels.stream().filter(c -> c.channel().shown()).findFirst());
    }

    private StreamSnapshot first() {
        return streams.isEmpty() ? StreamSnapshot.NONE : streams.get(0);
    }

    /** @return rows a second, of the first stream; NaN until known */
    public double rateHz() {
        return first().rateHz();
    }

    /** @return rows a second of a source's first stream; NaN until known */
    public double rateHz(int source) {
        return streams.stream()
                .filter(stream -> stream.source() == source)
                .mapToDouble(StreamSnapshot::rateHz)
                .findFirst()
                .orElse(Double.NaN);
    }

    /** @return the times of the first stream; null until the first row has come */
    public Times times() {
        return first().times();
    }

    /** @return whether any sample is at hand */
    public boolean hasSamples() {
        return streams.stream()
                .anyMatch(s -> s.times() != null && s.times().end() > s.times().start());
    }

    /** @return time of the newest row of all; NaN before the first */
    public double lastSeconds() {
        return streams.stream()
                .mapToDouble(StreamSnapshot::lastSeconds)
                .filter(s -> !Double.isNaN(s))
                .max()
                .orElse(Double.NaN);
    }

    /** @return time of the oldest row still at hand; NaN when there is none */
    public double firstSeconds() {
        return streams.stream()
                .filter(s -> s.times() != null && s.times().end() > s.times().start())
                .mapToDouble(s -> s.times().secondsAt(s.times().start()))
                .min()
                .orElse(Double.NaN);
    }

    /** @return the time line's now: with the computer's clock while the link is alive, in s */
    public double nowSeconds(long nanoTime) {
        boolean running = links.stream().anyMatch(l -> l.state() != LinkState.STORED && l.state() != LinkState.OVER);
        double last = lastSeconds();
        long newest = streams.stream()
                .mapToLong(StreamSnapshot::lastArrivalNanos)
                .max()
                .orElse(nanoTime);
        return running ? last + Math.max(0, (nanoTime - newest) * 1e-9) : last;
    }
}
