/** What was decided here as C99 for a board: no heap, nothing to link but its own files and libm. The code stands in templates, as resources. */
package zesty.signal.exchange.portable;
