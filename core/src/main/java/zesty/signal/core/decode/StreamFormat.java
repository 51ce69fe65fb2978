package zesty.signal.core.decode;

import java.util.List;

/** How a stream of bytes is to be read. Immutable; equal formats decode alike. */
public sealed interface StreamFormat
        permits DelimitedFormat, LabelledFormat, SentenceFormat, JsonFormat, PacketFormat, PictureFormat {

    /** @return the word for this kind of format, as the command line and the files use it */
    String kind();

    /** @return the columns of each row, one at least, each name once */
    List<Column> columns();

    /** @return the column that is the board's clock; null when it sends none */
    BoardClock clock();

    /** @return the format in words for a person */
    String words();

    /** @return the same format with other names, units, roles and another clock; as many columns as before */
    StreamFormat with(List<Column> columns, BoardClock clock);

    /** @return a decoder that starts at the stream's beginning */
    StreamDecoder decoder(RejectedLines rejectedLines);

    /** @return rows that each line or packet gives */
    default int rowsEach() {
        return 1;
    }

    /** @return where the sequence starts again from 0; 0 when that is not known */
    default double sequenceWrap() {
        return 0;
    }

    /** @return index of the column; −1 when there is none of that name */
    default int indexOf(String name) {
        List<Column> columns = columns();
        for (int i = 0; i < columns.size(); i++) {
            if (columns.get(i).name().equals(name)) {
                return i;
            }
        }
        return -1;
    }

    /** @return index of the first column of that role; −1 when there is none */
    default int indexOf(Role role) {
        List<Column> columns = columns();
        for (int i = 0; i < columns.size(); i++) {
            if (columns.get(i).role() == role) {
                return i;
            }
        }
        return -1;
    }

    /** @return whether its rows are messages of many topics, which come each in its own time */
    default boolean ofTopics() {
        int column = indexOf(Role.STATION);
        return column >= 0 && columns().get(column).name().equals(Stations.TOPIC);
    }

    /** @return the sequence number its lines or packets carry; null when they carry none */
    default BoardSequence sequence() {
        int column = indexOf(Role.SEQUENCE);
        return column < 0 ? null : new BoardSequence(column, sequenceWrap(), rowsEach());
    }
}
