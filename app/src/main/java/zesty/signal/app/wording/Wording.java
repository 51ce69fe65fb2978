package zesty.signal.app.wording;

import java.util.ArrayList;
import java.util.List;
import zesty.signal.core.act.Band;
import zesty.signal.core.clean.Step;
import zesty.signal.core.read.ScalarInfo;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.LinkState;
import zesty.signal.engine.Snapshot;
import zesty.signal.engine.StreamSnapshot;

/** How channels, recipes and numbers are put into words, the same everywhere. */
public final class Wording {
    /** So far off, as a share, the clock of a board or of this computer may be. */
    private static final double CLOCK_SHARE = 0.0005;

    private static final int SIGNIFICANT = 3;
    private static final double HOUR = 3600;
    private static final double DAY = 24 * HOUR;
    /** A range that is so many times less than a step shows that the step is another: so many parts of it are told. */
    private static final double FINE = 10;

    private static final double FINE_PARTS = 50;
    private static final List<String> SIZED = List.of("A", "W", "Ah", "Wh");

    private Wording() {}

    /** @return the newest cleaned value with as many decimals as its step and noise bear out */
    public static String value(ChannelSnapshot channel) {
        return number(channel, channel.latestClean());
    }

    /** @return a value of the channel with as many decimals as its step and noise bear out */
    public static String number(ChannelSnapshot channel, double value) {
        return Digits.fixed(channel.channel().display().apply(value), decimals(channel));
    }

    /**
     * Decimals that show a tenth of the noise where that is more than a step of the converter, and else the step, or down to
     * a tenth of it where averaging brought the noise below it.
     */
    public static int decimals(ChannelSnapshot channel) {
        double slope = Math.abs(channel.channel().display().slope());
        double step = channel.scalingNow().stepSize();
        double noise = channel.level().noise();
        double range = channel.level().highest() - channel.level().lowest();
        if (channel.channel().scaling().converter() == null && range > 0 && range < step / FINE) {
            // What comes without a converter is taken for whole numbers; this plainly is none.
            step = range / FINE_PARTS;
        }
        double finest = noise > 0 ? Math.max(noise / 10, Math.min(step, Math.max(noise, step / 10))) : step;
        return Digits.decimalsFor(slope * finest);
    }

    /** @return a reader's number as it is shown; a dash for none */
    public static String scalar(ChannelSnapshot channel, ScalarInfo scalar, double value) {
        if (Double.isNaN(value)) {
            return "—";
        }
        if (scalar.decimals() >= 0) {
            return Digits.fixed(value, scalar.decimals());
        }
        // What is no value of the channel has a size of its own.
        return scalar.unit(ScalarInfo.OF_PORT).equals(ScalarInfo.OF_PORT)
                ? number(channel, value)
                : Digits.about(value, SIGNIFICANT);
    }

    /** @return a reader's number as it is shown, and its unit: a long time in hours or days, little current or charge in thousandths */
    public static String[] said(ChannelSnapshot channel, ScalarInfo scalar, double value) {
        String unit = Messages.token(scalar.unit(channel.channel().unit()));
        if (scalar.unit("").equals("s") && value >= 2 * HOUR) {
            return value < 3 * DAY
                    ? new String[] {Digits.about(value / HOUR, SIGNIFICANT), "h"}
                    : new String[] {Digits.about(value / DAY, SIGNIFICANT), Messages.of("wording.days")};
        }
        if (SIZED.contains(scalar.unit("")) && value != 0 && Math.abs(value) < 0.1) {
            boolean little = Math.abs(value) < 1e-4;
            return new String[] {Digits.about(value * (little ? 1e6 : 1e3), SIGNIFICANT), (little ? "µ" : "m") + unit};
        }
        return new String[] {scalar(channel, scalar, value), unit};
    }

