package zesty.signal.core.decode;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import zesty.signal.core.picture.PictureSetup;
import zesty.signal.core.picture.Region;
import zesty.signal.core.sample.Block;
import zesty.signal.core.text.Messages;

/**
 * Pictures as text: each a block of lines with as many numbers as the picture has columns, parted from the next by a
 * heading or a blank line; or one long line for each. The stream's columns are the hottest, the coldest and the mean
 * value of each picture, then one for each part that the maker chose; the pictures themselves come beside them.
 *
 * @param rows of the picture, at least 1
 * @param width columns of the picture, at least 2
 * @param delimiter comma, semicolon, tab, or a blank for any run of blanks
 * @param perLine whether one line holds the whole picture
 * @param columns hottest, coldest, mean and the regions; given without regions, or with pixels as older files have them, they are made so
 * @param setup what is made of the pictures; what lies outside of them is left out
 */
public record PictureFormat(
        int rows,
        int width,
        char delimiter,
        boolean decimalComma,
        boolean perLine,
        List<Column> columns,
        PictureSetup setup)
        implements StreamFormat {
    /** Columns before the first region. */
    public static final int SUMMARIES = 3;

    /** Most pixels a picture may have. */
    public static final int MOST_PIXELS = 1 << 15;

    public PictureFormat {
        checkSize(rows, width);
        if (columns.size() < SUMMARIES) {
            throw new IllegalArgumentException(Messages.of("decode.columns-a-picture-has-three", columns.size()));
        }
        setup = setup.fitted(width, rows);
        List<Column> all = new ArrayList<>(columns.subList(0, SUMMARIES));
        for (Region region : setup.regions()) {
            all.add(new Column(region.name(), region.unit(columns.get(0).unit()), Role.REGION, true));
        }
        columns = Columns.checked(all, null);
    }

    /** @return the format with columns hottest, coldest and mean */
    public static PictureFormat of(
            int rows, int width, char delimiter, boolean decimalComma, boolean perLine, String unit) {
        List<Column> columns = new ArrayList<>();
        for (String summary : new String[] {"hottest", "coldest", "mean"}) {
            columns.add(new Column(summary, unit));
        }
        return new PictureFormat(rows, width, delimiter, decimalComma, perLine, columns, PictureSetup.NONE);
    }

    /** @return the same stream, of which other things are made */
    public PictureFormat withSetup(PictureSetup other) {
        return new PictureFormat(rows, width, delimiter, decimalComma, perLine, columns.subList(0, SUMMARIES), other);
    }

    /** @return whether both decode alike, whatever is made of the pictures */
    public boolean decodesLike(StreamFormat other) {
        return other instanceof PictureFormat one && withSetup(one.setup).equals(one);
    }

    public boolean sameSize(PictureFormat other) {
        return rows == other.rows && width == other.width;
    }

    /** @return a block of its rows with all its columns, those of the mended pictures and of the regions worked out */
    public Block whole(Block block) {
        if (block.frames() == null) {
            return block;
        }
        double[][] came = Arrays.copyOf(block.columns(), Math.min(SUMMARIES, block.columns().length));
        return block.withColumns(setup.columns(block.frames(), block.rows(), width, came));
    }

    private static void checkSize(int rows, int width) {
        if (rows < 1 || width < 2 || (long) rows * width > MOST_PIXELS) {
            throw new IllegalArgumentException(
                    Messages.of("decode.a-picture-has-up-to-pixels-was", MOST_PIXELS, rows, width));
        }
    }

    @Override
    public String kind() {
        return "picture";
    }

    @Override
    public BoardClock clock() {
        return null;
    }

    @Override
    public String words() {
        return Messages.of(
                "decode.pictures-of-numbers", rows, width, (perLine ? Messages.of("decode.one-a-line") : ""));
    }

    @Override
    public PictureFormat with(List<Column> others, BoardClock ticking) {
        if (ticking != null) {
            throw new IllegalArgumentException(Messages.of("decode.a-picture-carries-no-clock"));
        }
        List<Region> renamed = new ArrayList<>();
        for (int r = 0; r < setup.regions().size(); r++) {
            Region region = setup.regions().get(r);
            int at = SUMMARIES + r;
            renamed.add(at < others.size() ? region.withName(others.get(at).name()) : region);
        }
        return new PictureFormat(rows, width, delimiter, decimalComma, perLine, others, setup.withRegions(renamed));
    }

    @Override
    public StreamDecoder decoder(RejectedLines rejectedLines) {
        return new PictureDecoder(this, rejectedLines);
    }
}
