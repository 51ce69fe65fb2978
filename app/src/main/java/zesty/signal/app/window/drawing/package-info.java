/**
 * What pictures are drawn with: onto the window, or into a file of lines and letters that any program for drawings reads. JavaFX
 * thread only.
 */
package zesty.signal.app.window.drawing;
