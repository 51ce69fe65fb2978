/** The angle of a joint between two motion units, one on each side of it. */
package zesty.signal.core.read.joint;
