package zesty.signal.app.window.workspace;

import java.nio.file.Path;

/** Where the product keeps its files: the folder named by ZESTY_HOME, else the usual one for a user's data. */
public record Places(Path home) {
    public static Places usual() {
        String named = System.getenv("ZESTY_HOME");
        if (named != null && !named.isBlank()) {
            return new Places(Path.of(named));
        }
        String data = System.getenv("XDG_DATA_HOME");
        Path base = data != null && !data.isBlank()
                ? Path.of(data)
                : Path.of(System.getProperty("user.home"), ".local", "share");
        return new Places(base.resolve("zesty-signal"));
    }

    /** @return the places of the demo, apart from the maker's own */
    public Places demo() {
        return new Places(home.resolve("demo"));
    }

    public Path takes() {
        return home.resolve("takes");
    }

    /** @return the list of other folders with takes */
    public Path folders() {
        return home.resolve("folders.txt");
    }

    /** @return which language was chosen */
    public Path language() {
        return home.resolve("language.txt");
    }

    public Path lastRig() {
        return home.resolve("last-rig.json");
    }

    /** @return where the maker's own sensor kinds are */
    public Path kinds() {
        return home.resolve("kinds");
    }

    /** @return where the rigs are that the maker kept */
    public Path rigs() {
        return home.resolve("rigs");
    }

    /** @return where what boards printed of what they kept lies */
    public Path dumps() {
        return home.resolve("dumps");
    }

    /** @return where the plan is, and what was made of it */
    public Path plans() {
        return home.resolve("plans");
    }

    /** @return where pictures of the window are kept */
    public Path pictures() {
        return home.resolve("pictures");
    }

    /** @return where the log is, and reports of problems are saved */
    public Path logs() {
        return home.resolve("log");
    }

    public Path settings() {
        return home.resolve("window.json");
    }
}
