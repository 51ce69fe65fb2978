/** The vibration reader: how strong a shaking is, how spiky, and which tones it is made of. */
package zesty.signal.core.read.vibration;
