package zesty.signal.core.plan;

/** Something that will not do. @param part under whose name it stands, {@code mend} the smallest change that mends it */
public record Fault(String part, String why, String mend) {}
