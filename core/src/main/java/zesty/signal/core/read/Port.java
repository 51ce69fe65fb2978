package zesty.signal.core.read;

/**
 * One signal that a reader takes in.
 *
 * @param key its short name, as {@code ax}
 * @param unit the unit it is meant to come in; empty for any
 * @param words what it is
 */
public record Port(String key, String unit, String words) {}