    /** @return where a number lies in its band, in a word or two */
    public static String side(Band.Side side) {
        return switch (side) {
            case UNKNOWN -> "—";
            case BELOW -> Messages.of("wording.too-low");
            case INSIDE -> Messages.of("wording.inside");
            case ABOVE -> Messages.of("wording.too-high");
        };
    }

    /** @return the recipe in a few words */
    public static String how(ChannelSnapshot channel) {
        return recipe(channel.channel());
    }

    public static String recipe(Channel channel) {
        if (channel.recipe().steps().isEmpty()) {
            return Messages.of("wording.raw");
        }
        List<String> words = new ArrayList<>();
        for (Step step : channel.recipe().steps()) {
            words.add(step.words());
        }
        return String.join(", ", words);
    }

    /** @return a link's state in a word or two */
    public static String state(LinkState state) {
        return switch (state) {
            case IDLE -> Messages.of("wording.not-connected");
            case CONNECTING -> Messages.of("wording.connecting");
            case WARMING_UP -> Messages.of("wording.warming-up");
            case LIVE -> Messages.of("wording.live");
            case HELD -> Messages.of("wording.stale");
            case LOST -> Messages.of("wording.lost");
            case REFUSED -> Messages.of("wording.refused");
            case OVER -> Messages.of("wording.ended");
            case STORED -> Messages.of("wording.stored");
        };
    }

    /** @return the state of a stream in words, and for how long nothing came where nothing comes */
    public static String state(Snapshot snapshot, StreamSnapshot stream) {
        long now = System.nanoTime();
        LinkState state = snapshot.state(stream, now);
        boolean silent = state == LinkState.LOST || state == LinkState.HELD;
        if (!silent || stream.lastArrivalNanos() == 0) {
            return state(state);
        }
        double seconds = stream.silenceSeconds(now);
        return Messages.of(
                "wording.for", state(state), (seconds < 100 ? Digits.fixed(seconds, 0) + " s" : clock(seconds)));
    }

    /** @return a rate in words: four digits say enough of a measured one, and a whole number where its clock may be that far off */
    public static String rate(double hz) {
        double known = Double.isFinite(hz) ? hz : 0;
        boolean whole = Math.abs(known - Math.rint(known)) <= CLOCK_SHARE * known;
        return Digits.of(new java.math.BigDecimal(whole ? Math.rint(known) : known)
                        .round(new java.math.MathContext(4))
                        .doubleValue())
                + "/s";
    }

    /** @return bytes a second in words, always as wide */
    public static String speed(double bytesPerSecond) {
        return bytesPerSecond >= 1e6
                ? Digits.fixed(bytesPerSecond / 1e6, 2) + " MB/s"
                : bytesPerSecond >= 1000
                        ? Digits.fixed(bytesPerSecond / 1000, 1) + " kB/s"
                        : Digits.fixed(bytesPerSecond, 0) + " B/s";
    }

    /** @return a size in words */
    public static String size(double bytes) {
        return bytes >= 1e9
                ? Digits.fixed(bytes / 1e9, 0) + " GB"
                : bytes >= 1e6
                        ? Digits.fixed(bytes / 1e6, 1) + " MB"
                        : Digits.fixed(Math.max(0, bytes) / 1e3, 0) + " kB";
    }

    /** @return a stretch of time as m:ss or h:mm:ss */
    public static String clock(double seconds) {
        long whole = (long) Math.floor(Math.max(0, seconds));
        return whole >= 3600
                ? String.format(java.util.Locale.ROOT, "%d:%02d:%02d", whole / 3600, whole / 60 % 60, whole % 60)
                : String.format(java.util.Locale.ROOT, "%02d:%02d", whole / 60, whole % 60);
    }

    /** @return an end of the scale, large numbers in thousands */
    public static String end(double value, int decimals) {
        return Math.abs(value) >= 1e5
                ? Digits.fixed(value / 1000, 0) + " k"
                : Digits.fixed(value, Math.max(0, decimals - 1));
    }
}
