package zesty.signal.app.command;

import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import zesty.signal.app.window.ZestyApplication;
import zesty.signal.app.window.workspace.TextSize;

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
        @Parameters(index = "0", paramLabel = "FOLDER")
        private Path folder;

        @Parameters(index = "1..*", paramLabel = "VIEW", description = "only these views")
        private List<String> views = List.of();

        @Option(names = "--size", paramLabel = "WIDTHxHEIGHT", description = "of the window (1280x800)")
        private String size = "1280x800";

        @Option(names = "--text", paramLabel = "PERCENT", description = "size of all words: 100, 125 or 150 (100)")
        private int text = 100;

        @Override
        public Integer call() {
            if (!size.matches("\\d{3,4}x\\d{3,4}")) {
                throw new Refusal("--size takes a width and a height such as 1280x800, was '" + size + "'");
            }
            TextSize words = TextSize.of(text);
            if (words.percent() != text) {
                throw new Refusal("--text takes 100, 125 or 150, was " + text);
            }
            String[] sides = size.split("x");
            return ZestyApplication.open(ZestyApplication.Opening.pictures(new ZestyApplication.Wish(
                    folder, views, Integer.parseInt(sides[0]), Integer.parseInt(sides[1]), words)));
        }
    }
}
