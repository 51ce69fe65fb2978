package zesty.signal.app.window.bench.read;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.bench.TypedText;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.core.picture.DeadPixels;
import zesty.signal.core.picture.Film;
import zesty.signal.core.picture.FrameSeries;
import zesty.signal.core.picture.PictureMend;
import zesty.signal.core.plan.SpotSize;
import zesty.signal.core.sample.Order;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** What makes a picture right: dead pixels, a lid of one temperature, the surface that is looked at; each with what it changes. */
final class FilmTools extends VBox {
    private static final String NO_LID = Messages.of("bench.read.this-does-not-look-like-one");

    /** Pixels of one temperature differ by less, in the picture's unit, most of them: chosen on sensors of 2 degrees' scatter. */
    private static final double MOST_UNEVEN = 6;

    /** So many pictures tell what is dead, and what a lid showed. */
    private static final int LOOKED_AT = 24;

    private final RegionRows.Change change;
    private final Button find = Bench.button(
            "find-dead",
            Messages.of("bench.read.find-dead-pixels"),
            Messages.of("bench.read.pixels-that-never-change-or-stand"));
    private final Button lid = Bench.button(
            "lid", Messages.of("bench.read.lid"), Messages.of("bench.read.hold-something-of-one-temperature"));
    private final Button none = Bench.button(
            "mend-none", Messages.of("bench.read.raw"), Messages.of("bench.read.pictures-as-the-sensor-sends-them"));
    private final TextField emissivity = new TextField();
    private final TextField reflected = new TextField();
    private final TextField view = new TextField();
    private final TextField distance = new TextField();
    private final Label spot = Bench.small("");
    private final Label said = Bench.small("");
    private Film film;
    /** Whether the maker was told that what is in sight is no lid, and may take it all the same. */
    private boolean warned;

    private boolean looked;

    FilmTools(RegionRows.Change change) {
        super(6);
        this.change = change;
        emissivity.setId("emissivity");
        reflected.setId("reflected");
        emissivity.setPrefColumnCount(4);
        reflected.setPrefColumnCount(4);
        Tip.on(emissivity, Messages.of("bench.read.share-of-heat-rays-that-the"));
        Tip.on(reflected, Messages.of("bench.read.temperature-of-what-the-surface"));
        find.setOnAction(event -> find());
        lid.setOnAction(event -> lid());
        none.setOnAction(event -> change.to(setup -> setup.withMend(PictureMend.NONE)));
        for (TextField box : new TextField[] {emissivity, reflected}) {
            box.setOnAction(event -> surface());
            box.focusedProperty().addListener((p, was, is) -> {
                if (!is) {
                    surface();
                }
            });
        }
        said.setWrapText(true);
        said.setMinHeight(USE_PREF_SIZE);
        said.setId("mend-words");
        HBox buttons = new HBox(6, find, lid, none);
        HBox surface = new HBox(
                6,
                Bench.small(Messages.of("bench.read.emissivity")),
                emissivity,
                Bench.small(Messages.of("bench.read.reflects")),
                reflected,
                Bench.small("°C"));
        surface.setAlignment(Pos.CENTER_LEFT);
        view.setId("view-angle");
        distance.setId("view-distance");
        view.setPromptText("55");
        distance.setPromptText("1");
        view.setPrefColumnCount(3);
        distance.setPrefColumnCount(3);
        Tip.on(view, Messages.of("bench.read.how-wide-the-sensor-sees-in"));
        Tip.on(distance, Messages.of("bench.read.from-the-sensor-to-what-it-looks"));
        view.textProperty().addListener((p, was, is) -> spot());
        distance.textProperty().addListener((p, was, is) -> spot());
        spot.setId("spot-size");
        spot.setWrapText(true);
        spot.setMinHeight(USE_PREF_SIZE);
        HBox seen = new HBox(
                6,
                Bench.small(Messages.of("bench.read.sees")),
                view,
                Bench.small(Messages.of("bench.read.at")),
                distance,
                Bench.small("m"));
        seen.setAlignment(Pos.CENTER_LEFT);
        getChildren().addAll(buttons, surface, seen, spot, said);
    }

