/** What is open at the moment and what can be done with it, apart from how it looks. */
package zesty.signal.app.window.workspace;
