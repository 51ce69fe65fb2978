/**
 * The window. {@link zesty.signal.app.window.workspace.Workspace} holds what is open and does what the maker asks; parts show it.
 * JavaFX thread only unless a class says otherwise: disk, links and long computation run on the workspace's worker.
 */
package zesty.signal.app.window;
