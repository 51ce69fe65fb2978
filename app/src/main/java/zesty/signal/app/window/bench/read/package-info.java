/** The bench of Read: choosing a kind of reader, its answer, its picture and its guides. JavaFX thread only. */
package zesty.signal.app.window.bench.read;
