package zesty.signal.app.wording;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.ScalarInfo;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.LevelNow;
import zesty.signal.engine.LinkState;
import zesty.signal.engine.ReaderSnapshot;
import zesty.signal.engine.Snapshot;

/**
 * What a channel's card says: on the window's right, and on the page for a phone.
 *
 * @param value the number as it is shown; a dash for none
 * @param unit its unit and what it is
 * @param detail a line of what belongs to it, or what keeps it from being read
 * @param segments of eight: how far to trust it; −1 of a level, which has no quality of its own
 * @param lost whether nothing comes any more. @param stale whether the number is not of now
 */
public record CardWords(
        String name, String value, String unit, String detail, int segments, boolean lost, boolean stale) {
    public static final String NONE = "—";

    /**
     * @param levelsOver over which stretch levels are, in words. @param unread what is said while nothing has come
     */
    public static CardWords of(Snapshot snapshot, ChannelSnapshot channel, String levelsOver, String unread) {
        LinkState state = snapshot.state(channel.stream(), System.nanoTime());
        boolean lost = state == LinkState.LOST || state == LinkState.REFUSED;
        boolean stale = lost || state == LinkState.HELD;
        Optional<ReaderSnapshot> reader = channel.reader();
        CardWords words = reader.isPresent()
                ? reading(channel, reader.get(), lost, stale)
                : level(channel, lost, stale, levelsOver, unread);
        if (!stale) {
            return words;
        }
        LinkState link = snapshot.health(channel.stream().source()).state();
        // Also while its link is only late: that is not tried again.
        boolean alone = lost && (link == LinkState.LIVE || link == LinkState.HELD);
        return words.saying((alone ? Messages.of("wording.station") : "")
                + Wording.state(snapshot, channel.stream())
                + (lost && !alone ? Messages.of("wording.the-link-is-tried-again") : ""));
    }

    private CardWords saying(String other) {
        return new CardWords(name, value, unit, other, segments, lost, stale);
    }

    private static CardWords reading(ChannelSnapshot channel, ReaderSnapshot reader, boolean lost, boolean stale) {
        String name = channel.channel().name();
        ReaderKind kind = reader.kind();
        ScalarInfo headline = kind.scalars().get(0);
        Reading reading = reader.reading();
        String[] said = Wording.said(channel, headline, reader.headline());
        String unit = named(said[1], what(kind, headline));
        // What keeps it from being read comes before what a reader guesses meanwhile.
        String trouble = reading == null ? reader.trouble() : channel.trouble();
        if (reading == null || !trouble.isEmpty()) {
            return new CardWords(name, NONE, unit, trouble, 0, lost, stale);
        }
        boolean held = reading.word("state").equals("held");
        List<String> reasons = reading.quality().reasons();
        boolean none = Double.isNaN(reader.headline());
        return new CardWords(
                name,
                lost ? NONE : said[0],
                unit,
                (none || held) && !reasons.isEmpty() ? reasons.get(0) : detail(channel, reader),
                lost ? 0 : reading.quality().segments(),
                lost,
                stale || held);
    }

    /** @return what a number is, such as vibration RMS */
    private static String what(ReaderKind kind, ScalarInfo headline) {
        String title = Messages.within(kind.title());
        return title.contains(headline.words()) ? title : title + " " + headline.words();
    }

    private static String named(String unit, String what) {
        return unit.isEmpty() ? what : unit + " · " + what;
    }

    private static String detail(ChannelSnapshot channel, ReaderSnapshot reader) {
        List<String> parts = new ArrayList<>();
        for (String key : reader.kind().detailKeys()) {
            ScalarInfo scalar = reader.kind().scalar(key);
            double value = reader.reading().scalar(key);
            if (!Double.isNaN(value)) {
                String[] said = Wording.said(channel, scalar, value);
                // A number and its unit stay on one line.
                String part = scalar.words() + " " + said[0] + (said[1].isEmpty() ? "" : " " + said[1]);
                parts.add(part.replace(' ', '\u00a0'));
            }
        }
        return String.join(" · ", parts);
    }

    private static CardWords level(
            ChannelSnapshot channel, boolean lost, boolean stale, String levelsOver, String unread) {
        LevelNow level = channel.level();
        boolean some = level.samples() > 0 && !lost;
        String unit = Messages.token(channel.channel().unit());
        return new CardWords(
                channel.channel().name(),
                some ? Wording.number(channel, level.mean()) : NONE,
                named(unit, Messages.of("wording.mean")),
                some
                        ? Messages.of(
                                "wording.to-in",
                                Wording.number(channel, level.lowest()),
                                Wording.number(channel, level.highest()),
                                (unit.isEmpty() ? "" : " " + unit),
                                levelsOver)
                        : unread,
                -1,
                lost,
                stale);
    }
}
