/** The bench of Act: the band of a number, and what it decides. JavaFX thread only. */
package zesty.signal.app.window.bench.act;
