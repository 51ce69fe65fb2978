package zesty.signal.app.window.lanes;

import java.nio.IntBuffer;
import java.util.Objects;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.image.ImageView;
import javafx.scene.image.PixelBuffer;
import javafx.scene.image.PixelFormat;
import javafx.scene.image.WritableImage;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.drawing.HelpPlace;
import zesty.signal.app.window.drawing.Palette;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.drawing.WhenSeen;
import zesty.signal.app.window.workspace.Look;
import zesty.signal.app.window.workspace.TextSize;
import zesty.signal.app.wording.Wording;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.scale.Line;
import zesty.signal.core.scale.Scaling;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.LinkState;
import zesty.signal.engine.Snapshot;

/** One channel's lane: its tag at the left, its picture beside it, the ends of its scale and a read-out above that. */
final class LaneView extends HBox {
    /** The lowest lane, and the lowest that has room for all its words, in pixels at the usual size of text. */
    static final double LOWEST = 48;

    private static final double WITH_HOW = 64;
    /** The same where a diagnosis stands below them. */
    private static final double WITH_DIAGNOSIS = 102;

    private static final int SCALE_LETTERS = 8;

    /** A lower plot shows no picture, in pixels. */
    private static final int LOWEST_PICTURE = 24;

    private final String column;
    private final Label name = new Label();
    private final Label value = new Label();
    private final Label unit = new Label();
    private final Label how = new Label();
    private final Label trust = new Label();
    private final StateSign sign = new StateSign();
    private final Region bar = new Region();
    private final Button hide = new Button(Messages.of("lanes.hide"));
    private final ImageView image = new ImageView();
    private final Pane plot = new Pane(image);
    private final Pane side = new Pane();
    private final Label top = new Label();
    private final Label bottom = new Label();
    private final Label trouble = new Label();
    private final ReadOut readOut = new ReadOut();
    private final Label rate = new Label();
    private final Label range = new Label();
    private final Label overWords = new Label();
    private final SpanEdges span = new SpanEdges(plot);
    private final LanePicture picture = new LanePicture();
    private final ValueScale scale = new ValueScale();

    private PixelBuffer<IntBuffer> buffer;
    private int[] pixels;
    private int pixelWidth;
    private int pixelHeight;
    private ChannelSnapshot painted;
    private boolean inFocus;
    private boolean roomForHow;
    private boolean roomForAll;
    private boolean asItCame;
    private final float[] extremes = new float[2];

    LaneView(String column) {
        HelpPlace.mark(this, "lane");
        this.column = column;
        getStyleClass().add("lane");
        setFocusTraversable(true);
        bar.getStyleClass().add("lane-bar");
        name.getStyleClass().add("lane-name");
        value.getStyleClass().add("lane-value");
        unit.getStyleClass().add("lane-unit");
        how.getStyleClass().add("lane-how");
        how.setWrapText(true);
        Tip.on(unit, Messages.of("lanes.press-to-show-it-in-the-next-unit"));
        trust.getStyleClass().add("lane-trust");
        trust.setGraphic(sign);
        HBox number = new HBox(5, value, unit);
        number.setAlignment(Pos.BASELINE_LEFT);
        hide.getStyleClass().setAll("lane-hide");
        hide.setFocusTraversable(false);
        Tip.on(hide, Messages.of("lanes.hide-this-lane-h-the-signal-is"));
        hide.visibleProperty().bind(hoverProperty());
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        HBox head = new HBox(name, space, new WhenSeen(hide));
        head.setAlignment(Pos.CENTER_LEFT);
        StackPane.setAlignment(trust, Pos.CENTER_LEFT);
        trust.setVisible(false);
        VBox tag = new VBox(3, head, number, how, new WhenSeen(trust));
        tag.getStyleClass().add("lane-tag");
        plot.getStyleClass().add("lane-plot");
        plot.setMinSize(0, 0);
        plot.setPrefSize(100, 60);
        HBox.setHgrow(plot, Priority.ALWAYS);
        side.getStyleClass().add("lane-side");
        side.setMinHeight(0);
        side.setPrefHeight(60);
        for (Label label : new Label[] {top, bottom, trouble, readOut, rate, range, overWords}) {
            label.getStyleClass().add("lane-scale");
            label.setMouseTransparent(true);
        }
        for (Label seldom : new Label[] {trouble, readOut, rate, overWords}) {
            seldom.setVisible(false);
            WhenSeen.in(plot, seldom);
        }
        side.getChildren().addAll(top, bottom);
        range.setVisible(false);
        WhenSeen.in(side, range);
        range.setWrapText(true);
        range.maxWidthProperty().bind(side.widthProperty().subtract(7));
        Tip.on(side, Messages.of("lanes.the-range-of-this-lane-press-for"));
        sayRange();
        image.setSmooth(false);
        trouble.getStyleClass().add("lane-trouble");
        rate.getStyleClass().add("lane-rate");
        overWords.getStyleClass().add("lane-rate");
        overWords.setId("over-" + column);
        how.managedProperty().bind(how.visibleProperty());
        getChildren().addAll(bar, tag, plot, side);
    }

