package zesty.signal.app.window.bench.act;

import java.util.ArrayList;
import java.util.List;
import zesty.signal.core.act.Watch;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.ScalarInfo;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.Snapshot;

/** Something a rule may watch, in words and with its unit. */
record WatchChoice(Watch watch, String words, String unit, boolean events) {
    private static final double WINDOW_SECONDS = 10;

    /** @return what there is to watch: each channel, and the numbers and events of its readers; those of the focused channel first */
    static List<WatchChoice> of(Snapshot snapshot, String focused) {
        List<WatchChoice> first = new ArrayList<>();
        List<WatchChoice> rest = new ArrayList<>();
        for (ChannelSnapshot channel : snapshot.channels()) {
            add(snapshot.rig(), channel, channel.channel().column().equals(focused) ? first : rest);
        }
        first.addAll(rest);
        return first;
    }

    private static void add(Rig rig, ChannelSnapshot snapshot, List<WatchChoice> to) {
        Channel channel = snapshot.channel();
        String unit = channel.scaling().unit();
        to.add(new WatchChoice(new Watch.Column(channel.column()), channel.name(), unit, false));
        for (ReaderSetup reader : rig.readersOn(channel.column())) {
            if (reader.readerKind().fewestPorts() > 1) {
                continue;
            }
            for (ScalarInfo scalar : reader.readerKind().scalars()) {
                to.add(new WatchChoice(
                        new Watch.Number(
                                reader.kind(),
                                channel.column(),
                                reader.settings(),
                                scalar.key(),
                                window(reader.readerKind().windowSeconds())),
                        Messages.of("bench.act.of-2", scalar.words(), channel.name()),
                        scalar.unit(unit),
                        false));
            }
            snapshot.reader(reader.kind()).filter(one -> one.reading() != null).stream()
                    .flatMap(one -> one.reading().items().stream())
                    .filter(Item.Events.class::isInstance)
                    .map(Item.Events.class::cast)
                    .limit(1)
                    .forEach(item -> to.add(new WatchChoice(
                            new Watch.Number(reader.kind(), channel.column(), reader.settings(), "", WINDOW_SECONDS),
                            Messages.of("bench.act.of-2", item.key().replace('_', ' '), channel.name()),
                            "",
                            true)));
        }
    }

    private static double window(double usual) {
        return usual > 0 && usual < 3600 ? usual : WINDOW_SECONDS;
    }

    /** @return what is watched, in words and with its unit; as it is written where it is not there */
    static WatchChoice find(List<WatchChoice> all, Watch watch) {
        return all.stream()
                .filter(one -> one.watch().equals(watch))
                .findFirst()
                .or(() -> all.stream().filter(one -> same(one.watch(), watch)).findFirst())
                .map(one -> new WatchChoice(watch, one.words(), one.unit(), one.events()))
                .orElseGet(() -> new WatchChoice(watch, watch.words(), "", false));
    }

    /** Settings and windows may differ: it is the same number of the same reader. */
    private static boolean same(Watch one, Watch other) {
        return one instanceof Watch.Number a
                && other instanceof Watch.Number b
                && a.kind().equals(b.kind())
                && a.column().equals(b.column())
                && a.number().equals(b.number());
    }

    /** @return the column that it looks at */
    static String column(Watch watch) {
        return watch instanceof Watch.Column one ? one.name() : ((Watch.Number) watch).column();
    }
}
