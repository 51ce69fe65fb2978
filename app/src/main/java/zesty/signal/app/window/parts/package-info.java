/** The parts of the window around the lanes. Each is built once and told of each frame's sight. JavaFX thread only. */
package zesty.signal.app.window.parts;
