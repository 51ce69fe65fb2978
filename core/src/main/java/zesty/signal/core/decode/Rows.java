package zesty.signal.core.decode;

/**
 * Decoded rows, by column: {@code columns[c][row]}, of which the first {@code count} rows hold. The receiver owns it.
 */
public record Rows(double[][] columns, int count) {}
