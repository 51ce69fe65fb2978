package zesty.signal.app.window.workspace;

import javax.sound.sampled.AudioFormat;
import javax.sound.sampled.AudioSystem;
import javax.sound.sampled.Clip;
import javax.sound.sampled.LineEvent;
import javax.sound.sampled.LineUnavailableException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** A short tone. Whatever sounds is seen as well: where there is no loudspeaker, nothing is missing. */
public final class Tone {
    /** In Hz. */
    public static final double LOW = 660;

    public static final double HIGH = 880;
    private static final Logger LOG = LoggerFactory.getLogger(Tone.class);
    private static final int RATE = 22_050;
    private static final double SECONDS = 0.18;
    /** It comes and goes within this, in s, so that it does not click. */
    private static final double EDGE_SECONDS = 0.01;

    private Tone() {}

    /** Plays one, beside the window's thread. */
    public static void play(BackgroundTasks tasks, double hz) {
        tasks.quietly(() -> play(hz));
    }

    private static void play(double hz) {
        int samples = (int) (RATE * SECONDS);
        byte[] bytes = new byte[2 * samples];
        for (int i = 0; i < samples; i++) {
            double t = (double) i / RATE;
            double edge = Math.min(1, Math.min(t, SECONDS - t) / EDGE_SECONDS);
            int value = (int) (9000 * edge * Math.sin(2 * Math.PI * hz * t));
            bytes[2 * i] = (byte) value;
            bytes[2 * i + 1] = (byte) (value >> 8);
        }
        try {
            Clip clip = AudioSystem.getClip();
            clip.addLineListener(event -> {
                if (event.getType() == LineEvent.Type.STOP) {
                    clip.close();
                }
            });
            clip.open(new AudioFormat(RATE, 16, 1, true, false), bytes, 0, bytes.length);
            clip.start();
        } catch (LineUnavailableException | IllegalArgumentException e) {
            LOG.info("no tone: {}", e.getMessage());
        }
    }
}
