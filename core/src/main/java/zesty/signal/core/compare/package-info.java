/** Whether groups of takes differ: means with their spread, and the t tests of two groups. */
package zesty.signal.core.compare;
