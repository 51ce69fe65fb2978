package zesty.signal.app.window.bench.read;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Collectors;
import javafx.scene.control.Button;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.bench.Samples;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.read.motion.Axes;
import zesty.signal.core.read.motion.Faces;
import zesty.signal.core.read.motion.FieldFit;
import zesty.signal.core.read.motion.Motion;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.Snapshot;

/**
 * Teaches a unit how it sits: its six faces, each taken by itself as soon as it is held still; what its gyro reads at rest; and the
 * iron around it by a figure of eight. Live only, for it needs hands.
 */
final class MotionGuide extends Guide {
    private static final double STILL_SECONDS = 1;
    /** Held still is what stays within this share of what is read. */
    private static final double STILL_SHARE = 0.06;
    /** Another face reads this differently, as a share. */
    private static final double TURNED = 0.5;

    private static final double REST_SECONDS = 2;
    private static final double EIGHT_SECONDS = 15;
    private static final int AXES = 3;

    /** What is being taught. */
    private enum Lesson {
        NONE,
        FACES,
        REST,
        EIGHT
    }

    private final Button faces = Bench.button(
            "teach-faces",
            Messages.of("bench.read.calibrate-accelerometer"),
            Messages.of("bench.read.six-faces-hold-it-on-each-in-turn"));
    private final Button rest = Bench.button(
            "teach-rest",
            Messages.of("bench.read.zero-the-gyro"),
            Messages.of("bench.read.lay-it-down-for-2-s-what-it-reads"));
    private final Button eight = Bench.button(
            "teach-eight",
            Messages.of("bench.read.figure-of-eight"),
            Messages.of("bench.read.turn-it-every-way-round-for-15-s"));
    private final List<double[]> taken = new ArrayList<>();
    private Lesson lesson = Lesson.NONE;
    private double from = Double.NaN;
    private Snapshot seen;
    private ReaderSetup setup;

    MotionGuide(Workspace workspace) {
        super(workspace, "motion-guide");
        faces.setOnAction(event -> begin(Lesson.FACES));
        rest.setOnAction(event -> begin(Lesson.REST));
        eight.setOnAction(event -> begin(Lesson.EIGHT));
        row(faces, rest, eight);
    }

    private void begin(Lesson wanted) {
        if (seen == null || setup == null) {
            return;
        }
        if (lesson == wanted) {
            lesson = Lesson.NONE;
            says.setText(Messages.of("bench.read.cancelled-nothing-was-changed"));
            return;
        }
        lesson = wanted;
        taken.clear();
        from = now();
    }

    private double now() {
        return seen.channel(setup.columns().get(0))
                .map(one -> one.stream().lastSeconds())
                .orElse(Double.NaN);
    }

    void show(Snapshot snapshot, ReaderSetup reader) {
        if (setup != null && !setup.columns().equals(reader.columns())) {
            lesson = Lesson.NONE;
        }
        seen = snapshot;
        setup = reader;
        int axes = reader.columns().size();
        boolean live = workspace.shown().isLive();
        faces.setDisable(!live);
        rest.setDisable(!live || axes < 2 * AXES);
        eight.setDisable(!live || axes < 3 * AXES);
        switch (lesson) {
            case FACES -> face();
            case REST -> atRest();
            case EIGHT -> turning();
            default -> {
                // Nothing is being taught.
            }
        }
    }

    /** @return samples of three axes over a stretch, one array an axis; null where one of them is not whole */
    private double[][] axes(int first, double begin, double end) {
        double[][] read = new double[AXES][];
        for (int k = 0; k < AXES; k++) {
            ChannelSnapshot channel =
                    seen.channel(setup.columns().get(first + k)).orElse(null);
            read[k] = channel == null ? new double[0] : Samples.cleaned(channel, begin, end);
            if (read[k].length < 2 || Arrays.stream(read[k]).anyMatch(Double::isNaN)) {
                return null;
            }
        }
        return read;
    }

    private static double[] means(double[][] read) {
        return Arrays.stream(read)
                .mapToDouble(axis -> Arrays.stream(axis).average().orElse(Double.NaN))
                .toArray();
    }

