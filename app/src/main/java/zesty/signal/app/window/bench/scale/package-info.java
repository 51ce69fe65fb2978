/** The bench of Scale: from counts to the quantity, and calibration against a reference. JavaFX thread only. */
package zesty.signal.app.window.bench.scale;
