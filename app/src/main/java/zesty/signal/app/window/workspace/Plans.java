package zesty.signal.app.window.workspace;

import java.util.ArrayList;
import java.util.List;
import zesty.signal.core.plan.Draft;

/** What is known of a planned stream before it comes. */
final class Plans {
    private Plans() {}

    /** @param names of the channels as the recogniser will call them */
    record Columns(List<String> names) {}

    /** In text the clock is the first column without a name; of packets the clock is called so. */
    static Columns columns(Draft plan) {
        List<String> names = new ArrayList<>();
        for (int c = 1; c <= plan.channels(); c++) {
            names.add("column" + (plan.packets() ? c : c + 1));
        }
        return new Columns(names);
    }
}