    /** What a pixel sees, once both numbers are there. */
    private void spot() {
        double degrees = number(view, Double.NaN);
        double metres = number(distance, Double.NaN);
        if (film == null || Double.isNaN(degrees) || Double.isNaN(metres)) {
            spot.setText(Messages.of("bench.read.type-both-to-see-how-small-a-spot"));
            return;
        }
        try {
            SpotSize size = SpotSize.of(film.width(), degrees, metres);
            spot.setText(Messages.of(
                    "bench.read.a-pixel-sees-smaller-than-reads", length(size.pixel()), length(size.spot())));
        } catch (IllegalArgumentException e) {
            spot.setText(Character.toUpperCase(e.getMessage().charAt(0))
                    + e.getMessage().substring(1) + ".");
        }
    }

    private static String length(double metres) {
        return metres < 0.1 ? Digits.about(1000 * metres, 2) + "\u00a0mm" : Digits.about(metres, 2) + "\u00a0m";
    }

    private List<double[]> newest() {
        List<double[]> frames = new ArrayList<>();
        for (long row = Math.max(film.start(), film.end() - LOOKED_AT); row < film.end(); row++) {
            double[] one = film.raw(row);
            if (one != null) {
                frames.add(one);
            }
        }
        return frames;
    }

    private void find() {
        List<double[]> frames = film == null ? List.of() : newest();
        if (frames.isEmpty()) {
            return;
        }
        double[] seconds = new double[frames.size()];
        Arrays.setAll(seconds, i -> i);
        boolean[] dead =
                DeadPixels.of(new FrameSeries(film.width(), film.height(), seconds, frames.toArray(double[][]::new)));
        List<Integer> found = new ArrayList<>();
        for (int p = 0; p < dead.length; p++) {
            if (dead[p]) {
                found.add(p);
            }
        }
        looked = true;
        change.to(setup -> setup.withMend(setup.mend().withDead(found)));
    }

    private void lid() {
        List<double[]> frames = film == null ? List.of() : newest();
        if (frames.isEmpty()) {
            return;
        }
        double[] lid = PictureMend.lidOf(frames);
        double uneven = Order.quantile(lid, 0.95) - Order.quantile(lid, 0.05);
        if (uneven > MOST_UNEVEN && !warned) {
            warned = true;
            said.setText(NO_LID);
            return;
        }
        warned = false;
        change.to(setup -> setup.withMend(setup.mend().withLid(lid)));
    }

    private void surface() {
        if (film == null) {
            return;
        }
        double share = number(emissivity, film.setup().mend().emissivity());
        double room = number(reflected, film.setup().mend().reflected());
        change.to(setup -> setup.withMend(setup.mend().withSurface(share, room)));
    }

    private static double number(TextField box, double otherwise) {
        try {
            return Digits.typed(box.getText());
        } catch (NumberFormatException e) {
            return otherwise;
        }
    }

    /** @param came the picture as it came. @param unit of its numbers */
    void show(Film now, double[] came, String unit) {
        if (film == null || !film.sameSource(now)) {
            looked = false;
            warned = false;
        }
        film = now;
        spot();
        PictureMend mend = now.setup().mend();
        TypedText.say(emissivity, Digits.box(mend.emissivity()));
        TypedText.say(reflected, Digits.box(mend.reflected()));
        none.setDisable(mend.isNone());
        List<String> words = new ArrayList<>();
        if (!mend.dead().isEmpty()) {
            words.add(
                    mend.dead().size() == 1
                            ? Messages.of("bench.read.1-dead-pixel-is-filled")
                            : Messages.of(
                                    "bench.read.dead-pixels-are-filled",
                                    mend.dead().size()));
        } else if (looked) {
            words.add(Messages.of("bench.read.no-dead-pixel-was-found"));
        }
        if (mend.lid().length > 0) {
            double most = Arrays.stream(mend.lid()).map(Math::abs).max().orElse(0);
            words.add(Messages.of("bench.read.a-lid-takes-off-up-to", Digits.fixed(most, 1), unit));
        }
        if (mend.emissivity() < 1 && came != null) {
            double hottest = Arrays.stream(came).filter(v -> v == v).max().orElse(Double.NaN);
            double more = mend.surface(hottest) - hottest;
            words.add(Messages.of(
                    "bench.read.the-surface-changes-the-hottest",
                    (more >= 0 ? "+" : "−"),
                    Digits.fixed(Math.abs(more), 1)));
        }
        if (mend.emissivity() < 0.5) {
            words.add(Messages.of("bench.read.below-0-5-a-reflection-counts-more"));
        }
        said.setText(
                warned
                        ? NO_LID
                        : words.isEmpty()
                                ? Messages.of("bench.read.bright-metal-and-glass-show-what")
                                : Messages.of("bench.read.now", String.join("; ", words)));
    }
}
