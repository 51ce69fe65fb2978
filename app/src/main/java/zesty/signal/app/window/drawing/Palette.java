package zesty.signal.app.window.drawing;

import java.util.List;
import javafx.scene.paint.Color;
import zesty.signal.app.window.workspace.Look;
import zesty.signal.core.decode.Stations;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.rig.Rig;

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

    public static final Color LEMON = Color.web("#F2B632");
    /** The event that is chosen by hand. */
    public static final Color CHOSEN = Color.web("#B87A00");
    /** Words on the dark bar of the trail, and on its lemon parts. */
    public static final Color ON_RIND = Color.web("#F7F3EA");

    public static final Color ON_LEMON = Color.web("#22302A");

    private Palette() {}

    /** @return the colour of a channel by its place in the rig */
    public static Named channel(int index) {
        return CHANNELS.get(Math.floorMod(index, CHANNELS.size()));
    }

    public static String css(Named colour, boolean night) {
        return night ? colour.night() : colour.day();
    }

    /** A channel keeps its colour when lanes change places. @return its place among the channels of all the rig's streams */
    public static int placeOf(Rig rig, String channel) {
        int source = rig.sourceOf(channel);
        StreamFormat format = rig.sources().get(source).format();
        if (format == null) {
            return 0;
        }
        String column = rig.ownName(channel);
        int own = Stations.indexOf(format, column);
        int place = 0;
        for (int s = 0; s <= source; s++) {
            StreamFormat one = rig.sources().get(s).format();
            for (int c = 0; one != null && c < (s < source ? one.columns().size() : own); c++) {
                place += one.columns().get(c).isChannel() ? 1 : 0;
            }
        }
        double station = Stations.stationOf(format, column);
        return Double.isNaN(station) ? place : place + (int) Math.abs(station);
    }

    /** @return the colour of a channel, by its column */
    public static Color of(Rig rig, String channel, boolean night) {
        return Color.web(css(channel(placeOf(rig, channel)), night));
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

    /** @return of what the recipe removed, and of what is left over by a fit */
    public static Color rest(boolean night) {
        return Color.web(night ? "#B9C4BD" : "#6B756F");
    }

    /** @return of points that a fit is judged by */
    public static Color residual(boolean night) {
        return night ? LEMON : Color.web("#2F4038");
    }

    /** @return of an event that is left out, or of another kind than its neighbours */
    public static Color aside(double opacity) {
        return Color.GRAY.deriveColor(0, 1, 1, opacity);
    }

    private static int argb(String hex) {
        return 0xff000000 | Integer.parseInt(hex.substring(1), 16);
    }
}
