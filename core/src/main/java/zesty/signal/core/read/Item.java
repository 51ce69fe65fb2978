package zesty.signal.core.read;

import java.util.List;

/** A part of a reading, of one of few shapes, so that whoever shows or writes readings need not know the readers. */
public sealed interface Item {
    /** @return its name in exports; a dot parts a group from the name within it */
    String key();

    /**
     * A number; NaN when there is none.
     *
     * @param uncertainty its standard uncertainty, in the same unit; NaN when it is not known
     */
    record Scalar(String key, double value, double uncertainty) implements Item {
        public Scalar(String key, double value) {
            this(key, value, Double.NaN);
        }
    }

    /** Whether something is so. */
    record Flag(String key, boolean value) implements Item {}

    /** A word. */
    record Word(String key, String text) implements Item {}

    /** Some numbers that belong together but to no moment. */
    record Numbers(String key, String unit, double[] values) implements Item {}

    /**
     * A number over time.
     *
     * @param field what a value is called where each is written with its time
     */
    record Trace(String key, String unit, String field, double[] seconds, double[] values) implements Item {}

    /**
     * What happened, in order of time.
     *
     * @param fields what is written of each; empty for its time alone. {@code t_s}, {@code end_s}, {@code kind} and
     *     {@code size} are the event's own, the others its {@link Event#values()}, in this order
     */
    record Events(String key, List<String> fields, List<Event> events) implements Item {
        public Events {
            fields = List.copyOf(fields);
            events = List.copyOf(events);
        }
    }

    /**
     * Some things of one kind that belong to no moment, such as the lines of a spectrum.
     *
     * @param fields what is written of each: its numbers in this order
     * @param records of each the numbers
     */
    record Records(String key, List<String> fields, List<double[]> records) implements Item {
        public Records {
            fields = List.copyOf(fields);
            records = List.copyOf(records);
        }
    }

    /**
     * Some things of one kind of which more than numbers are told.
     *
     * @param rows of each the cells in the order of the fields: a String, a Double (NaN where it is not known) or a Boolean
     */
    record Rows(String key, List<String> fields, List<List<Object>> rows) implements Item {
        public Rows {
            fields = List.copyOf(fields);
            rows = List.copyOf(rows);
        }
    }
}
