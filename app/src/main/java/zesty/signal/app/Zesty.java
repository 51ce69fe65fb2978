package zesty.signal.app;

import zesty.signal.app.command.Commands;
import zesty.signal.app.window.ZestyApplication;
import zesty.signal.boards.link.Watchdog;

/** The launcher: a plain class, so that the window toolkit may stand on the class path. */
public final class Zesty {
    private Zesty() {}

    public static void main(String[] arguments) throws InterruptedException {
        if (arguments.length == 1 && arguments[0].equals("watchdog")) {
            Watchdog.main(arguments);
            return;
        }
        // The window does without the command line's machinery, which would cost a fifth of a second of its start.
        boolean usual = arguments.length == 0;
        boolean demo = arguments.length == 1 && arguments[0].equals("demo");
        System.exit(
                usual
                        ? ZestyApplication.open(ZestyApplication.Opening.usual())
                        : demo ? ZestyApplication.open(ZestyApplication.Opening.demo()) : Commands.run(arguments));
    }
}
