/** The benches: one picture a stop, worked on directly. Built when first opened. JavaFX thread only. */
package zesty.signal.app.window.bench;
