package zesty.signal.core.clean;

import zesty.signal.core.sample.SortedWindow;

/** A centred step that asks for the order of what is in its window. */
abstract class Ranked extends Centred {
    private final SortedWindow window;

    Ranked(int half) {
        super(half);
        window = new SortedWindow(2 * half + 1);
    }

    /** @param window what is there of the window, in order, at least one value */
    abstract double answer(double asked, SortedWindow window);

    @Override
    final void moved(double gone, double came) {
        boolean goes = gone == gone;
        boolean comes = came == came;
        if (goes && comes) {
            window.replace(gone, came);
        } else if (goes) {
            window.remove(gone);
        } else if (comes) {
            window.add(came);
        }
    }

    @Override
    final double answer(double asked) {
        return answer(asked, window);
    }

    @Override
    public final void reset() {
        super.reset();
        window.clear();
    }
}
