package zesty.signal.takes;

import java.util.ArrayList;
import java.util.List;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.PictureFormat;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.Source;

/** What a source has of a take that is being written: its columns, and the rows so far. */
final class SourceShare {
    final int source;
    final int firstColumn;
    final int columns;
    /** Columns of its pictures; 1 where it sends none. */
    final int frameWidth;

    long rows;

    private SourceShare(int source, int firstColumn, int columns, int frameWidth) {
        this.source = source;
        this.firstColumn = firstColumn;
        this.columns = columns;
        this.frameWidth = frameWidth;
    }

    static List<SourceShare> of(Rig rig) {
        List<SourceShare> shares = new ArrayList<>();
        int first = 0;
        for (Source source : rig.sources()) {
            int columns = kept(rig, source).size();
            shares.add(new SourceShare(shares.size(), first, columns, width(source)));
            first += columns;
        }
        return shares;
    }

    private static int width(Source source) {
        return source.format() instanceof PictureFormat picture ? picture.width() : 1;
    }

    /** What the rig leaves out is not recorded; clocks and the like always are. Of pictures, what is worked out of them is not. */
    static List<Column> kept(Rig rig, Source source) {
        if (source.format() instanceof PictureFormat picture) {
            return picture.columns().subList(0, PictureFormat.SUMMARIES);
        }
        return source.format() == null
                ? List.of()
                : source.format().columns().stream()
                        .filter(column -> !column.isChannel()
                                || !rig.recording().leftOut().contains(source.prefix() + column.name()))
                        .toList();
    }
}
