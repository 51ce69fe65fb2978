/** The level reader: mean, range and noise of a channel, and the bands that it crosses. */
package zesty.signal.core.read.level;
