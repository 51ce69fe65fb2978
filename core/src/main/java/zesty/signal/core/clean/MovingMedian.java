package zesty.signal.core.clean;

import zesty.signal.core.sample.SortedWindow;

/** The median of the window around each sample. */
final class MovingMedian extends Ranked {
    MovingMedian(int samples) {
        super(samples / 2);
    }

    @Override
    double answer(double asked, SortedWindow window) {
        return window.median();
    }
}
