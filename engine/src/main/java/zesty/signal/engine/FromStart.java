package zesty.signal.engine;

import java.nio.file.Path;
import java.time.Instant;

/**
 * A recording to begin with the first row of a trail.
 *
 * @param only nothing else is made of the rows: no lanes, no readings
 */
public record FromStart(Path file, String title, RecordingPlan plan, Instant started, boolean only) {
    public FromStart(Path file, String title, RecordingLimit limit, Instant started) {
        this(file, title, RecordingPlan.now(limit), started, false);
    }
}
