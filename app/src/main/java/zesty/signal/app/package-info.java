/** The launcher. The window is below {@code window}, the command line below {@code command}. */
package zesty.signal.app;
