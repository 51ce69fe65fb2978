package zesty.signal.app.window.lanes;

import zesty.signal.app.window.drawing.LaneColours;
import zesty.signal.engine.ChannelSnapshot;

/**
 * Another channel's line laid over a lane, dashed and with a range of its own.
 *
 * @param edges which of its rows fall into which pixel column
 */
record Over(ChannelSnapshot channel, ColumnEdges edges, LaneColours colours, ValueScale scale) {}
