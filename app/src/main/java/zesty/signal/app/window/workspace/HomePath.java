package zesty.signal.app.window.workspace;

import java.nio.file.Path;

/** Paths as they stand in a box: the maker's home is "~". */
public final class HomePath {
    private static final String HOME = "~/";

    private HomePath() {}

    /** @return a file in the maker's home, as it is shown */
    public static String shown(String name) {
        return HOME + name;
    }

    /** @throws java.nio.file.InvalidPathException when it is no path */
    public static Path of(String written) {
        return written.startsWith(HOME)
                ? Path.of(System.getProperty("user.home"), written.substring(HOME.length()))
                : Path.of(written);
    }
}
