package zesty.signal.app.window;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import javafx.scene.image.ImageView;
import javafx.scene.image.PixelReader;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import zesty.signal.app.window.workspace.Span;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.Series;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.core.scale.Scaling;
import zesty.signal.engine.LinkState;
import zesty.signal.engine.Snapshot;
import zesty.signal.takes.TakeWriter;

/** A take of 100 million samples in the real window, within 1 GB: seen at once, zoomed to one sample, cleaned anew in sight. */
@Timeout(400)
class LongTakeWindowTest extends RealWindow {
    private static final int COLUMNS = 4;
    private static final int ROWS = 25_000_000;
    private static final int PIECE = 1 << 16;
    /** Two hundredths of a second of a knock, more than five hours into the take. */
    private static final int KNOCK = 19_500_123;

    private static final int KNOCK_ROWS = 20;
    private static final int TURN = 31;

    LongTakeWindowTest() {
        super(false);
    }

    private Path written() throws Exception {
        List<Column> columns = new ArrayList<>();
        List<Channel> channels = new ArrayList<>();
        for (int c = 1; c <= COLUMNS; c++) {
            columns.add(new Column("stay" + c, ""));
            channels.add(
                    new Channel("stay" + c, "Stay " + c, Scaling.asItCame(""), Recipe.parse("lowpass:200@2"), true));
        }
        Rig rig = new Rig(
                "mast", SourceSetup.at(""), new DelimitedFormat(',', false, false, "", columns, null), channels);
        Path file = home.resolve("night.zest");
        try (TakeWriter writer = TakeWriter.create(file, "A night at the mooring", rig, Instant.EPOCH)) {
            // Every number from 500 to 530 in turn, by steps of its own in each column.
            double[][] turns = new double[COLUMNS][PIECE + TURN];
            for (int c = 0; c < COLUMNS; c++) {
                for (int i = 0; i < PIECE + TURN; i++) {
                    turns[c][i] = 500 + i * (c + 7L) % TURN;
                }
            }
            double[][] values = new double[COLUMNS][PIECE];
            for (int at = 0; at < ROWS; at += PIECE) {
                int n = Math.min(PIECE, ROWS - at);
                for (int c = 0; c < COLUMNS; c++) {
                    System.arraycopy(turns[c], at % TURN, values[c], 0, n);
                }
                for (int row = Math.max(at, KNOCK); row < Math.min(at + n, KNOCK + KNOCK_ROWS); row++) {
                    values[2][row - at] += 400;
                }
                writer.append(new Block(new TimeBase.Steady(at * 0.001, 0.001), values, n, List.of()));
            }
            writer.finish();
        }
        return file;
    }

    /** @return whether a lane is inked at a moment, at a share of its height */
    private boolean inked(int lane, double seconds, double down) {
        return fx(() -> {
            double across = (seconds - workspace().shown().window().from())
                    / workspace().shown().window().span();
            ImageView view = (ImageView) robot.lookup(".lane-plot ImageView").queryAll().stream()
                    .skip(lane)
                    .findFirst()
                    .orElseThrow();
            PixelReader pixels = view.getImage().getPixelReader();
            int width = (int) view.getImage().getWidth();
            int y = (int) (down * view.getImage().getHeight());
            int plain = pixels.getArgb(1, y);
            for (int x = (int) (across * width) - 3; x <= (int) (across * width) + 3; x++) {
                int colour = pixels.getArgb(x, y);
                // What arrived is drawn pale in the lane's own colour; the ground and the grid are nearly grey.
                int spread =
                        Math.abs((colour >> 16 & 255) - (colour & 255)) - Math.abs((plain >> 16 & 255) - (plain & 255));
                if (spread > 10) {
                    return true;
                }
            }
            return false;
        });
    }

    private boolean standsOut() {
        return Stream.of(0.06, 0.3).anyMatch(down -> inked(2, KNOCK * 0.001, down) && !inked(2, 10_700, down));
    }

    @Test
    void aHundredMillionSamplesAreSeenAtOnceZoomedToOneAndCleanedAnewInSight() throws Exception {
        Path file = written();
        robot.interact(() -> workspace().open(file));
        Snapshot opened = until(s -> s.health().state() == LinkState.STORED);
        assertThat(opened.lastSeconds()).isCloseTo(ROWS * 0.001, within(0.01));
        assertThat(opened.channels().get(2).raw().end()).isEqualTo(ROWS);
        float[] range = new float[2];
        opened.channels().get(2).raw().range(0, ROWS, range);
        // The lone knock among 100 million samples is in sight before anything was gone through.
        assertThat(range).containsExactly(500, 930);
        awaitText("#busy", "Processing the take");
        click("#cancel-work");
        awaitText("#notice", "Processing the take: given up");
        // It stands out of the lane's band in the picture too: up to its top, or beyond where the range is of what is
        // cleaned by now.
        eventually(() -> assertThat(standsOut()).isTrue());

        robot.interact(() -> workspace().shown().window().show(KNOCK * 0.001 - 0.05, KNOCK * 0.001 + 0.05));
        Series clean = opened.channels().get(2).clean();
        eventually(
                () -> assertThat(fx(() -> clean.atHand(KNOCK - 50, KNOCK + 50))).isTrue());
        double middle = clean.value(KNOCK + KNOCK_ROWS / 2);
        assertThat(middle).isBetween(880.0, 960.0);
        assertThat(clean.value(KNOCK - 20)).isBetween(480.0, 560.0);
        // Raw and to the row: what was written is what is looked at.
        assertThat(opened.channels().get(2).raw().value(KNOCK)).isEqualTo(500 + KNOCK * 9L % 31 + 400);
        assertThat(opened.channels().get(2).raw().value(KNOCK - 1)).isEqualTo(500 + (KNOCK - 1) * 9L % 31);

        // Another recipe shows in sight although the take is not gone through; what was begun before is given up
        // unheard.
        robot.interact(() ->
                workspace().change(rig -> rig.withChannel("stay3", c -> c.withRecipe(Recipe.parse("lowpass:5@2")))));
        Snapshot changed = until(s -> s.channels().get(2).clean() != clean);
        Series slow = changed.channels().get(2).clean();
        eventually(() -> assertThat(slow.value(KNOCK + KNOCK_ROWS / 2)).isBetween(520.0, 800.0));
        assertThat(changed.channels().get(2).level().samples()).isZero();
        awaitText("#busy", "Processing the take");
        click("#cancel-work");
        awaitText("#notice", "Processing the take: given up");
        // What is measured of it is added up beside the window: every residue of 31 comes as often, from 500 to 530.
        robot.interact(() -> workspace().view().span().set(new Span(1000, 1600)));
        awaitText("#span-numbers .span-number", "515");
        awaitText("#span-numbers .span-number", "600001");
        key(KeyCode.U);
        until(s -> s.channels().get(2).channel().recipe().text().equals("lowpass:200@2"));
        key(KeyCode.ESCAPE);
        until(s -> s.health().state() != LinkState.STORED);
        Files.delete(file);
    }
}
