/** The bench of Decode: which columns the bytes hold, and how they are read by hand. JavaFX thread only. */
package zesty.signal.app.window.bench.decode;
