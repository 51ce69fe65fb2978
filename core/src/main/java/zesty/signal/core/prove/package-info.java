/**
 * Checking a channel against something trusted: reference points, fits with what is left over, uncertainty, and whether
 * the sensor answers at all. Values and pure computation. Null arguments throw.
 */
package zesty.signal.core.prove;
