/**
 * The window. {@link zesty.signal.app.window.desk.Desk} holds what is open and does what the maker asks; parts show it.
 * JavaFX thread only unless a class says otherwise: disk, links and long computation run on the desk's worker.
 */
package zesty.signal.app.window;
