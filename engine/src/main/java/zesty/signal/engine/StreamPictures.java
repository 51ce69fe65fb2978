package zesty.signal.engine;

import zesty.signal.core.decode.PictureFormat;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.picture.Film;
import zesty.signal.core.picture.FrameRing;
import zesty.signal.core.picture.PictureSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.Source;
import zesty.signal.core.sample.Block;

/** The pictures of a line of samples, where it carries any: the newest ones, and the columns that a rig makes of them. Trail's thread only. */
final class StreamPictures {
    /** Of the memory there is, what the pictures of a stream may take, and at most. */
    private static final double SHARE = 0.06;

    private static final long MOST_BYTES = 96L << 20;

    private final String sourceName;
    private StreamFormat format;
    private FrameRing frames;

    StreamPictures(String sourceName, StreamFormat format) {
        this.sourceName = sourceName;
        this.format = format;
    }

    /** @return the stream's format with what the rig makes of its pictures */
    StreamFormat format() {
        return format;
    }

    /** @return what is made of the pictures; nothing where there are none */
    PictureSetup setup() {
        return format instanceof PictureFormat picture ? picture.setup() : PictureSetup.NONE;
    }

    /** Takes what a rig makes of them into force. */
    void begin(Rig rig) {
        format = in(rig);
    }

    /** @return whether the rig makes something else of them by now; then that is in force */
    boolean change(Rig rig) {
        StreamFormat now = in(rig);
        boolean other = !now.equals(format) && now instanceof PictureFormat && frames != null;
        format = other ? now : format;
        return other;
    }

    private StreamFormat in(Rig rig) {
        return rig.sources().stream()
                .filter(source -> source.name().equals(sourceName))
                .map(Source::format)
                .filter(one -> one instanceof PictureFormat is && is.decodesLike(format))
                .findFirst()
                .orElse(format);
    }

    /** Pictures such as those of the block are kept from now on, at most so many. */
    void keep(Block first, int most) {
        if (format instanceof PictureFormat && first.frames() != null && first.rows() > 0) {
            long bytes = (long) Math.min(MOST_BYTES, Runtime.getRuntime().maxMemory() * SHARE);
            frames = FrameRing.within(bytes, first.frames()[0], most);
        }
    }

    void append(Block block) {
        for (int row = 0; frames != null && row < block.rows(); row++) {
            frames.append(block.frames() == null ? null : block.frames()[row]);
        }
    }

    /** @return the block with all its columns */
    Block whole(Block block) {
        return format instanceof PictureFormat picture ? picture.whole(block) : block;
    }

    /** @return all columns for the rows whose pictures are at hand */
    double[][] history() {
        PictureFormat picture = (PictureFormat) format;
        int rows = (int) (frames.end() - frames.start());
        double[][] kept = new double[rows][];
        double[][] came = new double[PictureFormat.SUMMARIES][rows];
        for (int row = 0; row < rows; row++) {
            kept[row] = frames.frame(frames.start() + row);
            double[] own = kept[row] == null
                    ? new double[] {Double.NaN, Double.NaN, Double.NaN}
                    : PictureSetup.summaries(kept[row]);
            for (int c = 0; c < came.length; c++) {
                came[c][row] = own[c];
            }
        }
        return picture.setup().columns(kept, rows, picture.width(), came);
    }

    /** @return the pictures to look at; null where there are none */
    Film film() {
        return frames == null ? null : new HeldFilm(frames, (PictureFormat) format);
    }
}
