/** The bench of Clean: the recipe, what it does to signal and spectrum, and suggestions. JavaFX thread only. */
package zesty.signal.app.window.bench.clean;
