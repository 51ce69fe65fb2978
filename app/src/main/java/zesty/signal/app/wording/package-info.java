/** How channels, readings and states are put into words, the same in the window, on the phone page and in reports. */
package zesty.signal.app.wording;
