package zesty.signal.core.rig;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.function.UnaryOperator;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.scale.Scaling;

/**
 * A saved setup.
 *
 * @param name what the maker calls it
 * @param source where the bytes come from, as {@code record} of the command line takes it; empty for none yet
 * @param format null when it is to be recognised from the stream
 * @param statedRateHz the rate the maker states, used where the board sends no clock; NaN when unknown
 * @param channels in the order of their lanes
 * @param pulses the pulse readers, at most one a channel
 */
public record Rig(
        String name,
        String source,
        DelimitedFormat format,
        double statedRateHz,
        List<Channel> channels,
        List<PulseSetup> pulses) {

    public Rig {
        Objects.requireNonNull(source, "source");
        if (name.isBlank()) {
            throw new IllegalArgumentException("a rig needs a name");
        }
        if (statedRateHz <= 0) {
            throw new IllegalArgumentException("a stated rate is above 0, was " + statedRateHz);
        }
        channels = List.copyOf(channels);
        pulses = List.copyOf(pulses);
    }

    /** @return a rig that knows nothing but where the bytes come from */
    public static Rig blank(String name, String source) {
        return new Rig(name, source, null, Double.NaN, List.of(), List.of());
    }

    public Rig withName(String other) {
        return new Rig(other, source, format, statedRateHz, channels, pulses);
    }

    public Rig withSource(String other) {
        return new Rig(name, other, format, statedRateHz, channels, pulses);
    }

    public Rig withFormat(DelimitedFormat other) {
        return new Rig(name, source, other, statedRateHz, channels, pulses);
    }

    public Rig withChannels(List<Channel> others) {
        return new Rig(name, source, format, statedRateHz, others, pulses);
    }

    public Rig withPulses(List<PulseSetup> others) {
        return new Rig(name, source, format, statedRateHz, channels, others);
    }

    /** @return the same rig with the channel of that column changed */
    public Rig withChannel(String column, UnaryOperator<Channel> change) {
        List<Channel> changed = new ArrayList<>(channels);
        changed.replaceAll(channel -> channel.column().equals(column) ? change.apply(channel) : channel);
        return withChannels(changed);
    }

    public Optional<PulseSetup> pulseOn(String column) {
        return pulses.stream().filter(pulse -> pulse.column().equals(column)).findFirst();
    }

    /**
     * @return the rig as it applies to a stream of that format: channels for columns the stream has not are left out,
     *     and columns without a channel get one that leaves them as they came; the board's clock gets none
     */
    public Rig fittedTo(DelimitedFormat found) {
        List<Channel> fitted = new ArrayList<>();
        for (Channel channel : channels) {
            if (found.indexOf(channel.column()) >= 0) {
                fitted.add(channel);
            }
        }
        for (int c = 0; c < found.columns().size(); c++) {
            Column column = found.columns().get(c);
            boolean clock = found.clock() != null && found.clock().column() == c;
            if (!clock && fitted.stream().noneMatch(ch -> ch.column().equals(column.name()))) {
                fitted.add(
                        new Channel(column.name(), column.name(), Scaling.asItCame(column.unit()), Recipe.NONE, true));
            }
        }
        List<PulseSetup> kept = pulses.stream()
                .filter(pulse -> found.indexOf(pulse.column()) >= 0)
                .toList();
        return new Rig(name, source, found, statedRateHz, fitted, kept);
    }
}
