/** Vibration of what turns, by orders, with a mark once a turn as its clock. */
package zesty.signal.core.read.orders;
