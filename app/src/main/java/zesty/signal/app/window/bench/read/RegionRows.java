package zesty.signal.app.window.bench.read;

import java.util.ArrayList;
import java.util.List;
import java.util.function.UnaryOperator;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.util.StringConverter;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.bench.TypedText;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.core.picture.PictureSetup;
import zesty.signal.core.picture.Region;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** The parts of a picture, a row each: name, what is told of it, its number now. Each is a channel in the lanes. */
final class RegionRows extends VBox {
    /** Changes what is made of the pictures; what cannot be is told. */
    interface Change {
        void to(UnaryOperator<PictureSetup> change);
    }

    private final Change change;
    private final List<Row> rows = new ArrayList<>();
    private final Label none = Bench.small(Messages.of("bench.read.no-part-chosen-take-box-point-or"));

    private final class Row extends HBox {
        private final TextField name = new TextField();
        private final ComboBox<Region.Measure> measure = new ComboBox<>();
        private final TextField limit = new TextField();
        private final Label value = Bench.mono("");
        private Region region;
        private boolean filling;

        Row() {
            super(6);
            setAlignment(Pos.CENTER_LEFT);
            name.setPrefColumnCount(7);
            Tip.on(name, Messages.of("bench.read.name-of-this-part-and-of-its-lane"));
            name.setOnAction(event -> rename());
            name.focusedProperty().addListener((p, was, is) -> {
                if (!is) {
                    rename();
                }
            });
            measure.getItems().setAll(Region.Measure.values());
            measure.setConverter(new StringConverter<>() {
                @Override
                public String toString(Region.Measure one) {
                    return one == null
                            ? ""
                            : one == Region.Measure.ABOVE ? Messages.of("bench.read.share-above") : one.word();
                }

                @Override
                public Region.Measure fromString(String text) {
                    return null;
                }
            });
            Tip.on(measure, Messages.of("bench.read.which-number-of-this-part-its-lane"));
            measure.setOnAction(event -> measured());
            limit.setPrefColumnCount(3);
            Tip.on(limit, Messages.of("bench.read.the-share-of-its-pixels-above-this"));
            limit.setOnAction(event -> measured());
            limit.managedProperty().bind(limit.visibleProperty());
            Button off = Bench.button("", "×", Messages.of("bench.read.take-this-part-and-its-lane-away"));
            off.setOnAction(event -> change.to(setup -> setup.withoutRegion(region.name())));
            HBox.setHgrow(value, Priority.ALWAYS);
            value.setMinWidth(USE_PREF_SIZE);
            getChildren().addAll(name, measure, limit, value, off);
        }

        private void rename() {
            String typed = name.getText().strip();
            if (region == null || typed.isEmpty() || typed.equals(region.name())) {
                return;
            }
            Region was = region;
            change.to(setup -> setup.withRegions(setup.regions().stream()
                    .map(one -> one.name().equals(was.name()) ? one.withName(typed) : one)
                    .toList()));
        }

        private void measured() {
            if (filling || region == null || measure.getValue() == null) {
                return;
            }
            double above;
            try {
                above = Digits.typed(limit.getText());
            } catch (NumberFormatException e) {
                above = Double.isNaN(region.limit()) ? Math.rint(last) : region.limit();
            }
            Region.Measure wanted = measure.getValue();
            double at = wanted == Region.Measure.ABOVE ? above : Double.NaN;
            change.to(setup -> setup.withRegion(region.withMeasure(wanted, at)));
        }

        private double last;

        void show(Region now, double number, String unit) {
            filling = true;
            if (!now.equals(region)) {
                region = now;
                setId("region-" + now.name().replaceAll("\\W+", "-"));
                TypedText.say(name, now.name());
                measure.setValue(now.measure());
                TypedText.say(limit, Double.isNaN(now.limit()) ? "" : Digits.box(now.limit()));
                limit.setVisible(now.measure() == Region.Measure.ABOVE);
            }
            filling = false;
            last = number == number && now.measure() != Region.Measure.ABOVE ? number : last;
            String in = now.unit(unit);
            value.setText(number == number ? Digits.fixed(number, 1) + (in.isEmpty() ? "" : " " + in) : "—");
        }
    }

    RegionRows(Change change) {
        super(5);
        this.change = change;
        setId("regions");
        none.setWrapText(true);
        none.setMinHeight(USE_PREF_SIZE);
    }

    void show(List<Region> regions, double[] numbers, String unit) {
        while (rows.size() > regions.size()) {
            rows.remove(rows.size() - 1);
        }
        while (rows.size() < regions.size()) {
            rows.add(new Row());
        }
        if (regions.isEmpty() != getChildren().contains(none) || getChildren().size() != Math.max(1, rows.size())) {
            getChildren().setAll(regions.isEmpty() ? List.of(none) : rows);
        }
        for (int i = 0; i < regions.size(); i++) {
            rows.get(i).show(regions.get(i), numbers[i], unit);
        }
    }
}
