package zesty.signal.app.window.bench.act;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import java.util.function.DoubleConsumer;
import javafx.scene.Cursor;
import javafx.scene.control.Label;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import zesty.signal.app.window.drawing.Palette;
import zesty.signal.app.window.drawing.Plot;
import zesty.signal.core.act.Rule;
import zesty.signal.core.act.RuleSpans;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.scale.Line;

/**
 * What a rule watches over time, with its limits as handles, their hysteresis as a strip, and below when it would have been on. Other rules
 * on the same thing are seen thinner.
 */
final class ActPicture extends VBox {
    private static final double GRAB_PIXELS = 9;
    private static final int MOST_POINTS = 3000;
    /** Of the height, what the bars below have for each rule. */
    private static final double BAR = 0.045;

    private final Plot plot = new Plot();
    private final List<Label> handles = new ArrayList<>();
    private Consumer<Rule> adopt = rule -> {};
    private DoubleConsumer pointed = at -> {};
    private Rule rule;
    /** As it is being dragged, or looked at on the map; null for neither. */
    private Rule tried;

    private Watched seen;
    private double zero;
    private int grabbed = -1;
    private boolean edge;
    private Runnable again = () -> {};

    ActPicture() {
        setId("act-picture");
        VBox.setVgrow(plot, javafx.scene.layout.Priority.ALWAYS);
        getChildren().add(plot);
        // A narrower window does not wait for the next drawing: the handles would lie outside of it meanwhile.
        plot.widthProperty().addListener(width -> handles.forEach(this::atRight));
        plot.setOnMousePressed(this::press);
        plot.setOnMouseDragged(this::drag);
        plot.setOnMouseReleased(event -> release());
        plot.setOnMouseMoved(event -> plot.setCursor(reach(event.getY()) ? Cursor.V_RESIZE : Cursor.DEFAULT));
    }

    /** @param change takes a rule as it was dragged. @param point is told a moment, in s, that was pressed on beside the handles */
    void on(Consumer<Rule> change, DoubleConsumer point) {
        adopt = change;
        pointed = point;
    }

    /** Another rule in the place of the one shown, as long as the pointer is on the map; null for none. */
    void attempt(Rule other) {
        tried = other;
        again.run();
    }

    boolean isDragged() {
        return grabbed >= 0;
    }

    /** A rule of the picture. */
    record Drawn(Rule rule, int index) {}

    /**
     * Draws.
     *
     * @param chosen the one with handles; null for none
     * @param others on the same thing
     * @param truth moments of true events, in s
     * @return when the chosen one, as it is tried, would have been on
     */
    List<RuleSpans.On> show(
            boolean night,
            Watched watched,
            double zeroSeconds,
            String words,
            Drawn chosen,
            List<Drawn> others,
            double[] truth) {
        if (rule == null || chosen == null || !rule.equals(chosen.rule())) {
            tried = grabbed >= 0
                            && chosen != null
                            && rule != null
                            && rule.name().equals(chosen.rule().name())
                    ? tried
                    : null;
        }
        rule = chosen == null ? null : chosen.rule();
        seen = watched;
        zero = zeroSeconds;
        List<RuleSpans.On> spans = new ArrayList<>();
        again = () -> spans.addAll(draw(night, words, chosen, others, truth));
        again.run();
        again = () -> draw(night, words, chosen, others, truth);
        return spans;
    }

    private List<RuleSpans.On> draw(boolean night, String words, Drawn chosen, List<Drawn> others, double[] truth) {
        Line display = seen.display();
        Rule now = tried != null ? tried : rule;
        double[] range = seen.range();
        double low = range[0];
        double high = range[1];
        for (double limit : now == null ? List.<Double>of() : RuleEdits.limits(now)) {
            low = low <= limit - RuleEdits.hysteresis(now) / 2 ? low : limit - RuleEdits.hysteresis(now) / 2;
            high = high >= limit + RuleEdits.hysteresis(now) / 2 ? high : limit + RuleEdits.hysteresis(now) / 2;
        }
        if (Double.isNaN(low)) {
            low = 0;
            high = 1;
        }
        double a = display.apply(low);
        double b = display.apply(high);
        double bottom = Math.min(a, b);
        double room = Math.max(1e-9, 0.08 * Math.abs(b - a));
        int bars = (chosen == null ? 0 : 1) + others.size();
        double top = Math.max(a, b) + room;
        double bar = BAR * (top - bottom);
        double foot = bottom - room - bars * bar;
        int n = seen.values().length;
        plot.begin(
                night,
                n == 0 ? -60 : seen.seconds()[0] - zero,
                n == 0 ? 0 : Math.max(seen.seconds()[n - 1], seen.seconds()[0] + 1) - zero,
                "s",
                foot,
                top,
                words);
        List<RuleSpans.On> spans = new ArrayList<>();
        if (now != null) {
            Color colour = colour(chosen.index(), night);
            strips(now, display, colour);
            spans = RuleSpans.of(now, seen.seconds(), seen.values());
            bars(spans, now, foot, bar, colour);
        }
        for (int i = 0; i < others.size(); i++) {
            Color colour = colour(others.get(i).index(), night);
            for (double limit : RuleEdits.limits(others.get(i).rule())) {
                plot.limit(display.apply(limit), others.get(i).rule().name(), colour.deriveColor(0, 1, 1, 0.6), true);
            }
            bars(
                    RuleSpans.of(others.get(i).rule(), seen.seconds(), seen.values()),
                    others.get(i).rule(),
                    foot + (i + 1) * bar,
                    bar,
                    colour);
        }
        line(display, Palette.ink(night));
        for (double at : truth) {
            plot.upright(at - zero, at - zero, Palette.LEMON);
        }
        handles(now, display, chosen, night);
        return spans;
    }

