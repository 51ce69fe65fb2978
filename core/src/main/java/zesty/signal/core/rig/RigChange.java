package zesty.signal.core.rig;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Function;
import zesty.signal.core.text.Messages;

/**
 * What differs between two rigs, carried over to a third. The maker works on a rig as it fits the stream of this moment;
 * what was changed of it goes into the rig that is kept, in which all the rest stays. Taking a change back is carrying
 * it over the other way round, whatever has come in between.
 */
public final class RigChange {
    private final Rig before;
    private final Rig after;

    private RigChange(Rig before, Rig after) {
        this.before = before;
        this.after = after;
    }

    public static RigChange between(Rig before, Rig after) {
        return new RigChange(before, after);
    }

    /** @return the change that takes this one back */
    public RigChange reversed() {
        return new RigChange(after, before);
    }

    /** @return whether nothing differs */
    public boolean isNothing() {
        return before.equals(after);
    }

    /** @return what differs, in words such as "cleaning of Heel"; the first of several, and that there is more */
    public String words() {
        List<String> said = new ArrayList<>();
        if (!before.name().equals(after.name())) {
            said.add(Messages.of("rig.the-rig-s-name"));
        }
        for (Channel is : after.channels()) {
            Channel was = find(before.channels(), Channel::column, is.column());
            if (was != null && !was.equals(is)) {
                said.add(words(was, is));
            }
        }
        if (!before.readers().equals(after.readers())) {
            said.add(Messages.of("rig.what-is-read"));
        }
        if (!before.bands().equals(after.bands())) {
            said.add(Messages.of("rig.a-band"));
        }
        if (!before.act().equals(after.act())) {
            said.add(Messages.of("rig.a-rule-or-an-output"));
        }
        if (!before.acknowledged().equals(after.acknowledged())) {
            said.add(Messages.of("rig.a-caution-that-was-read"));
        }
        if (!before.sources().equals(after.sources())) {
            said.add(Messages.of("rig.the-source-s-setup"));
        }
        if (!before.recording().equals(after.recording())) {
            said.add(Messages.of("rig.what-a-recording-goes-by"));
        }
        if (said.isEmpty()) {
            return Messages.of("rig.the-order-of-the-lanes");
        }
        return said.get(0) + (said.size() > 1 ? Messages.of("rig.and-more", (said.size() - 1)) : "");
    }

    /** @return what changed of how numbers are made, for a remark in a recording; empty where nothing did */
    public String remark() {
        List<String> said = new ArrayList<>();
        for (Channel is : after.channels()) {
            Channel was = find(before.channels(), Channel::column, is.column());
            if (was != null && !was.recipe().equals(is.recipe())) {
                said.add(Messages.of(
                        "rig.cleaning-of-is-now",
                        is.name(),
                        (is.recipe().steps().isEmpty() ? "none" : is.recipe().text())));
            }
            if (was != null && !was.scaling().equals(is.scaling())) {
                said.add(Messages.of(
                        "rig.scaling-of-is-now",
                        is.name(),
                        is.scaling().conversion().words(),
                        (is.scaling().unit().isEmpty()
                                ? ""
                                : ", in " + is.scaling().unit())));
            }
        }
        for (ReaderSetup is : after.readers()) {
            ReaderSetup was = find(before.readers(), ReaderSetup::id, is.id());
            if (!is.equals(was)) {
                said.add(Messages.of(
                        "rig.reader",
                        is.id(),
                        (was == null
                                ? Messages.of("rig.added")
                                : Messages.of("rig.set-to", new TreeMap<>(is.settings())))));
            }
        }
        for (ReaderSetup was : before.readers()) {
            if (find(after.readers(), ReaderSetup::id, was.id()) == null) {
                said.add(Messages.of("rig.reader-taken-off", was.id()));
            }
        }
        return said.isEmpty() ? "" : Messages.of("rig.changed", String.join("; ", said));
    }

    private static String words(Channel was, Channel is) {
        String of = " of " + was.name();
        if (was.shown() != is.shown()) {
            return is.shown() ? Messages.of("rig.shown", was.name()) : Messages.of("rig.hidden", was.name());
        } else if (!was.name().equals(is.name())) {
            return Messages.of("rig.the-name", of);
        } else if (!was.recipe().equals(is.recipe())) {
            return Messages.of("rig.cleaning", of);
        } else if (!was.scaling().equals(is.scaling())) {
            return Messages.of("rig.scaling", of);
        } else if (!was.shownIn().equals(is.shownIn())) {
            return Messages.of("rig.the-unit", of);
        } else if (!was.limits().equals(is.limits())) {
            return Messages.of("rig.the-limits", of);
        } else if (!was.proofs().equals(is.proofs())) {
            return Messages.of("rig.a-calibration-check", of);
        }
        return Messages.of("rig.the-sensor", of);
    }

