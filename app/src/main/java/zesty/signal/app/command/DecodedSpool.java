package zesty.signal.app.command;

import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.decode.PictureFormat;
import zesty.signal.core.decode.RejectedLines;
import zesty.signal.core.decode.Rows;
import zesty.signal.core.decode.StreamDecoder;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.picture.FrameSeries;
import zesty.signal.takes.NumberRows;

/**
 * What a stream decodes to, column by column, laid up in passing files: the JSON wants whole columns, and a stream may be
 * longer than the memory. One thread; close it, and the files are gone.
 */
final class DecodedSpool implements AutoCloseable {
    private final StreamDecoder decoder;
    private final int mostShown;
    private final Path folder;
    private final List<Path> files = new ArrayList<>();
    private final List<OutputStream> streams = new ArrayList<>();
    private final List<NumberRows> columns = new ArrayList<>();
    private final List<RejectedLines.Item> shown = new ArrayList<>();
    private long rows;
    private long rejects;

    /** @param mostShown so many set-aside lines are for a person to see; above that all go into the JSON */
    DecodedSpool(StreamDecoder decoder, int mostShown) throws IOException {
        this.decoder = decoder;
        this.mostShown = mostShown;
        folder = Files.createTempDirectory("zesty-decode");
        folder.toFile().deleteOnExit();
        int count = mostShown == Integer.MAX_VALUE ? columns(decoder.format()).size() + 1 : 0;
        for (int c = 0; c < count; c++) {
            Path file = folder.resolve("column" + c);
            file.toFile().deleteOnExit();
            files.add(file);
            streams.add(new BufferedOutputStream(Files.newOutputStream(file), 1 << 15));
            columns.add(new NumberRows(streams.get(c), "null"));
        }
    }

    /** @return the columns of a format; of pictures, one a pixel as well */
    private static List<Column> columns(StreamFormat format) {
        if (!(format instanceof PictureFormat picture)) {
            return format.columns();
        }
        String unit = picture.columns().get(0).unit();
        List<Column> all = new ArrayList<>(picture.columns().subList(0, PictureFormat.SUMMARIES));
        for (int p = 0; p < picture.rows() * picture.width(); p++) {
            all.add(new Column(FrameSeries.pixel(p % picture.width(), p / picture.width()), unit));
        }
        return all;
    }

    private boolean whole() {
        return !files.isEmpty();
    }

    void feed(byte[] bytes) throws IOException {
        decoder.feed(bytes, 0, bytes.length);
        if (decoder.waiting() > 0) {
            Rows came = decoder.takeRows();
            rows += came.count();
            for (int c = 0; whole() && c < came.columns().length; c++) {
                for (int row = 0; row < came.count(); row++) {
                    columns.get(c).add(came.columns()[c][row]);
                }
            }
            for (int row = 0; whole() && came.frames() != null && row < came.count(); row++) {
                for (int p = 0; p < came.frames()[row].length; p++) {
                    columns.get(came.columns().length + p).add(came.frames()[row][p]);
                }
            }
        }
        for (RejectedLines.Item item : decoder.rejectedLines().drain()) {
            if (whole()) {
                OutputStream out = streams.get(streams.size() - 1);
                ObjectNode node = Json.object();
                node.put("line", item.line()).put("text", item.text()).put("why", item.why());
                out.write((rejects++ == 0 ? "" : ",").getBytes(StandardCharsets.UTF_8));
                out.write(node.toString().getBytes(StandardCharsets.UTF_8));
            } else if (shown.size() < mostShown) {
                shown.add(item);
            }
        }
    }

    long rows() {
        return rows;
    }

    List<RejectedLines.Item> shown() {
        return shown;
    }

    /** Prints all of it as one JSON object on standard output. */
    void print() throws IOException {
        for (int c = 0; c < streams.size(); c++) {
            if (c < streams.size() - 1) {
                columns.get(c).flush();
            }
            streams.get(c).close();
        }
        ObjectNode head = Json.object();
        head.put("format", decoder.format().kind());
        head.put(
                "delimiter",
                decoder.format() instanceof DelimitedFormat delimited ? String.valueOf(delimited.delimiter()) : null);
        String begun = head.toString();
        text(begun.substring(0, begun.length() - 1) + ",\"columns\":[");
        List<Column> named = columns(decoder.format());
        for (int c = 0; c < named.size(); c++) {
            ObjectNode node = Json.object();
            node.put("name", named.get(c).name()).put("unit", named.get(c).unit());
            String column = node.toString();
            text((c == 0 ? "" : ",") + column.substring(0, column.length() - 1) + ",\"values\":[");
            copy(files.get(c));
            text("]}");
        }
        text("],\"lines\":" + decoder.lines() + ",\"rejected\":"
                + decoder.rejectedLines().count() + ",\"rejects\":[");
        copy(files.get(files.size() - 1));
        text("]}\n");
        System.out.flush();
    }

    private static void text(String json) {
        byte[] bytes = json.getBytes(StandardCharsets.UTF_8);
        System.out.write(bytes, 0, bytes.length);
    }

    private static void copy(Path file) throws IOException {
        try (var in = Files.newInputStream(file)) {
            byte[] buffer = new byte[1 << 16];
            int count = in.read(buffer);
            while (count > 0 && !System.out.checkError()) {
                System.out.write(buffer, 0, count);
                count = in.read(buffer);
            }
        }
    }

    @Override
    public void close() throws IOException {
        for (int c = 0; c < files.size(); c++) {
            try {
                streams.get(c).close();
            } catch (IOException e) {
                // What could not be written has been told.
            }
            Files.deleteIfExists(files.get(c));
        }
        Files.deleteIfExists(folder);
    }
}
