/** Cells in series: which of them is weak. */
package zesty.signal.core.read.cells;
