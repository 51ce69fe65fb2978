package zesty.signal.core.picture;

import java.util.ArrayList;
import java.util.List;
import zesty.signal.core.text.Messages;

/**
 * What the maker decided about a source's pictures.
 *
 * @param regions parts that are channels of their own, in their order
 * @param quarterTurns by how many quarters of a turn it is shown to the right, 0 to 3; numbers are not changed by it
 * @param mirrored whether it is shown with left and right changed, before it is turned
 */
public record PictureSetup(List<Region> regions, PictureMend mend, int quarterTurns, boolean mirrored) {
    /** Pictures as they come, without channels of their own. */
    public static final PictureSetup NONE = new PictureSetup(List.of(), PictureMend.NONE, 0, false);

    public PictureSetup {
        regions = List.copyOf(regions);
        if (quarterTurns < 0 || quarterTurns > 3) {
            throw new IllegalArgumentException(Messages.of("picture.a-picture-is-turned-by-0-to-3", quarterTurns));
        }
        if (regions.stream().map(Region::name).distinct().count() < regions.size()) {
            throw new IllegalArgumentException(Messages.of("picture.two-parts-of-a-picture-have-one"));
        }
    }

    public boolean isNone() {
        return equals(NONE);
    }

    public PictureSetup withMend(PictureMend other) {
        return new PictureSetup(regions, other, quarterTurns, mirrored);
    }

    public PictureSetup withRegions(List<Region> others) {
        return new PictureSetup(others, mend, quarterTurns, mirrored);
    }

    public PictureSetup turned(int otherTurns, boolean otherMirrored) {
        return new PictureSetup(regions, mend, otherTurns, otherMirrored);
    }

    /** @return the setup with a part more, or another in the place of that of the same name */
    public PictureSetup withRegion(Region region) {
        List<Region> others = new ArrayList<>(regions);
        int at = regions.stream().map(Region::name).toList().indexOf(region.name());
        if (at < 0) {
            others.add(region);
        } else {
            others.set(at, region);
        }
        return withRegions(others);
    }

    public PictureSetup withoutRegion(String name) {
        return withRegions(
                regions.stream().filter(one -> !one.name().equals(name)).toList());
    }

    /** @return what of it fits pictures of that size */
    public PictureSetup fitted(int width, int height) {
        List<Integer> dead =
                mend.dead().stream().filter(p -> p >= 0 && p < width * height).toList();
        double[] lid = mend.lid().length == width * height ? mend.lid() : new double[0];
        return new PictureSetup(
                regions.stream().filter(one -> one.fits(width, height)).toList(),
                mend.withDead(dead).withLid(lid),
                quarterTurns,
                mirrored);
    }

    /**
     * Columns of rows that carry pictures: hottest, coldest and mean of the mended picture, then a column a region.
     *
     * @param frames as they came, one a row; null where one is missing. @param came hottest, coldest and mean as they came
     */
    public double[][] columns(double[][] frames, int rows, int width, double[][] came) {
        int summaries = came.length;
        double[][] columns = new double[summaries + regions.size()][rows];
        for (int row = 0; row < rows; row++) {
            double[] frame = frames[row] == null ? null : mend.of(frames[row], width);
            for (int c = 0; c < summaries; c++) {
                columns[c][row] = came[c][row];
            }
            if (frame != null && !mend.isNone()) {
                double[] own = summaries(frame);
                for (int c = 0; c < Math.min(summaries, own.length); c++) {
                    columns[c][row] = own[c];
                }
            }
            for (int r = 0; r < regions.size(); r++) {
                columns[summaries + r][row] =
                        frame == null ? Double.NaN : regions.get(r).of(frame, width);
            }
        }
        return columns;
    }

    /** @return hottest, coldest and mean of a picture, missing pixels passed over; NaN where all are */
    public static double[] summaries(double[] frame) {
        double hottest = Double.NaN;
        double coldest = Double.NaN;
        double sum = 0;
        int n = 0;
        for (double value : frame) {
            if (value == value) {
                hottest = n == 0 ? value : Math.max(hottest, value);
                coldest = n == 0 ? value : Math.min(coldest, value);
                sum += value;
                n++;
            }
        }
        return new double[] {hottest, coldest, n == 0 ? Double.NaN : sum / n};
    }
}
