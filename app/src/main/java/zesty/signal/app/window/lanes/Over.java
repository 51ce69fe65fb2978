package zesty.signal.app.window.lanes;

import zesty.signal.app.window.drawing.LaneColours;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.scale.Line;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;

/**
 * Another channel's line laid over a lane, dashed and with a range of its own.
 *
 * @param edges which of its rows fall into which pixel column
 */
record Over(ChannelSnapshot channel, ColumnEdges edges, LaneColours colours, ValueScale scale) {
    /** @return what is laid over, and from where to where it goes */
    String words() {
        Line shown = channel.channel().display();
        String unit = channel.channel().unit();
        return Messages.of(
                "lanes.over-it-to",
                channel.channel().name(),
                Digits.about(shown.apply(scale.low()), 4),
                Digits.about(shown.apply(scale.high()), 4),
                (unit.isEmpty() ? "" : " " + unit));
    }
}
