package zesty.signal.app;

import java.nio.file.Path;
import zesty.signal.app.command.Commands;
import zesty.signal.app.window.ZestyApplication;
import zesty.signal.app.window.workspace.Places;
import zesty.signal.app.wording.Language;
import zesty.signal.boards.link.Watchdog;

/** The launcher: a plain class, so that the window toolkit may stand on the class path. */
public final class Zesty {
    private Zesty() {}

    public static void main(String[] arguments) throws InterruptedException {
        if (arguments.length == 1 && arguments[0].equals("watchdog")) {
            Watchdog.main(arguments);
            return;
        }
        String first = arguments.length == 0 ? "" : arguments[0];
        boolean file = arguments.length == 1 && (first.endsWith(".zest") || first.endsWith(".zrig"));
        if (first.equals("pictures")) {
            // What stands in constants is read once, so the language comes first. The command line speaks English.
            Language.speak(Places.usual().demo().language());
        }
        // The window does without the command line's machinery, which would cost a fifth of a second of its start.
        boolean usual = arguments.length == 0;
        boolean demo = arguments.length == 1 && arguments[0].equals("demo");
        System.exit(
                usual || file
                        ? ZestyApplication.open(ZestyApplication.Opening.usual().with(file ? Path.of(first) : null))
                        : demo ? ZestyApplication.open(ZestyApplication.Opening.demo()) : Commands.run(arguments));
    }
}
