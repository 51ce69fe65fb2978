/** What people read, in their language: no text of the window stands in code. */
package zesty.signal.core.text;