    String column() {
        return column;
    }

    Button hide() {
        return hide;
    }

    Label unit() {
        return unit;
    }

    /** Shows the signal cleaned, or scaled as it came. */
    void toggleStage() {
        asItCame = !asItCame;
        scale.reset();
    }

    /** What other columns were at each sample is not kept: of a chain that takes some in only the cleaned line can be shown. */
    private boolean cameOf(ChannelSnapshot channel) {
        return (asItCame || channel.waits())
                && channel.channel().scaling().columns().isEmpty();
    }

    /** @return its range of values */
    ValueScale scale() {
        return scale;
    }

    Pane plot() {
        return plot;
    }

    /** Lets its range fit, holds it, or lets it follow, the next of these. */
    void nextRange() {
        scale.go(scale.mode().next());
        sayRange();
    }

    private void sayRange() {
        range.setText(scale.mode().words());
        range.setVisible(scale.mode() != RangeMode.FIT);
    }

    /** @return what shows the ends of its range */
    Node side() {
        return side;
    }

    /** Gives it a height; a low one leaves out how the signal was cleaned. @param size of the text in it */
    void high(double pixels, TextSize size) {
        setMinHeight(size.of(LOWEST));
        setPrefHeight(pixels);
        setMaxHeight(pixels);
        roomForHow = pixels >= size.of(WITH_HOW);
        roomForAll = pixels >= size.of(WITH_DIAGNOSIS);
        how.setVisible(roomForHow);
    }

    /** @return where the picture begins, from the lane's left end */
    double plotLeft() {
        return plot.getLayoutX();
    }

    int plotWidth() {
        return (int) Math.floor(plot.getWidth());
    }

    private int plotHeight() {
        return (int) Math.floor(plot.getHeight());
    }

    /** @return whether its picture, if there is one and room for it, is as high as its place */
    boolean fits() {
        return pixelHeight == 0 || pixelHeight == plotHeight() || plotHeight() < LOWEST_PICTURE;
    }

    /** Shows the channel's words and numbers; a few times a second is enough. @param diagnosis what is wrong with it, or empty */
    void describe(
            Snapshot snapshot, ChannelSnapshot channel, int index, boolean night, boolean focused, String diagnosis) {
        inFocus = focused;
        Palette.Named colour = Palette.channel(index);
        String css = Palette.css(colour, night);
        bar.setStyle("-fx-background-color: " + css + ";");
        name.setStyle("-fx-text-fill: " + css + ";");
        name.setText(channel.channel().name());
        pseudoClassStateChanged(javafx.css.PseudoClass.getPseudoClass("in-focus"), focused);
        LinkState state = snapshot.state(channel.stream(), System.nanoTime());
        boolean lost = state == LinkState.LOST || state == LinkState.REFUSED;
        boolean held = state == LinkState.HELD;
        value.setText(lost || channel.warming() ? "—" : Wording.value(channel));
        unit.setText(lost ? "" : Messages.token(channel.channel().unit()));
        setAccessibleText(name.getText() + ": " + value.getText() + " " + unit.getText());
        // What keeps it from being read stands beside the signal, not over it.
        boolean kept = !channel.trouble().isEmpty();
        how.setText(
                kept
                        ? channel.trouble()
                        : (cameOf(channel) ? Messages.of("lanes.raw") : Wording.how(channel)) + " · "
                                + Wording.rate(channel.rateHz()));
        pseudoClassStateChanged(javafx.css.PseudoClass.getPseudoClass("kept"), kept);
        trust.setText(
                lost || held || state == LinkState.OVER
                        ? Wording.state(snapshot, channel.stream())
                        : channel.warming() && channel.trouble().isEmpty()
                                ? Messages.of("lanes.warming-up-recorded-not-read")
                                : diagnosis);
        boolean ill = !diagnosis.isEmpty() && trust.getText().equals(diagnosis);
        pseudoClassStateChanged(javafx.css.PseudoClass.getPseudoClass("ill"), ill);
        trust.setGraphic(ill ? null : sign);
        sign.show(state, Palette.card(night));
        trust.setVisible(!trust.getText().isEmpty());
        how.setVisible(roomForAll || roomForHow && !ill);
        pseudoClassStateChanged(javafx.css.PseudoClass.getPseudoClass("stale"), held || lost);
        String beyond = channel.channel()
                .limits()
                .words(channel.beyond(), channel.channel().scaling().unit());
        trouble.setText(beyond);
        trouble.setVisible(!trouble.getText().isEmpty());
        rate.setText(picture.rateWords());
        rate.setVisible(!rate.getText().isEmpty());
        if (getProperties().get("tip") != css) {
            getProperties().put("tip", css);
            Tip.on(bar, Messages.of("lanes.line-colour-the-pale-line-is-the", colour.name()));
        }
        int decimals =
                Digits.decimalsFor(Math.abs(channel.channel().display().slope()) * (scale.high() - scale.low()) / 100);
        String suffix = Messages.token(channel.channel().unit());
        Line shown = channel.channel().display();
        String high = Wording.end(shown.apply(scale.high()), decimals);
        // The unit stands in the tag as well: where there is no room for it, it is left away.
        boolean room = !suffix.isEmpty() && high.length() + suffix.length() < SCALE_LETTERS;
        top.setText(room ? high + " " + suffix : high);
        bottom.setText(Wording.end(shown.apply(scale.low()), decimals));
    }

