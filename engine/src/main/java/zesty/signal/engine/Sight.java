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
 * @param strands the source's line of samples, or one for each station; empty before the first sample
 */
public record Sight(
        List<LinkHealth> links,
        Rig rig,
        List<StrandSight> strands,
        List<ChannelSight> channels,
        RecordingSight recording) {

    public Sight {
        links = List.copyOf(links);
        strands = List.copyOf(strands);
        channels = List.copyOf(channels);
    }

    /** @return what there is to see before anything runs */
    public static Sight nothing(Rig rig) {
        return new Sight(List.of(LinkHealth.IDLE), rig, List.of(), List.of(), RecordingSight.NONE);
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
    public LinkState state(StrandSight strand, long nanoTime) {
        return strand.state(health(strand.source()).state(), nanoTime);
    }

    public Optional<ChannelSight> channel(String column) {
        return channels.stream()
                .filter(c -> c.channel().column().equals(column))
                .findFirst();
    }

    private StrandSight first() {
        return strands.isEmpty() ? StrandSight.NONE : strands.get(0);
    }

    /** @return rows a second, of the first strand; NaN until known */
    public double rateHz() {
        return first().rateHz();
    }

    /** @return rows a second of a source's first strand; NaN until known */
    public double rateHz(int source) {
        return strands.stream()
                .filter(strand -> strand.source() == source)
                .mapToDouble(StrandSight::rateHz)
                .findFirst()
                .orElse(Double.NaN);
    }

    /** @return the times of the first strand; null until the first row has come */
    public Times times() {
        return first().times();
    }

    /** @return whether any sample is at hand */
    public boolean hasSamples() {
        return strands.stream()
                .anyMatch(s -> s.times() != null && s.times().end() > s.times().start());
    }

    /** @return time of the newest row of all; NaN before the first */
    public double lastSeconds() {
        return strands.stream()
                .mapToDouble(StrandSight::lastSeconds)
                .filter(s -> !Double.isNaN(s))
                .max()
                .orElse(Double.NaN);
    }

    /** @return time of the oldest row still at hand; NaN when there is none */
    public double firstSeconds() {
        return strands.stream()
                .filter(s -> s.times() != null && s.times().end() > s.times().start())
                .mapToDouble(s -> s.times().secondsAt(s.times().start()))
                .min()
                .orElse(Double.NaN);
    }

    /** @return the time line's now: with the computer's clock while the link is alive, in s */
    public double nowSeconds(long nanoTime) {
        boolean running = links.stream().anyMatch(l -> l.state() != LinkState.STORED && l.state() != LinkState.OVER);
        double last = lastSeconds();
        long newest =
                strands.stream().mapToLong(StrandSight::lastArrivalNanos).max().orElse(nanoTime);
        return running ? last + Math.max(0, (nanoTime - newest) * 1e-9) : last;
    }
}
