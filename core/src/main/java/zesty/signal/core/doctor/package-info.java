/**
 * The signal doctor: what is wrong with a channel, with its evidence, the likely cause and what would do. Pure functions of a
 * stretch of raw numbers. Not thread-safe where there is state; there is none.
 */
package zesty.signal.core.doctor;
