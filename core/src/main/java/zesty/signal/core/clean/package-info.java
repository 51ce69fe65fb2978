/**
 * Cleaning: recipes of steps, and the stages that run them. A stage works in place on a borrowed array, allocates
 * nothing while it runs, and gives the same result, to the last bit, whatever the size of the blocks. One instance
 * serves one channel and one thread. A missing value (NaN) stays missing and leaves a stage's memory as it was. Null
 * arguments throw.
 */
package zesty.signal.core.clean;
