package zesty.signal.app.window.workspace;

import java.nio.file.Path;
import java.time.Instant;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import zesty.signal.boards.sim.MuscleMode;
import zesty.signal.boards.sim.MuscleSignal;
import zesty.signal.boards.sim.MuscleSignal.Pull;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.read.muscle.Muscle;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.core.scale.Scaling;
import zesty.signal.takes.Mark;
import zesty.signal.takes.TakeException;
import zesty.signal.takes.TakeWriter;

/** The sheet hand's forearm, raw: a take that goes from rest to tired, and one of the same pulls at three places. */
final class DemoForearm {
    private static final double RATE_HZ = 1000;
    private static final String COLUMN = "muscle";
    private static final double OFFSET = 1200;

    private DemoForearm() {}

    private record Part(double seconds, Set<MuscleMode> modes, List<Pull> pulls, List<Mark> marks) {}

    private static Rig rig(String place) {
        DelimitedFormat format =
                new DelimitedFormat(',', false, false, "", List.of(new Column(COLUMN, "counts")), null);
        Channel channel = new Channel(COLUMN, "Sheet forearm", Scaling.asItCame("counts"), Recipe.NONE, true);
        return new Rig("Wren, sheet hand", SourceSetup.at("sim:forearm"), format, List.of(channel))
                .withReader(ReaderSetup.on(COLUMN, Muscle.NAME, Map.of("rest", "1..5", Muscle.PLACE, place)));
    }

    static void effort(Path file, String title) throws TakeException {
        List<Pull> pulls = List.of(
                new Pull(7, 10, 1),
                new Pull(14, 16, 0.4),
                new Pull(19, 21, 0.65),
                new Pull(24, 26, 0.5),
                new Pull(32, 62, 0.6));
        List<Mark> marks = List.of(
                new Mark(1, 5, "rest"),
                new Mark(7, 10, "hardest pull"),
                new Mark(14, 26, "three pulls"),
                new Mark(32, 62, "held until tired"));
        write(
                file,
                title,
                rig("on the belly of the muscle"),
                "2026-09-19T10:05:00Z",
                List.of(new Part(68, EnumSet.of(MuscleMode.TIRES), pulls, marks)));
    }

    static void places(Path file, String title) throws TakeException {
        List<Pull> pulls = List.of(new Pull(7, 9, 0.7), new Pull(11, 13, 0.7), new Pull(15, 17, 0.7));
        write(
                file,
                title,
                rig(""),
                "2026-09-19T10:20:00Z",
                List.of(
                        new Part(20, Set.of(), pulls, List.of(new Mark(0.5, "on the belly"))),
                        new Part(20, EnumSet.of(MuscleMode.ELBOW), pulls, List.of(new Mark(0.5, "near the elbow"))),
                        new Part(20, EnumSet.of(MuscleMode.WRIST), pulls, List.of(new Mark(0.5, "near the wrist")))));
    }

    private static void write(Path file, String title, Rig rig, String started, List<Part> parts) throws TakeException {
        try (TakeWriter writer = TakeWriter.create(file, title, rig, Instant.parse(started))) {
            double begin = 0;
            for (Part part : parts) {
                MuscleSignal muscle = MuscleSignal.planned(21, RATE_HZ, part.modes(), part.pulls());
                int n = (int) Math.round(part.seconds() * RATE_HZ);
                double[] values = new double[n];
                for (int i = 0; i < n; i++) {
                    values[i] = Math.rint(OFFSET + muscle.next());
                }
                writer.append(
                        new Block(new TimeBase.Steady(begin, 1 / RATE_HZ), new double[][] {values}, n, List.of()));
                for (Mark mark : part.marks()) {
                    writer.mark(new Mark(begin + mark.seconds(), begin + mark.untilSeconds(), mark.text()));
                }
                begin += part.seconds();
            }
            writer.finish();
        }
    }
}
