package zesty.signal.app.window.lanes;

import javafx.scene.control.Label;
import zesty.signal.app.wording.Wording;
import zesty.signal.core.read.muscle.Muscle;
import zesty.signal.core.sample.Gap;
import zesty.signal.core.sample.Times;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;

/** Time and value under the pointer, beside it. */
final class ReadOut extends Label {
    ReadOut() {
        getStyleClass().add("lane-read-out");
        setVisible(false);
    }

    /**
     * Shows time and value under the pointer.
     *
     * @param raw whether the lane shows the raw signal
     * @param x where the pointer is, in pixels; {@code zero} the moment that times count from; {@code step} of a pixel, in s
     */
    void show(
            ChannelSnapshot channel,
            boolean raw,
            ColumnEdges edges,
            double x,
            double zero,
            double step,
            int width,
            int height) {
        double seconds = edges.secondsAt((int) Math.round(x));
        Times times = channel.stream().times();
        long row = times.firstAtOrAfter(seconds);
        long sample = row + channel.lateSamples();
        boolean there = row < times.end()
                && sample < channel.clean().end()
                && Math.abs(times.secondsAt(row) - seconds) < Math.max(Gap.PERIODS / channel.rateHz(), 3 * step);
        String time = TimeTicks.text(times.secondsAt(Math.min(row, times.end() - 1)) - zero, step);
        String unitText = channel.channel().unit();
        setText(
                there
                        ? time + "   " + shown(channel, raw, row, sample) + (unitText.isEmpty() ? "" : " " + unitText)
                                + pull(channel, seconds)
                        : Messages.of("lanes.no-sample-here"));
        setVisible(true);
        autosize();
        double left = x + 14 + getWidth() > width ? x - 14 - getWidth() : x + 14;
        relocate(left, height / 2.0 - 10);
    }

    /** @return the value in words; of a long take one that is still being fetched is told when it has come */
    private static String shown(ChannelSnapshot channel, boolean raw, long row, long sample) {
        if (raw) {
            return channel.raw().atHand(row, row + 1)
                    ? Wording.number(
                            channel, channel.scalingNow().apply(channel.raw().value(row)))
                    : "…";
        }
        return channel.clean().atHand(sample, sample + 1)
                ? Wording.number(channel, channel.clean().value(sample))
                : "…";
    }

    /** @return of a pull under the pointer, its percent of the hardest */
    private static String pull(ChannelSnapshot channel, double seconds) {
        return channel.readers().stream()
                .filter(reader -> reader.setup().kind().equals(Muscle.NAME) && reader.reading() != null)
                .flatMap(reader -> reader.reading().events(Muscle.BURSTS).stream())
                .filter(pull -> seconds >= pull.startSeconds() && seconds <= pull.endSeconds())
                .map(pull -> Messages.of("lanes.pull-of", Digits.fixed(pull.values()[Muscle.PERCENT_FIELD], 0)))
                .findFirst()
                .orElse("");
    }
}