    /** A handle a limit, at the right end of its line. */
    private void handles(Rule now, Line display, Drawn chosen, boolean night) {
        List<Double> limits = now == null ? List.of() : RuleEdits.limits(now);
        while (handles.size() < limits.size()) {
            Label made = new Label();
            made.setId("limit-" + handles.size());
            made.getStyleClass().add("limit-handle");
            made.setMouseTransparent(true);
            handles.add(made);
            plot.getChildren().add(made);
        }
        for (int i = 0; i < handles.size(); i++) {
            Label handle = handles.get(i);
            handle.setVisible(i < limits.size());
            if (!handle.isVisible()) {
                continue;
            }
            double at = display.apply(limits.get(i));
            Color colour = colour(chosen.index(), night);
            plot.limit(at, "", colour);
            handle.setText(RuleRow.amount(at, seen.unit()) + " \u00b1 "
                    + Digits.about(Math.abs(display.slope()) * RuleEdits.hysteresis(now) / 2, 3));
            handle.setStyle("-fx-border-color: " + Palette.css(Palette.channel(chosen.index()), night));
            handle.autosize();
            handle.setLayoutY(Math.max(
                    0, Math.min(plot.getHeight() - handle.getHeight(), plot.pixelY(at) - handle.getHeight() / 2)));
            atRight(handle);
        }
    }

    private void atRight(Label handle) {
        handle.setLayoutX(plot.getWidth() - handle.getWidth() - 2);
    }

    private static Color colour(int index, boolean night) {
        return Color.web(Palette.css(Palette.channel(index), night));
    }

    private void strips(Rule now, Line display, Color colour) {
        for (double limit : RuleEdits.limits(now)) {
            double one = display.apply(limit - RuleEdits.hysteresis(now) / 2);
            double other = display.apply(limit + RuleEdits.hysteresis(now) / 2);
            plot.wash(Math.min(one, other), Math.max(one, other), colour.deriveColor(0, 1, 1, 0.16));
        }
    }

    /** Bands are the stronger the higher they are. */
    private void bars(List<RuleSpans.On> spans, Rule of, double foot, double bar, Color colour) {
        double most = of instanceof Rule.InBands bands ? bands.edges().length : 1;
        for (RuleSpans.On on : spans) {
            double strength = of instanceof Rule.InBands ? 0.15 + 0.85 * on.state() / most : 1;
            plot.bar(
                    on.from() - zero,
                    on.to() - zero,
                    foot + 0.15 * bar,
                    foot + 0.85 * bar,
                    colour.deriveColor(0, 1, 1, strength));
        }
    }

    private void line(Line display, Color colour) {
        int n = seen.values().length;
        int step = Math.max(1, n / MOST_POINTS);
        int parts = (n + step - 1) / step;
        double[] x = new double[2 * parts];
        double[] y = new double[2 * parts];
        int m = 0;
        for (int from = 0; from < n; from += step) {
            int to = Math.min(n, from + step);
            double low = Double.NaN;
            double high = Double.NaN;
            for (int i = from; i < to; i++) {
                double v = seen.values()[i];
                low = v < low || low != low ? v : low;
                high = v > high || high != high ? v : high;
            }
            x[m] = seen.seconds()[from] - zero;
            y[m++] = display.apply(low);
            if (step > 1) {
                x[m] = seen.seconds()[to - 1] - zero;
                y[m++] = display.apply(high);
            }
        }
        plot.line(x, y, m, colour, 1.4);
    }

    private boolean reach(double y) {
        return rule != null
                && RuleEdits.limits(rule).stream()
                        .anyMatch(limit -> Math.abs(plot.pixelY(seen.display().apply(limit)) - y) < GRAB_PIXELS);
    }

    private void press(MouseEvent event) {
        grabbed = -1;
        if (rule == null || event.getButton() != MouseButton.PRIMARY) {
            return;
        }
        List<Double> limits = RuleEdits.limits(rule);
        double best = GRAB_PIXELS;
        for (int i = 0; i < limits.size(); i++) {
            double middle = plot.pixelY(seen.display().apply(limits.get(i)));
            double off = Math.abs(middle - event.getY());
            if (off < best) {
                best = off;
                grabbed = i;
                edge = false;
            }
            for (double side : new double[] {-0.5, 0.5}) {
                double at = plot.pixelY(seen.display().apply(limits.get(i) + side * RuleEdits.hysteresis(rule)));
                double away = Math.abs(at - event.getY());
                if (Math.abs(at - middle) > GRAB_PIXELS && away < best) {
                    best = away;
                    grabbed = i;
                    edge = true;
                }
            }
        }
        if (grabbed < 0) {
            pointed.accept(plot.valueX(event.getX()) + zero);
        }
    }

    private void drag(MouseEvent event) {
        if (grabbed < 0 || rule == null) {
            return;
        }
        double value = seen.display().invert(plot.valueY(event.getY()));
        double[] range = seen.range();
        double wide = Double.isNaN(range[0]) || range[1] == range[0] ? 1 : range[1] - range[0];
        double grain = Math.pow(10, Math.floor(Math.log10(wide)) - 2);
        double limit = RuleEdits.limits(rule).get(grabbed);
        tried = edge
                ? RuleEdits.widened(rule, Math.max(0, tidy(2 * Math.abs(value - limit), grain)))
                : RuleEdits.moved(rule, grabbed, tidy(value, grain));
        again.run();
    }

    private static double tidy(double value, double grain) {
        double steps = Math.rint(value / grain);
        return Digits.rounded(steps * grain, 12);
    }

    private void release() {
        Rule made = grabbed >= 0 ? tried : null;
        grabbed = -1;
        if (made != null && !made.equals(rule)) {
            adopt.accept(made);
        }
    }
}