    /** @return the rig with what differs as it is after; sources come and go otherwise and stay */
    public Rig onto(Rig rig) {
        List<Source> sources = new ArrayList<>(rig.sources());
        sources.replaceAll(this::source);
        List<Channel> channels =
                ordered(merged(rig.channels(), before.channels(), after.channels(), Channel::column, streamOrder(rig)));
        List<ReaderSetup> readers =
                merged(rig.readers(), before.readers(), after.readers(), ReaderSetup::id, List.of());
        List<BandSetup> bands = merged(
                rig.bands(), before.bands(), after.bands(), band -> band.reader() + " " + band.scalar(), List.of());
        Set<Caution> acknowledged = EnumSet.noneOf(Caution.class);
        acknowledged.addAll(rig.acknowledged());
        for (Caution caution : Caution.values()) {
            if (before.acknowledged().contains(caution) != after.acknowledged().contains(caution)) {
                if (after.acknowledged().contains(caution)) {
                    acknowledged.add(caution);
                } else {
                    acknowledged.remove(caution);
                }
            }
        }
        String name = before.name().equals(after.name()) ? rig.name() : after.name();
        RecordingSetup recording = before.recording().equals(after.recording()) ? rig.recording() : after.recording();
        ActSetup act = before.act().equals(after.act()) ? rig.act() : after.act();
        return new Rig(name, sources, channels, readers, bands, acknowledged, recording, act);
    }

    private Source source(Source source) {
        Source was = find(before.sources(), Source::name, source.name());
        Source is = find(after.sources(), Source::name, source.name());
        if (was == null || is == null) {
            return source;
        }
        Source changed = was.setup().equals(is.setup()) ? source : source.withSetup(is.setup());
        return Objects.equals(was.format(), is.format()) ? changed : changed.withFormat(is.format());
    }

    private static <T> T find(List<T> all, Function<T, String> name, String wanted) {
        return all.stream()
                .filter(one -> name.apply(one).equals(wanted))
                .findFirst()
                .orElse(null);
    }

    /** @return the columns in the order of the streams, as far as these are known: what is seen may be a part of them */
    private static List<String> streamOrder(Rig rig) {
        List<String> order = new ArrayList<>();
        for (Source source : rig.sources()) {
            if (source.format() != null) {
                source.format().columns().forEach(column -> order.add(source.prefix() + column.name()));
            }
        }
        return order;
    }

    /** @param usual order of what comes new; what it does not name stands as it does after the change */
    private static <T> List<T> merged(
            List<T> onto, List<T> before, List<T> after, Function<T, String> name, List<String> usual) {
        List<T> merged = new ArrayList<>(onto);
        for (T was : before) {
            if (find(after, name, name.apply(was)) == null) {
                merged.removeIf(one -> name.apply(one).equals(name.apply(was)));
            }
        }
        for (T is : after) {
            if (is.equals(find(before, name, name.apply(is)))) {
                continue;
            }
            T there = find(merged, name, name.apply(is));
            if (there == null) {
                List<String> order = usual.contains(name.apply(is))
                        ? usual
                        : after.stream().map(name).toList();
                merged.add(Rig.place(merged.stream().map(name).toList(), order, name.apply(is)), is);
            } else {
                merged.set(merged.indexOf(there), is);
            }
        }
        return merged;
    }

    /** Where the order of the channels was changed, it is taken over for those that both rigs have. */
    private List<Channel> ordered(List<Channel> channels) {
        List<String> was = common(before.channels(), after.channels());
        List<String> is = common(after.channels(), before.channels());
        if (was.equals(is)) {
            return channels;
        }
        List<Channel> inOrder = new ArrayList<>();
        for (Channel channel : after.channels()) {
            channels.stream().filter(c -> c.column().equals(channel.column())).forEach(inOrder::add);
        }
        channels.stream().filter(c -> !inOrder.contains(c)).forEach(inOrder::add);
        return inOrder;
    }

    private static List<String> common(List<Channel> of, List<Channel> with) {
        return of.stream()
                .map(Channel::column)
                .filter(column -> with.stream().anyMatch(c -> c.column().equals(column)))
                .toList();
    }
}
