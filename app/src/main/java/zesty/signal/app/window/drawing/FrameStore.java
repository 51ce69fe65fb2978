package zesty.signal.app.window.drawing;

import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;
import zesty.signal.app.window.workspace.BackgroundTasks;
import zesty.signal.core.picture.Film;
import zesty.signal.core.text.Messages;

/** Pictures for the window, made right: those of a file are fetched beside its thread and kept for a while. JavaFX thread only. */
public final class FrameStore {
    private static final int KEPT = 256;

    private final BackgroundTasks tasks;
    private final Map<Long, double[]> kept = new LinkedHashMap<>();
    private final Set<Long> asked = new HashSet<>();
    private Film of;

    public FrameStore(BackgroundTasks tasks) {
        this.tasks = tasks;
    }

    /** @return the picture of a row as it came; null where it is missing, or not there yet */
    public double[] raw(Film film, long row) {
        if (film.isAtHand()) {
            return film.raw(row);
        }
        if (of == null || !film.sameSource(of)) {
            of = film;
            kept.clear();
            asked.clear();
        }
        double[] frame = kept.get(row);
        if (frame == null && asked.add(row)) {
            tasks.fetch(Messages.of("drawing.a-picture-cannot-be-read"), () -> film.raw(row), came -> {
                if (of != null && film.sameSource(of)) {
                    if (came != null) {
                        kept.put(row, came);
                    }
                    if (kept.size() > KEPT) {
                        Long oldest = kept.keySet().iterator().next();
                        kept.remove(oldest);
                        asked.remove(oldest);
                    }
                }
            });
        }
        return frame;
    }

    /** @return the picture of a row made right; null where it is missing, or not there yet */
    public double[] frame(Film film, long row) {
        double[] came = raw(film, row);
        return came == null ? null : film.setup().mend().of(came, film.width());
    }
}
