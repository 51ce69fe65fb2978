/**
 * Lanes: a channel's strip on the screen. The picture itself is painted into pixels by pure code; text, marks and
 * handles are nodes above it. JavaFX thread only, but for the painters, which know no toolkit.
 */
package zesty.signal.app.window.lanes;
