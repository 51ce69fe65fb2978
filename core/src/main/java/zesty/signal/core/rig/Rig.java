package zesty.signal.core.rig;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.function.IntPredicate;
import java.util.function.UnaryOperator;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.PictureFormat;
import zesty.signal.core.decode.Role;
import zesty.signal.core.decode.Stations;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.picture.PictureSetup;
import zesty.signal.core.scale.Scaling;
import zesty.signal.core.text.Messages;

/**
 * A saved setup. Longer than others: a value with its checks and one small method for each thing that a maker changes.
 *
 * @param name what the maker calls it
 * @param sources where the bytes come from; the first has no name, each of the others one of its own
 * @param channels in the order of their lanes
 * @param readers what is read of them; none twice
 * @param bands what their numbers are meant to stay in, at most one a number
 * @param acknowledged the cautions that the maker has read and acknowledged for this rig
 * @param recording what a recording of it goes by
 * @param act what it decides and drives
 */
public record Rig(
        String name,
        List<Source> sources,
        List<Channel> channels,
        List<ReaderSetup> readers,
        List<BandSetup> bands,
        Set<Caution> acknowledged,
        RecordingSetup recording,
        ActSetup act) {
    /** A rig reads up to so many sources at once. */
    public static final int MOST_SOURCES = 8;

    public Rig {
        if (name.isBlank()) {
            throw new IllegalArgumentException(Messages.of("rig.a-rig-needs-a-name"));
        }
        sources = List.copyOf(sources);
        channels = List.copyOf(channels);
        readers = List.copyOf(readers);
        bands = List.copyOf(bands);
        acknowledged = Set.copyOf(acknowledged);
        if (sources.isEmpty() || sources.size() > MOST_SOURCES) {
            throw new IllegalArgumentException(
                    Messages.of("rig.a-rig-has-1-to-sources-was-to-have", MOST_SOURCES, sources.size()));
        }
        long names = sources.stream().map(Source::name).distinct().count();
        if (!sources.get(0).name().isEmpty() || names < sources.size()) {
            throw new IllegalArgumentException(Messages.of(
                    "rig.a-rig-s-first-source-has-no-name",
                    sources.stream().map(Source::name).toList()));
        }
    }

    /** A rig whose recordings go by nothing of their own, and that decides nothing. */
    public Rig(
            String name,
            List<Source> sources,
            List<Channel> channels,
            List<ReaderSetup> readers,
            List<BandSetup> bands,
            Set<Caution> acknowledged) {
        this(name, sources, channels, readers, bands, acknowledged, RecordingSetup.NONE, ActSetup.NONE);
    }

    /** A rig of one source that reads nothing yet. */
    public Rig(String name, SourceSetup link, StreamFormat format, List<Channel> channels) {
        this(name, List.of(new Source("", link, format)), channels, List.of(), List.of(), Set.of());
    }

    /** @return a rig that knows nothing but where the bytes come from */
    public static Rig blank(String name, String source) {
        return new Rig(name, SourceSetup.at(source), null, List.of());
    }

    private Source first() {
        return sources.get(0);
    }

    /** @return the first source's setup */
    public SourceSetup link() {
        return first().setup();
    }

    /** @return the first source's format; null while it is not known */
    public StreamFormat format() {
        return first().format();
    }

    /** @return the first source's address; empty for none yet */
    public String source() {
        return link().address();
    }

    /** @return index of the source that a channel's column belongs to */
    public int sourceOf(String column) {
        for (int i = 1; i < sources.size(); i++) {
            if (column.startsWith(sources.get(i).prefix())) {
                return i;
            }
        }
        return 0;
    }

    /** @return the name that a channel's column has in its own source */
    public String ownName(String column) {
        return column.substring(sources.get(sourceOf(column)).prefix().length());
    }

    /** @return the format of the source that a channel's column belongs to; null while it is not known */
    public StreamFormat formatOf(String column) {
        return sources.get(sourceOf(column)).format();
    }

    public Rig withName(String other) {
        return new Rig(other, sources, channels, readers, bands, acknowledged, recording, act);
    }

    /** @return the same rig with its first source at another address */
    public Rig withSource(String other) {
        return withSource(0, source -> source.withSetup(source.setup().withAddress(other)));
    }

    /** @return the same rig with a source changed; its name stays */
    public Rig withSource(int index, UnaryOperator<Source> change) {
        List<Source> changed = new ArrayList<>(sources);
        changed.set(index, change.apply(sources.get(index)));
        return new Rig(name, changed, channels, readers, bands, acknowledged, recording, act);
    }

    /**
     * @return the same rig with other things made of a source's pictures; itself where it sends none. What a surface sends is a
     *     temperature: numbers without a unit are °C once its emissivity is known
     */
    public Rig withPicture(int index, UnaryOperator<PictureSetup> change) {
        if (!(sources.get(index).format() instanceof PictureFormat picture)) {
            return this;
        }
        PictureFormat made = picture.withSetup(change.apply(picture.setup()));
        Rig changed = withSource(index, source -> source.withFormat(made));
        if (made.setup().mend().emissivity() == 1) {
            return changed;
        }
        for (Column column : made.columns()) {
            boolean degrees = column.unit().equals(made.columns().get(0).unit());
            changed = changed.withChannel(
                    sources.get(index).prefix() + column.name(),
                    one -> degrees && one.scaling().unit().isEmpty()
                            ? one.withScaling(
                                    one.scaling().withConversion(one.scaling().conversion(), "\u00b0C"))
                            : one);
        }
        return changed;
    }

    /** @return the same rig with another source after the others, under a name made of the given one */
    public Rig joined(String called, SourceSetup setup) {
        String plain = called.replaceAll("[^\\p{L}\\p{N} _-]", " ").strip();
        String base = plain.isEmpty() ? "source" : plain;
        String own = base;
        for (int n = 2; taken(own); n++) {
            own = base + " " + n;
        }
        List<Source> more = new ArrayList<>(sources);
        more.add(new Source(own, setup, null));
        return new Rig(name, more, channels, readers, bands, acknowledged, recording, act);
    }

    private boolean taken(String called) {
        return sources.stream().anyMatch(source -> source.name().equals(called));
    }

    /** @return the same rig without one of its later sources and what was made of it */
    public Rig without(int index) {
        if (index < 1) {
            throw new IllegalArgumentException(Messages.of("rig.a-rig-keeps-its-first-source"));
        }
        List<Source> fewer = new ArrayList<>(sources);
        fewer.remove(index);
        List<ReaderSetup> left = readers.stream()
                .filter(r -> r.columns().stream().noneMatch(c -> sourceOf(c) == index))
                .toList();
        return new Rig(
                name,
                fewer,
                channels.stream().filter(c -> sourceOf(c.column()) != index).toList(),
                left,
                bands.stream()
                        .filter(b -> left.stream().anyMatch(r -> r.id().equals(b.reader())))
                        .toList(),
                acknowledged,
                recording,
                act);
    }

    /** @return the same rig with its first source set up otherwise */
    public Rig withLink(SourceSetup other) {
        return withSource(0, source -> source.withSetup(other));
    }

    /** @return the same rig with its first source in another format */
    public Rig withFormat(StreamFormat other) {
        return withSource(0, source -> source.withFormat(other));
    }

    /** @return the same rig whose recordings go by something else */
    public Rig withRecording(RecordingSetup other) {
        return new Rig(name, sources, channels, readers, bands, acknowledged, other, act);
    }

    /** @return the same rig that decides and drives something else */
    public Rig withAct(ActSetup other) {
        return new Rig(name, sources, channels, readers, bands, acknowledged, recording, other);
    }

    public Rig withChannels(List<Channel> others) {
        return new Rig(name, sources, others, readers, bands, acknowledged, recording, act);
    }

    public Rig withReaders(List<ReaderSetup> others, List<BandSetup> otherBands) {
        return new Rig(name, sources, channels, others, otherBands, acknowledged, recording, act);
    }

    /** @return the same rig with a reader, in the place of one of the same kind and columns; the usual bands come with it */
    public Rig withReader(ReaderSetup reader) {
        List<ReaderSetup> more = new ArrayList<>(readers);
        int at = indexOf(reader.id());
        if (at >= 0) {
            more.set(at, reader);
            return withReaders(more, bands);
        }
        more.add(reader);
        List<BandSetup> moreBands = new ArrayList<>(bands);
        reader.readerKind()
                .usualBands()
                .forEach((scalar, band) -> moreBands.add(new BandSetup(reader.id(), scalar, band)));
        return withReaders(more, moreBands);
    }

    /** @return the same rig without a reader and its bands */
    public Rig withoutReader(String id) {
        return withReaders(
                readers.stream().filter(r -> !r.id().equals(id)).toList(),
                bands.stream().filter(b -> !b.reader().equals(id)).toList());
    }

    /** @return the same rig with a band on a number, in the place of the one there was */
    public Rig withBand(BandSetup band) {
        List<BandSetup> more = new ArrayList<>(bands);
        more.removeIf(b -> b.reader().equals(band.reader()) && b.scalar().equals(band.scalar()));
        more.add(band);
        return withReaders(readers, more);
    }

    /** @return the same rig without the band on a number */
    public Rig withoutBand(String reader, String scalar) {
        return withReaders(
                readers,
                bands.stream()
                        .filter(b -> !(b.reader().equals(reader) && b.scalar().equals(scalar)))
                        .toList());
    }

    private int indexOf(String reader) {
        for (int i = 0; i < readers.size(); i++) {
            if (readers.get(i).id().equals(reader)) {
                return i;
            }
        }
        return -1;
    }

    /** @return the readers that have the column as their first */
    public List<ReaderSetup> readersOn(String column) {
        return readers.stream()
                .filter(r -> !r.columns().isEmpty() && r.columns().get(0).equals(column))
                .toList();
    }

    /** @return the bands on a reader's numbers */
    public List<BandSetup> bandsOn(String reader) {
        return bands.stream().filter(b -> b.reader().equals(reader)).toList();
    }

    /** @return the same rig with a column called otherwise: its channel, readers and bands go along */
    public Rig renamed(String column, String other, String name) {
        List<Channel> moved = new ArrayList<>(channels);
        moved.removeIf(channel -> channel.column().equals(other));
        moved.replaceAll(channel -> channel.column().equals(column) ? channel.onColumn(other, name) : channel);
        List<ReaderSetup> movedReaders = new ArrayList<>();
        List<BandSetup> movedBands = new ArrayList<>(bands);
        for (ReaderSetup reader : readers) {
            ReaderSetup now = reader.onColumns(reader.columns().stream()
                    .map(c -> c.equals(column) ? other : c)
                    .toList());
            movedReaders.add(now);
            movedBands.replaceAll(
                    b -> b.reader().equals(reader.id()) ? new BandSetup(now.id(), b.scalar(), b.band()) : b);
        }
        return withChannels(moved).withReaders(movedReaders, movedBands).withAct(act.renamed(column, other));
    }

    /** @return the same rig with the channel of that column changed */
    public Rig withChannel(String column, UnaryOperator<Channel> change) {
        List<Channel> changed = new ArrayList<>(channels);
        changed.replaceAll(channel -> channel.column().equals(column) ? change.apply(channel) : channel);
        return withChannels(changed);
    }

    /** @return the cautions of its sensors and readers that are not acknowledged yet, those that come first first */
    public List<Caution> cautions() {
        Set<Caution> due = EnumSet.noneOf(Caution.class);
        for (Channel channel : channels) {
            cautionOf(channel).ifPresent(due::add);
        }
        act.uses().values().forEach(use -> use.takesCare().ifPresent(due::add));
        due.removeAll(acknowledged);
        return List.copyOf(due);
    }

    /** What is read of a body is on one, whether or not the maker said what the sensor is; but not what is made up. */
    private Optional<Caution> cautionOf(Channel channel) {
        return readers.stream()
                                .anyMatch(r -> r.columns().contains(channel.column())
                                        && r.readerKind().onBody())
                        && !madeUp(channel)
                ? Optional.of(Caution.BODY)
                : channel.sensor().takesCare();
    }

    private boolean madeUp(Channel channel) {
        return sources.get(sourceOf(channel.column())).setup().madeUp();
    }

    /** @return whether an output's lines are sent: it is live, and its caution has been read */
    public boolean drives(String output) {
        OutputUse use = act.use(output);
        return use.live() && use.takesCare().map(acknowledged::contains).orElse(true);
    }

    /** @return whether nothing may be read of the channel yet: it is of a real board and its caution comes first */
    public boolean waits(Channel channel) {
        return !madeUp(channel)
                && cautionOf(channel)
                        .filter(caution -> caution.comesFirst() && !acknowledged.contains(caution))
                        .isPresent();
    }

    /** @return the same rig with a caution acknowledged */
    public Rig acknowledging(Caution caution) {
        Set<Caution> more = EnumSet.of(caution);
        more.addAll(acknowledged);
        return new Rig(name, sources, channels, readers, bands, more, recording, act);
    }

    /** As {@link #fittedTo(int, StreamFormat)}, of the first source. */
    public Rig fittedTo(StreamFormat found) {
        return fittedTo(0, found);
    }

    /**
     * @return the rig as it applies to a source's stream of that format: channels and readers of columns the stream has
     *     not are left out, and columns without a channel get one that leaves them as they came; clocks, sequences and
     *     pixels get none. Where the stream carries stations, theirs come with {@link #withStation}. What is left out is
     *     not lost: the maker's own rig keeps it, see {@link RigChange}
     */
    public Rig fittedTo(int index, StreamFormat found) {
        List<Channel> fitted = new ArrayList<>();
        for (Channel channel : channels) {
            if (sourceOf(channel.column()) != index || fits(found, ownName(channel.column()))) {
                fitted.add(channel);
            }
        }
        if (found.indexOf(Role.STATION) < 0) {
            for (Column column : found.columns()) {
                addChannel(fitted, index, found.columns(), column, Column::name, true);
            }
        }
        List<ReaderSetup> kept = readers.stream()
                .filter(reader -> reader.columns().stream()
                        .allMatch(column -> sourceOf(column) != index || fits(found, ownName(column))))
                .toList();
        return withSource(index, source -> source.withFormat(found))
                .withChannels(fitted)
                .withReaders(
                        kept,
                        bands.stream()
                                .filter(b -> kept.stream().anyMatch(r -> r.id().equals(b.reader())))
                                .toList());
    }

    /** @return the rig with channels for a station of a source that turned up; the format must be known */
    public Rig withStation(int index, double station) {
        return withStation(index, station, "", column -> true);
    }

    /**
     * @param called what the station is called; empty for its number. @param sent which columns of the stream come from it at all
     * @return the rig with channels for a station of a source that turned up; the format must be known
     */
    public Rig withStation(int index, double station, String called, IntPredicate sent) {
        List<Channel> more = new ArrayList<>(channels);
        // Of each station the first column is shown: six stations with all of theirs would bury each other.
        boolean shown = true;
        List<Column> columns = sources.get(index).format().columns();
        for (int c = 0; c < columns.size(); c++) {
            Column column = columns.get(c);
            if (column.isChannel() && sent.test(c)) {
                int before = more.size();
                addChannel(more, index, columns, column, one -> Stations.columnOf(one.name(), station), shown);
                if (more.size() > before && !called.isEmpty()) {
                    String full = sources.get(index).prefix() + Stations.columnOf(column.name(), station);
                    String spoken = column.name().equals(Stations.BARE) ? called : called + " " + column.name();
                    more.replaceAll(one -> one.column().equals(full) ? one.withName(spoken) : one);
                }
                shown = false;
            }
        }
        return withChannels(more);
    }

    private void addChannel(
            List<Channel> to,
            int index,
            List<Column> columns,
            Column column,
            Function<Column, String> own,
            boolean shown) {
        Source source = sources.get(index);
        String called = own.apply(column);
        String full = source.prefix() + called;
        boolean there = to.stream().anyMatch(channel -> channel.column().equals(full));
        if (column.isChannel() && !there) {
            boolean taken = to.stream().anyMatch(channel -> channel.name().equals(called));
            String spoken = taken && index > 0 ? source.name() + " " + called : called;
            List<String> order =
                    columns.stream().map(c -> source.prefix() + own.apply(c)).toList();
            to.add(
                    place(to.stream().map(Channel::column).toList(), order, full),
                    new Channel(full, spoken, scaling(to, source, columns, column), Recipe.NONE, shown));
        }
    }

    /** A part of a picture is scaled as the whole of it, but for shares. */
    private static Scaling scaling(List<Channel> there, Source source, List<Column> columns, Column column) {
        boolean alike = column.role() == Role.REGION
                && column.unit().equals(columns.get(0).unit());
        String whole = source.prefix() + columns.get(0).name();
        return there.stream()
                .filter(one -> alike && one.column().equals(whole))
                .map(Channel::scaling)
                .findFirst()
                .orElse(Scaling.asItCame(column.unit()));
    }

    /**
     * What is new stands beside its neighbours, wherever the maker has put these.
     *
     * @param there what is in the list by now
     * @param order in which things usually stand, the new one among them
     * @return the index at which it is put in
     */
    static int place(List<String> there, List<String> order, String fresh) {
        int own = order.indexOf(fresh);
        for (int before = own - 1; before >= 0; before--) {
            if (there.contains(order.get(before))) {
                return there.indexOf(order.get(before)) + 1;
            }
        }
        for (int after = own + 1; after < order.size(); after++) {
            if (there.contains(order.get(after))) {
                return there.indexOf(order.get(after));
            }
        }
        return there.size();
    }

    private static boolean fits(StreamFormat found, String name) {
        int index = Stations.indexOf(found, name);
        boolean ofStation = !Double.isNaN(Stations.stationOf(found, name));
        return index >= 0 && found.columns().get(index).isChannel() && ofStation == found.indexOf(Role.STATION) >= 0;
    }
}
