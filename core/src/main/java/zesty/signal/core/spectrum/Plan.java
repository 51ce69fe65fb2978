package zesty.signal.core.spectrum;

import java.util.LinkedHashMap;
import java.util.Map;
import org.jtransforms.fft.DoubleFFT_1D;
import pl.edu.icm.jlargearrays.ConcurrencyUtils;

/**
 * What a transform of one length and window needs: tables that take longer to make than the transform itself. Each thread keeps
 * those it used last, for live readings ask for the same again and again.
 *
 * @param squares sum of the squares of the weights
 */
record Plan(double[] weights, double squares, DoubleFFT_1D transform) {
    private static final int KEPT = 8;
    /** Longer ones are asked for once, of a whole record, and are large. */
    private static final int LONGEST_KEPT = 1 << 16;

    private static final ThreadLocal<Map<Key, Plan>> RECENT =
            ThreadLocal.withInitial(() -> new LinkedHashMap<>(16, 0.75f, true) {
                private static final long serialVersionUID = 1;

                @Override
                protected boolean removeEldestEntry(Map.Entry<Key, Plan> eldest) {
                    return size() > KEPT;
                }
            });

    static {
        // Whoever asks has a thread of its own; the library would start others for each long transform.
        ConcurrencyUtils.setNumberOfThreads(1);
    }

    private record Key(Window window, int length) {}

    static Plan of(Window window, int length) {
        return length > LONGEST_KEPT
                ? made(window, length)
                : RECENT.get().computeIfAbsent(new Key(window, length), key -> made(window, length));
    }

    private static Plan made(Window window, int length) {
        double[] weights = window.weights(length);
        double squares = 0;
        for (double weight : weights) {
            squares += weight * weight;
        }
        return new Plan(weights, squares, new DoubleFFT_1D(length));
    }
}
