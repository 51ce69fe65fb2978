package zesty.signal.app;

import zesty.signal.app.command.Commands;

/** The launcher: a plain class, so that the window toolkit may stand on the class path. */
public final class Zesty {
    private Zesty() {}

    public static void main(String[] arguments) {
        System.exit(Commands.run(arguments));
    }
}
