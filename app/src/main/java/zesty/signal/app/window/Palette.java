package zesty.signal.app.window;

import java.util.List;
import javafx.scene.paint.Color;
import zesty.signal.app.window.lanes.LaneColours;
import zesty.signal.app.window.workspace.Look;

/** Colours that are painted into pixels; the same roles stand in zesty.css for everything else. */
public final class Palette {
    /** A channel colour has a name, so that colour is never the only sign. */
    public record Named(String name, String day, String night) {}

    private static final List<Named> CHANNELS = List.of(
            new Named("cherry", "#C2334D", "#F0788C"),
            new Named("amber", "#A8540A", "#E9A15A"),
            new Named("lake", "#2C6E8F", "#72B7D9"),
            new Named("fern", "#2F7D4F", "#76C795"),
            new Named("plum", "#6A4A93", "#B79AE0"),
            new Named("olive", "#8A6D00", "#D3B84A"),
            new Named("teal", "#1F7F7A", "#66C6BF"),
            new Named("berry", "#9C3F7A", "#E08CC2"));

    private Palette() {}

    /** @return the colour of a channel by its place in the rig */
    public static Named channel(int index) {
        return CHANNELS.get(Math.floorMod(index, CHANNELS.size()));
    }

    public static String css(Named colour, boolean night) {
        return night ? colour.night() : colour.day();
    }

    /** @return the colours of a lane in a look */
    public static LaneColours lane(int index, Look look) {
        int line = argb(css(channel(index), look.dark()));
        if (look == Look.CONTRAST) {
            return new LaneColours(
                    argb("#000000"),
                    argb("#2E2E2E"),
                    argb("#4A4A4A"),
                    argb("#202020"),
                    argb("#8A8A8A"),
                    argb("#FFFFFF"),
                    line);
        }
        return look.dark()
                ? new LaneColours(
                        argb("#1F2925"),
                        argb("#2A3631"),
                        argb("#36433D"),
                        argb("#18211D"),
                        argb("#46564E"),
                        argb("#AEBAB3"),
                        line)
                : new LaneColours(
                        argb("#FFFDF8"),
                        argb("#F3EEE1"),
                        argb("#E4DCC9"),
                        argb("#F1EBDD"),
                        argb("#D3C9B2"),
                        argb("#5B665F"),
                        line);
    }

    /** @return of the ground that pictures are drawn on */
    public static Color card(boolean night) {
        return Color.web(night ? "#1F2925" : "#FFFDF8");
    }

    /** @return of what is written strongest on a picture */
    public static Color ink(boolean night) {
        return Color.web(night ? "#EEEADD" : "#22302A");
    }

    /** @return of words and numbers along a picture */
    public static Color muted(boolean night) {
        return Color.web(night ? "#B9C4BD" : "#5B665F");
    }

    /** @return of the lines of a picture's grid */
    public static Color grid(boolean night) {
        return Color.web(night ? "#33403A" : "#E7E0CF");
    }

    private static int argb(String hex) {
        return 0xff000000 | Integer.parseInt(hex.substring(1), 16);
    }
}
