package zesty.signal.app.window.bench.read;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import javafx.scene.control.Button;
import javafx.scene.control.ToggleButton;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.vibration.Vibration;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;

/**
 * Keeps how a thing shakes while it is well, to tell later which lines grew; and the lines seen at one rate, to tell at another
 * which of them are folded down.
 */
final class VibrationGuide extends Guide {
    private final Button good = Bench.button(
            "keep-good",
            Messages.of("bench.read.keep-as-the-good-state"),
            Messages.of("bench.read.these-lines-are-the-good-state"));
    private final Button rate = Bench.button(
            "keep-rate",
            Messages.of("bench.read.seen-at-this-rate"),
            Messages.of("bench.read.then-change-the-board-s-rate-a"));
    private final ToggleButton aliases = new ToggleButton(Messages.of("bench.read.show-aliases"));
    private Reading reading;
    private ReaderSetup setup;
    private double rateHz;

    VibrationGuide(Workspace workspace) {
        super(workspace, "vibration-guide");
        good.setOnAction(event -> keep(Vibration.GOOD, "state", ""));
        rate.setOnAction(event -> keep(Vibration.SEEN, "peaks", Digits.exact(Math.rint(100 * rateHz) / 100)));
        aliases.setId("show-aliases");
        Tip.on(aliases, Messages.of("bench.read.each-line-again-above-half-the"));
        row(good, rate, aliases);
    }

    /** @return whether lines are to be shown where they would be if they are aliased, too */
    boolean showsAliases() {
        return aliases.isSelected();
    }

    void show(ChannelSnapshot channel, ReaderSetup reader, Reading now) {
        setup = reader;
        reading = now;
        rateHz = channel.rateHz();
        boolean some = !records("peaks").isEmpty();
        good.setDisable(!some);
        rate.setDisable(!some);
        List<String> words = new ArrayList<>();
        if (!reader.checked().text(Vibration.GOOD).isEmpty()) {
            List<String> grown = records("grown").stream()
                    .filter(one -> one[4] == 1)
                    .map(VibrationGuide::grown)
                    .toList();
            words.add(
                    grown.isEmpty()
                            ? Messages.of("bench.read.no-line-grew-against-the-good")
                            : String.join("; ", grown) + ".");
        }
        if (!reader.checked().text(Vibration.SEEN).isEmpty()) {
            List<double[]> told = records("unfolded");
            words.add(
                    told.isEmpty()
                            ? Messages.of("bench.read.lines-of-this-rate-are-saved-now")
                            : told.stream().map(VibrationGuide::unfolded).collect(Collectors.joining("; ")) + ".");
        }
        if (words.isEmpty() && some) {
            double hz = records("peaks").get(0)[0];
            words.add(Messages.of(
                    "bench.read.hz-could-be-or-hz-aliased-another",
                    Digits.fixed(hz, 1),
                    Digits.fixed(rateHz - hz, 1),
                    Digits.fixed(rateHz + hz, 1)));
        }
        says.setText(String.join(" ", words));
    }

    private static String grown(double[] one) {
        return Messages.of(
                "bench.read.hz-times-the-scatter",
                Digits.fixed(one[0], 1),
                (one[1] > 0
                        ? Messages.of("bench.read.grew-times", Digits.fixed(one[2] / one[1], 1))
                        : Messages.of("bench.read.is-new", Digits.about(one[2], 3))),
                Digits.fixed(one[3], 0));
    }

    private static String unfolded(double[] one) {
        boolean moved = Math.abs(one[0] - one[2]) > 1.5;
        return Messages.of(
                "bench.read.hz-is",
                Digits.fixed(one[0], 1),
                (moved
                        ? Messages.of("bench.read.hz-aliased", Digits.fixed(one[2], 1))
                        : Messages.of("bench.read.real-it-did-not-move")));
    }

    private List<double[]> records(String key) {
        return reading == null ? List.of() : reading.records(key);
    }

    /** What is captured in reading order: of the state all its numbers, of the peaks the frequency alone behind the rate. */
    private void keep(String key, String of, String first) {
        if (setup == null) {
            return;
        }
        List<String> numbers = new ArrayList<>();
        if (!first.isEmpty()) {
            numbers.add(first);
        }
        for (double[] one : records(of)) {
            int count = first.isEmpty() ? one.length : 1;
            for (int i = 0; i < count; i++) {
                numbers.add(Digits.exact(Digits.rounded(one[i], 6)));
            }
        }
        workspace.set(setup.id(), key, String.join(",", numbers));
    }
}
