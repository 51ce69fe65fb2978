package zesty.signal.app.window.workspace;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import zesty.signal.core.text.Messages;
import zesty.signal.takes.NewFile;

/**
 * What comes back at the next start.
 *
 * @param x and y of the window; NaN for wherever the system puts it
 * @param spanSeconds how much of a live signal is in sight
 * @param text how large the words are
 * @param recent sources used lately, newest first
 * @param view the bench that was open, and the lane in focus
 * @param ease what makes the window easier for who works with it
 */
public record Settings(
        double x,
        double y,
        double width,
        double height,
        boolean maximised,
        Look look,
        TextSize text,
        double spanSeconds,
        List<String> recent,
        View view,
        Ease ease) {
    /**
     * What was being looked at.
     *
     * @param stop null for no bench
     * @param focus the column in focus; empty for the first
     * @param cards how the cards of readings stand
     */
    public record View(Stop stop, String focus, Cards cards) {
        public static final View FIRST = new View(null, "", Cards.FIRST);
    }

    /**
     * What makes the window easier.
     *
     * @param calm whether lanes step once a second rather than run
     * @param firstHour how many of the first hour's steps are done; −1 before it is begun
     * @param guided whether the first hour's step is in sight
     */
    public record Ease(boolean calm, int firstHour, boolean guided) {
        public static final Ease FIRST = new Ease(false, -1, false);
    }

    public static final Settings FIRST = new Settings(
            Double.NaN, Double.NaN, 1280, 800, false, Look.DAY, TextSize.USUAL, 20, List.of(), View.FIRST, Ease.FIRST);

    private static final int MOST_RECENT = 6;
    private static final ObjectMapper JSON = new ObjectMapper();

    public Settings {
        recent = List.copyOf(recent);
    }

    public Settings withRecent(String source) {
        List<String> sources = new ArrayList<>(recent);
        sources.remove(source);
        sources.add(0, source);
        List<String> kept = sources.subList(0, Math.min(MOST_RECENT, sources.size()));
        return new Settings(x, y, width, height, maximised, look, text, spanSeconds, kept, view, ease);
    }

    /** @return the same for a window of another size, in pixels, and of text */
    public Settings sized(double wide, double high, TextSize words) {
        return new Settings(x, y, wide, high, maximised, look, words, spanSeconds, recent, view, ease);
    }

    /**
     * @param tell is told when the file does not read; it is kept aside then
     * @return what the file says; the first settings when there is none or it does not read
     */
    public static Settings load(Path file, Consumer<String> tell) {
        try {
            JsonNode root = Files.exists(file) ? JSON.readTree(Files.readString(file)) : JSON.createObjectNode();
            return new Settings(
                    root.path("x").asDouble(Double.NaN),
                    root.path("y").asDouble(Double.NaN),
                    Math.max(640, root.path("width").asDouble(FIRST.width)),
                    Math.max(480, root.path("height").asDouble(FIRST.height)),
                    root.path("maximised").asBoolean(),
                    Look.of(root.path("look").asText(root.path("night").asBoolean() ? "night" : "")),
                    TextSize.of(root.path("text_percent").asInt()),
                    Math.max(0.01, root.path("span_seconds").asDouble(FIRST.spanSeconds)),
                    texts(root.path("recent")),
                    view(root.path("view")),
                    new Ease(
                            root.path("calm").asBoolean(),
                            root.path("first_hour").asInt(-1),
                            root.path("guided").asBoolean()));
        } catch (IOException e) {
            tell.accept(KeptAside.put(
                    file, file.getParent(), Messages.of("workspace.how-the-window-stood-does-not", file)));
            return FIRST;
        }
    }

    private static View view(JsonNode node) {
        Stop open = null;
        for (Stop stop : Stop.values()) {
            open = stop.name().equalsIgnoreCase(node.path("stop").asText()) ? stop : open;
        }
        return new View(
                open, node.path("focus").asText(""), new Cards(texts(node.path("pinned")), texts(node.path("hidden"))));
    }

    private static List<String> texts(JsonNode array) {
        List<String> texts = new ArrayList<>();
        array.forEach(node -> texts.add(node.asText()));
        return texts;
    }

    /** Writes the file whole or not at all. */
    public void save(Path file) throws IOException {
        ObjectNode root = JSON.createObjectNode();
        if (Double.isFinite(x) && Double.isFinite(y)) {
            root.put("x", x).put("y", y);
        }
        root.put("width", width).put("height", height);
        root.put("maximised", maximised)
                .put("look", look.style())
                .put("text_percent", text.percent())
                .put("span_seconds", spanSeconds)
                .put("calm", ease.calm())
                .put("first_hour", ease.firstHour())
                .put("guided", ease.guided());
        recent.forEach(root.putArray("recent")::add);
        ObjectNode looked = root.putObject("view");
        view.cards().pinned().forEach(looked.putArray("pinned")::add);
        view.cards().hidden().forEach(looked.putArray("hidden")::add);
        looked.put("stop", view.stop() == null ? "" : view.stop().name().toLowerCase(java.util.Locale.ROOT))
                .put("focus", view.focus());
        writeWhole(file, JSON.writerWithDefaultPrettyPrinter().writeValueAsString(root));
    }

    static void writeWhole(Path file, String text) throws IOException {
        Files.createDirectories(file.getParent());
        writeWhole(file, text.getBytes(StandardCharsets.UTF_8));
    }

    /** Writes a file that the maker has named, or one of the program's own: whole or not at all. */
    static void writeWhole(Path file, byte[] bytes) throws IOException {
        try (NewFile fresh = NewFile.begin(file, true)) {
            fresh.stream().write(bytes);
            fresh.keep();
        }
    }
}
