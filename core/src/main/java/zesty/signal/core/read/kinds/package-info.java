/** The list of all kinds of readers. */
package zesty.signal.core.read.kinds;
