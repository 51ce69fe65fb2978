/** Help, of one source for the window and for the guide as a page: the texts of a file, and what kinds and steps say of themselves. */
package zesty.signal.app.help;
