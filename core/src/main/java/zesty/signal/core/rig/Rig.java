package zesty.signal.core.rig;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.function.UnaryOperator;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.Role;
import zesty.signal.core.decode.Stations;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.scale.Scaling;

/**
 * A saved setup.
 *
 * @param name what the maker calls it
 * @param link where the bytes come from
 * @param format null when it is to be recognised from the stream
 * @param channels in the order of their lanes
 * @param pulses the pulse readers, at most one a channel
 */
public record Rig(String name, SourceSetup link, StreamFormat format, List<Channel> channels, List<PulseSetup> pulses) {

    public Rig {
        Objects.requireNonNull(link, "link");
        if (name.isBlank()) {
            throw new IllegalArgumentException("a rig needs a name");
        }
        channels = List.copyOf(channels);
        pulses = List.copyOf(pulses);
    }

    /** @return a rig that knows nothing but where the bytes come from */
    public static Rig blank(String name, String source) {
        return new Rig(name, SourceSetup.at(source), null, List.of(), List.of());
    }

    /** @return the source's address; empty for none yet */
    public String source() {
        return link.address();
    }

    public Rig withName(String other) {
        return new Rig(other, link, format, channels, pulses);
    }

    public Rig withSource(String other) {
        return withLink(link.withAddress(other));
    }

    public Rig withLink(SourceSetup other) {
        return new Rig(name, other, format, channels, pulses);
    }

    public Rig withFormat(StreamFormat other) {
        return new Rig(name, link, other, channels, pulses);
    }

    public Rig withChannels(List<Channel> others) {
        return new Rig(name, link, format, others, pulses);
    }

    public Rig withPulses(List<PulseSetup> others) {
        return new Rig(name, link, format, channels, others);
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
     *     and columns without a channel get one that leaves them as they came; clocks, sequences and pixels get none.
     *     Where the stream carries stations, theirs come with {@link #withStation}
     */
    public Rig fittedTo(StreamFormat found) {
        List<Channel> fitted = new ArrayList<>();
        for (Channel channel : channels) {
            if (fits(found, channel.column())) {
                fitted.add(channel);
            }
        }
        if (found.indexOf(Role.STATION) < 0) {
            for (Column column : found.columns()) {
                addChannel(fitted, column, column.name(), true);
            }
        }
        List<PulseSetup> kept =
                pulses.stream().filter(pulse -> fits(found, pulse.column())).toList();
        return new Rig(name, link, found, fitted, kept);
    }

    /** @return the rig with channels for a station that turned up; the format must be known */
    public Rig withStation(double station) {
        List<Channel> more = new ArrayList<>(channels);
        // Of each station the first column is shown: six stations with all of theirs would bury each other.
        boolean shown = true;
        for (Column column : format.columns()) {
            if (column.isChannel()) {
                addChannel(more, column, Stations.columnOf(column.name(), station), shown);
                shown = false;
            }
        }
        return withChannels(more);
    }

    private static void addChannel(List<Channel> channels, Column column, String name, boolean shown) {
        boolean there = channels.stream().anyMatch(channel -> channel.column().equals(name));
        if (column.isChannel() && !there) {
            channels.add(new Channel(name, name, Scaling.asItCame(column.unit()), Recipe.NONE, shown));
        }
    }

    private static boolean fits(StreamFormat found, String name) {
        int index = Stations.indexOf(found, name);
        boolean ofStation = !Double.isNaN(Stations.stationOf(found, name));
        return index >= 0 && found.columns().get(index).isChannel() && ofStation == found.indexOf(Role.STATION) >= 0;
    }
}
