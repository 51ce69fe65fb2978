/** The muscle reader: when a muscle works, how hard against its hardest, and how much of the time. */
package zesty.signal.core.read.muscle;
