package zesty.signal.boards.sim;

import java.io.ByteArrayOutputStream;
import java.util.List;
import java.util.Map;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.Role;

/**
 * A gripper with a cork between its jaws, twenty labelled lines a second: a millisecond clock, how far it is closed in percent, and the force
 * on the cork in newtons. It takes {@code grip NN}, closes within half a second at most and answers. After {@code watch NN} it opens by
 * itself when no order came for so many milliseconds.
 */
final class GripperBoard extends SampledBoard {
    private static final double RATE_HZ = 20;
    /** From open to closed. */
    private static final double STROKE_SECONDS = 0.5;
    /** The jaws touch the cork here, in percent. */
    private static final double TOUCH = 60;

    private static final double NEWTONS_A_PERCENT = 0.25;

    private double wanted;
    private double closed;
    private double watchSeconds = Double.POSITIVE_INFINITY;
    private double heardSeconds;
    private double now;
    private String said = "";

    GripperBoard(Setup setup) {
        super(
                setup,
                RATE_HZ,
                List.of(new Column("ms", "", Role.CLOCK, true), new Column("grip", ""), new Column("force", "")));
        range(2, 0, 4);
    }

    @Override
    public byte[] greeting() {
        return ascii("gripper: grip 0..100, watch ms\n");
    }

    @Override
    void measure(double t) {
        now = t;
        if (wanted > 0 && t - heardSeconds > watchSeconds) {
            wanted = 0;
            said = "watch: grip 0\n";
        }
        double most = 100 / STROKE_SECONDS / RATE_HZ;
        closed += Math.max(-most, Math.min(most, wanted - closed));
        row[0] = Math.round(1000 * t);
        row[1] = rounded(closed, 1);
        row[2] = rounded(Math.max(0, NEWTONS_A_PERCENT * (closed - TOUCH)) + Math.abs(noise(0.03)), 2);
    }

    @Override
    void write(ByteArrayOutputStream out) {
        text(out, said);
        said = "";
        text(out, "ms=" + (long) row[0] + " grip=" + decimals(row[1], 1) + " force=" + decimals(row[2], 2) + "\n");
    }

    @Override
    public String receive(String order) {
        heardSeconds = now;
        String[] words = order.strip().split(" +");
        try {
            double asked = words.length == 2 ? Double.parseDouble(words[1]) : -1;
            if (words[0].equals("grip") && asked >= 0 && asked <= 100) {
                wanted = asked;
                return "ok grip " + decimals(asked, 1) + "\n";
            } else if (words[0].equals("watch") && asked > 0) {
                watchSeconds = asked / 1000;
                return "ok watch " + decimals(asked, 0) + "\n";
            }
        } catch (NumberFormatException e) {
            // Answered below.
        }
        return "wrong: " + order.replaceAll("[^ -~]", "?") + "; grip 0..100, watch ms\n";
    }

    @Override
    public Map<String, Double> truth() {
        return Map.of("closed percent", closed);
    }
}
