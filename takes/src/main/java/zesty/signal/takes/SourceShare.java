package zesty.signal.takes;

import java.util.ArrayList;
import java.util.List;
import zesty.signal.core.decode.Column;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.Source;

/** What a source has of a take that is being written: its columns, and the rows so far. */
final class SourceShare {
    final int source;
    final int firstColumn;
    final int columns;
    long rows;

    private SourceShare(int source, int firstColumn, int columns) {
        this.source = source;
        this.firstColumn = firstColumn;
        this.columns = columns;
    }

    static List<SourceShare> of(Rig rig) {
        List<SourceShare> shares = new ArrayList<>();
        int first = 0;
        for (Source source : rig.sources()) {
            int columns = kept(rig, source).size();
            shares.add(new SourceShare(shares.size(), first, columns));
            first += columns;
        }
        return shares;
    }

    /** What the rig leaves out is not recorded; clocks and the like always are. */
    static List<Column> kept(Rig rig, Source source) {
        return source.format() == null
                ? List.of()
                : source.format().columns().stream()
                        .filter(column -> !column.isChannel()
                                || !rig.recording().leftOut().contains(source.prefix() + column.name()))
                        .toList();
    }
}
