package zesty.signal.app.window.bench.read;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.read.Reader;
import zesty.signal.core.read.ReaderException;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.Settings;
import zesty.signal.core.read.kinds.ReaderKinds;
import zesty.signal.core.rig.Ports;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;

/** Which kinds of reader fit a channel, and why: each is tried on its last seconds, beside everything else. */
final class KindTrial {
    /** Columns of a kind whose names say that they are meant for it. */
    private static final int MANY = 6;

    /** So much of a signal is tried, so often, while it is asked what to read. */
    private static final double TRIED_SECONDS = 20;

    private static final long TRY_NANOS = 4_000_000_000L;

    private final Workspace workspace;
    private String column = "";
    private long triedNanos;
    private Map<String, String> looks = Map.of();

    KindTrial(Workspace workspace) {
        this.workspace = workspace;
    }

    /** @param beside the columns that come with the same rows. @return whether a kind fits the channel, and why */
    KindTiles.Fit fit(ReaderKind kind, ChannelSnapshot channel, List<String> beside) {
        List<String> takes = Ports.guess(kind, channel.channel().column(), beside);
        if (takes.isEmpty()) {
            return new KindTiles.Fit(sentence(tooFew(kind)), false, false);
        }
        String unit = channel.channel().unit();
        Optional<String> why = kind.unsuited(Settings.of(kind, kind.settingsFor(unit)), unit, channel.rateHz());
        if (why.isPresent()) {
            return new KindTiles.Fit(sentence(why.get()), false, false);
        }
        String like = column.equals(channel.channel().column()) ? looks.getOrDefault(kind.name(), "") : "";
        if (!like.isEmpty()) {
            return new KindTiles.Fit(like, true, true);
        }
        boolean usual = workspace.kinds().all().get().stream()
                .anyMatch(one -> one.name().equals(channel.channel().sensor().kind())
                        && one.reader() != null
                        && one.reader().kind().equals(kind.name()));
        boolean named = takes.size() >= MANY && takes.contains(channel.channel().column()) && Ports.named(kind, takes);
        String all = takes.size() > MANY
                ? Messages.of("bench.read.to-columns", takes.get(0), takes.get(takes.size() - 1), takes.size())
                : String.join(", ", takes);
        String words = usual
                ? Messages.of("bench.read.usual-for-this-sensor")
                : named
                        ? Messages.of("bench.read.its-columns-are-all-here", all)
                        : takes.size() > 1 ? Messages.of("bench.read.takes", all) : "";
        return new KindTiles.Fit(words, true, usual || named);
    }

    static String tooFew(ReaderKind kind) {
        return Messages.of("bench.read.needs-columns-of-the-same-rows", kind.fewestPorts());
    }

    private static String sentence(String words) {
        return Character.toUpperCase(words.charAt(0)) + words.substring(1) + ".";
    }

    /** Lets the kinds that read one column look at its last seconds, now and then. */
    void look(ChannelSnapshot channel) {
        String of = channel.channel().column();
        long now = System.nanoTime();
        if (of.equals(column) && now - triedNanos < TRY_NANOS) {
            return;
        }
        long to = channel.clean().end();
        long from = Math.max(channel.clean().start(), to - Math.round(TRIED_SECONDS * channel.rateHz()));
        if (to <= from || !channel.clean().atHand(from, to)) {
            return;
        }
        if (!of.equals(column)) {
            looks = Map.of();
        }
        column = of;
        triedNanos = now;
        double[] last = new double[(int) (to - from)];
        for (int i = 0; i < last.length; i++) {
            last[i] = channel.clean().value(from + i);
        }
        String unit = channel.channel().unit();
        double rate = channel.rateHz();
        workspace
                .tasks()
                .fetch(
                        Messages.of("bench.read.what-could-be-read-was-not-found"),
                        () -> looks(last, unit, rate),
                        found -> {
                            if (of.equals(column)) {
                                looks = found;
                            }
                        });
    }

    private static Map<String, String> looks(double[] last, String unit, double rate) {
        Map<String, String> looks = new HashMap<>();
        for (ReaderKind kind : ReaderKinds.all()) {
            if (kind.fewestPorts() > 1) {
                continue;
            }
            try {
                Reader reader = kind.reader(Settings.of(kind, kind.settingsFor(unit)), rate);
                reader.accept(new double[][] {last}, last.length, new TimeBase.Steady(0, 1 / rate));
                kind.looksLike(reader.reading()).ifPresent(why -> looks.put(kind.name(), why));
            } catch (ReaderException e) {
                // It does not suit, and its tile says why.
            }
        }
        return looks;
    }
}
