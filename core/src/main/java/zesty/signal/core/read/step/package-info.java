/** The step reader: how a thing answers when what drives it is switched. */
package zesty.signal.core.read.step;
