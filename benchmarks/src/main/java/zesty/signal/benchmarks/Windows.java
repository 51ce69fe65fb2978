package zesty.signal.benchmarks;

import java.util.Arrays;
import javafx.application.Application;

/** Starts a benchmark that needs a window: a plain class, so that the toolkit may stand on the class path. */
public final class Windows {
    private Windows() {}

    public static void main(String[] arguments) throws ClassNotFoundException {
        Application.launch(
                Class.forName(arguments[0]).asSubclass(Application.class),
                Arrays.copyOfRange(arguments, 1, arguments.length));
    }
}