    private static double length(double[] v) {
        return Math.sqrt(v[0] * v[0] + v[1] * v[1] + v[2] * v[2]);
    }

    private static double apart(double[] a, double[] b) {
        return length(new double[] {a[0] - b[0], a[1] - b[1], a[2] - b[2]});
    }

    private void face() {
        Faces.Face wanted = Faces.Face.values()[taken.size()];
        says.setText(Messages.of("bench.read.of-6-hold-it-still", (taken.size() + 1), wanted.words()));
        double end = now();
        double[][] read = end - from < STILL_SECONDS ? null : axes(0, end - STILL_SECONDS, end);
        if (read == null) {
            return;
        }
        double[] mean = means(read);
        double spread = 0;
        for (double[] axis : read) {
            spread = Math.max(
                    spread,
                    Arrays.stream(axis).max().orElse(0)
                            - Arrays.stream(axis).min().orElse(0));
        }
        boolean still = spread < STILL_SHARE * length(mean);
        boolean other = taken.isEmpty() || apart(mean, taken.get(taken.size() - 1)) > TURNED * length(mean);
        if (!still || !other) {
            return;
        }
        taken.add(mean);
        from = end;
        if (taken.size() == Faces.Face.values().length) {
            lesson = Lesson.NONE;
            Faces.Result result = Faces.solve(taken);
            if (result.axes() != null) {
                workspace.set(setup.id(), Motion.FACES, result.axes().text());
            }
            says.setText(
                    result.axes() == null
                            ? result.words()
                            : Messages.of(
                                    "bench.read.taught-mg-residual-u-undoes-it",
                                    result.words(),
                                    Digits.fixed(1000 * result.left(), 0)));
        }
    }

    private void atRest() {
        double left = from + REST_SECONDS - now();
        says.setText(Messages.of(
                "bench.read.lay-it-down-and-do-not-touch-it-s", Digits.fixed(Math.max(0, Math.ceil(left)), 0)));
        if (left > 0) {
            return;
        }
        lesson = Lesson.NONE;
        double[][] read = axes(AXES, from, from + REST_SECONDS);
        if (read == null) {
            says.setText(Messages.of("bench.read.there-was-a-gap-in-it-rest-it"));
            return;
        }
        double[] mean = means(read);
        double[] first = means(Arrays.stream(read)
                .map(axis -> Arrays.copyOf(axis, axis.length / 2))
                .toArray(double[][]::new));
        if (apart(mean, first) > 1) {
            says.setText(Messages.of("bench.read.it-moved-meanwhile-rest-it-again"));
            return;
        }
        workspace.set(setup.id(), Motion.STILL, text(mean));
        says.setText(Messages.of("bench.read.at-rest-it-turns-by-s-that-is", Digits.fixed(length(mean), 2)));
    }

    private static String text(double[] numbers) {
        return Arrays.stream(numbers)
                .mapToObj(value -> Digits.exact(Math.rint(value * 1e6) / 1e6))
                .collect(Collectors.joining(","));
    }

    private void turning() {
        double left = from + EIGHT_SECONDS - now();
        says.setText(
                Messages.of("bench.read.turn-it-every-way-round-like", Digits.fixed(Math.max(0, Math.ceil(left)), 0)));
        if (left > 0) {
            return;
        }
        lesson = Lesson.NONE;
        double[][] read = axes(2 * AXES, from, from + EIGHT_SECONDS);
        if (read == null) {
            says.setText(Messages.of("bench.read.there-was-a-gap-in-it-begin-again"));
            return;
        }
        double[][] field = new double[read[0].length][];
        Arrays.setAll(field, i -> new double[] {read[0][i], read[1][i], read[2][i]});
        FieldFit.Result result = FieldFit.of(field);
        Axes axes = result.axes();
        if (axes != null) {
            workspace.set(setup.id(), Motion.FIELD, axes.text());
        }
        says.setText(
                axes == null
                        ? result.words()
                        : Messages.of(
                                "bench.read.the-iron-shifted-it-by-t-u-undoes",
                                result.words(),
                                Digits.fixed(length(axes.offset()), 0)));
    }
}
