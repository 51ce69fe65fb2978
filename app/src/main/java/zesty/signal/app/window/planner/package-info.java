/** The planner: whether a setup will work, before it is wired. */
package zesty.signal.app.window.planner;
