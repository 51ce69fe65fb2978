/** The bench of Source: which boards there are, what runs, the bytes, orders to the board. JavaFX thread only. */
package zesty.signal.app.window.bench.source;