    /** Paints the picture for this frame. */
    void paint(
            Snapshot snapshot,
            ChannelSnapshot channel,
            ColumnEdges edges,
            TimeTicks ticks,
            int index,
            Look look,
            double now,
            Over over) {
        int width = edges.width();
        int height = plotHeight();
        if (width < 2 || height < LOWEST_PICTURE) {
            return;
        }
        fit(width, height);
        if (painted == null || !Objects.equals(painted.channel(), channel.channel())) {
            scale.reset();
        }
        painted = channel;
        long from = edges.at(0) + channel.lateSamples();
        boolean came = cameOf(channel);
        // Of a long take nothing may be cleaned yet: what arrived is there at once.
        channel.clean()
                .range(Math.max(from, channel.clean().start()), edges.at(width) + channel.lateSamples(), extremes);
        boolean known = extremes[0] == extremes[0];
        if (came || !known && channel.channel().scaling().columns().isEmpty()) {
            fitRaw(channel, edges.at(0), edges.at(width), now);
        } else {
            scale.fit(channel.clean(), from, edges.at(width) + channel.lateSamples(), now);
        }
        if (over != null) {
            over.scale()
                    .fit(
                            over.channel().clean(),
                            over.edges().at(0) + over.channel().lateSamples(),
                            over.edges().at(width) + over.channel().lateSamples(),
                            now);
        }
        picture.paint(
                pixels,
                width,
                height,
                snapshot,
                channel,
                edges,
                ticks,
                scale,
                Palette.lane(index, look),
                inFocus,
                over,
                came);
        overWords.setVisible(over != null);
        overWords.setText(over == null ? "" : over.words());
        buffer.updateBuffer(all -> null);
        place(width, height);
    }

    private void fitRaw(ChannelSnapshot channel, long from, long to, double now) {
        Scaling scaling = channel.scalingNow();
        channel.raw()
                .range(
                        Math.max(channel.raw().start(), from),
                        Math.min(channel.raw().end(), to),
                        extremes);
        double a = scaling.apply(extremes[0]);
        double b = scaling.apply(extremes[1]);
        scale.fit(Math.min(a, b), Math.max(a, b), now);
    }

    private void fit(int width, int height) {
        if (buffer != null && pixelWidth == width && pixelHeight == height) {
            return;
        }
        pixelWidth = width;
        pixelHeight = height;
        IntBuffer ints = IntBuffer.allocate(width * height);
        pixels = ints.array();
        buffer = new PixelBuffer<>(width, height, ints, PixelFormat.getIntArgbPreInstance());
        image.setImage(new WritableImage(buffer));
    }

    private void place(int width, int height) {
        top.relocate(5, LanePicture.SEED_STRIP - 7);
        bottom.relocate(5, height - Math.round(bottom.getHeight()) - 2);
        range.relocate(5, Math.round((height - range.getHeight()) / 2));
        trouble.relocate(10, height / 2.0 - 9);
        rate.relocate(8, 2);
        overWords.relocate(8, height - Math.round(overWords.getHeight()) - 4);
    }

    /** Shows time and value under the pointer. */
    void readOut(ChannelSnapshot channel, ColumnEdges edges, double x, double zero, double step) {
        readOut.show(channel, cameOf(channel), edges, x, zero, step, pixelWidth, pixelHeight);
    }

    /** Shows the measured stretch. @param from and to pixels of its ends; NaN for one that is not there */
    void span(double from, double to) {
        span.show(from, to, pixelWidth, pixelHeight);
    }

    void hideReadOut() {
        readOut.setVisible(false);
    }
}
