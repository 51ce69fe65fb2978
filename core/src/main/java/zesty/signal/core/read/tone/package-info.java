/** The tone reader: the fundamental of a sound and its level. */
package zesty.signal.core.read.tone;
