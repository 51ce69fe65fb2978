/**
 * Samples in columns and the time they belong to. Everything here is a value or is owned by one writer; classes that
 * may be looked at from a second thread say so. Times are seconds from the recording's first sample. A missing value
 * is NaN. Null arguments throw.
 */
package zesty.signal.core.sample;
