/**
 * From bytes to columns of numbers with a time base. Whatever the bytes are, nothing here throws for them: what is not
 * understood is set aside, counted, and kept for looking at. One instance serves one stream and one thread. A value
 * that is missing is NaN. Null arguments throw.
 */
package zesty.signal.core.decode;
