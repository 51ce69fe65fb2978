/**
 * Readers: from a signal to an answer, with how far to trust it and why. A reader takes samples as they come and gives
 * the same answer whatever the size of the pieces; over a whole take it is the same reader, fed the whole take. One
 * instance serves one channel and one thread; readings are values. Times are seconds from the first sample of the
 * recording.
 */
package zesty.signal.core.read;
