/** The motion reader: lean, turn, steps and what happened to a board that is carried, tapped or dropped. */
package zesty.signal.core.read.motion;
