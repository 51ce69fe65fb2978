package zesty.signal.core.doctor;

/**
 * Something wrong with a signal.
 *
 * @param evidence what was measured, with its numbers
 * @param cause what is likely behind it
 * @param remedy what to do about it
 * @param recipe steps that take it out, to be put before the others; empty where no cleaning can
 */
public record Finding(Diagnosis diagnosis, String evidence, String cause, String remedy, String recipe) {}
