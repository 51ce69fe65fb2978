/** The wind reader: speed from the pulses of turning cups, its mean, gust and lull. */
package zesty.signal.core.read.wind;
