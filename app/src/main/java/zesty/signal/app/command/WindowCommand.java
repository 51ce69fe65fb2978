package zesty.signal.app.command;

import java.nio.file.Path;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;
import zesty.signal.app.window.ZestyApplication;

/** Opens the window. */
class WindowCommand implements Callable<Integer> {
    @Override
    public Integer call() {
        return ZestyApplication.open(ZestyApplication.Opening.usual());
    }

    @Command(name = "demo", description = "Opens the window on the demo rig and its takes.")
    static final class Demo extends WindowCommand {
        @Override
        public Integer call() {
            return ZestyApplication.open(ZestyApplication.Opening.demo());
        }
    }

    @Command(name = "pictures", description = "Draws every main view from the demo data into PNG files.")
    static final class Pictures extends WindowCommand {
        @Parameters(paramLabel = "FOLDER")
        private Path folder;

        @Override
        public Integer call() {
            return ZestyApplication.open(ZestyApplication.Opening.pictures(folder));
        }
    }
}
