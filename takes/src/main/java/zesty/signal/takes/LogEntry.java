package zesty.signal.takes;

import java.util.List;

/**
 * What is to be written into the logbook of one take, all of it or nothing.
 *
 * @param title the new title; null to leave it
 * @param note a line more in the notes; null for none
 * @param tags to be put on
 * @param untags to be taken off
 * @param marks to be added
 */
public record LogEntry(String title, String note, List<String> tags, List<String> untags, List<Mark> marks) {
    public LogEntry {
        tags = tags.stream().map(String::strip).toList();
        untags = untags.stream().map(String::strip).toList();
        marks = List.copyOf(marks);
    }

    public static LogEntry titled(String title) {
        return new LogEntry(title, null, List.of(), List.of(), List.of());
    }

    boolean isNothing() {
        return title == null && note == null && tags.isEmpty() && untags.isEmpty() && marks.isEmpty();
    }
}
