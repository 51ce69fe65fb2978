/** Decisions on readings: bands with hysteresis, so that a value at an edge does not flicker. Pure; one thread an instance. */
package zesty.signal.core.act;
