package zesty.signal.exchange.foreign;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import zesty.signal.core.text.Messages;
import zesty.signal.exchange.WavExport;
import zesty.signal.takes.TakeException;

/**
 * Sound as a record: whole numbers of 8 to 32 bits as parts of full scale, 32 and 64-bit float as they are. A file of our own says so in a
 * text chunk: its whole numbers are values, its columns have names and the rate is the true one.
 */
final class WavFile implements ForeignFile {
    private static final int ROWS = 1 << 14;
    private static final int CHUNK = 8;
    private static final int LONGEST_TEXT = 1 << 16;
    private static final int PCM = 1;
    private static final int FLOAT = 3;
    private static final int EXTENSIBLE = 0xFFFE;
    private static final Pattern RATE = Pattern.compile("; rate ([-+.0-9eE]+) Hz; columns (.*)", Pattern.DOTALL);
    private static final Pattern COLUMN = Pattern.compile("(.+?)(?: \\[([^\\]]*)\\])?");

    private final Path file;
    private final FileChannel channel;
    private final List<String> remarks = new ArrayList<>();
    private int coding;
    private int channels;
    private int bits;
    private double rateHz;
    private long dataAt = -1;
    private long dataBytes;
    private String comment = "";

    WavFile(Path file) throws IOException {
        this.file = file;
        channel = FileChannel.open(file);
        try {
            chunks();
        } catch (IOException | RuntimeException e) {
            channel.close();
            throw e;
        }
    }

    private ByteBuffer bytes(long at, int count) throws IOException {
        ByteBuffer bytes = ByteBuffer.allocate(count).order(ByteOrder.LITTLE_ENDIAN);
        while (bytes.hasRemaining()) {
            if (channel.read(bytes, at + bytes.position()) < 0) {
                break;
            }
        }
        return bytes.flip();
    }

    private static String tag(ByteBuffer bytes) {
        byte[] four = new byte[4];
        bytes.get(four);
        return new String(four, StandardCharsets.ISO_8859_1);
    }

    private void chunks() throws IOException {
        ByteBuffer head = bytes(0, 12);
        if (head.remaining() < 12
                || !tag(head).equals("RIFF")
                || head.getInt() == 0 && channel.size() < 12
                || !tag(head).equals("WAVE")) {
            throw new TakeException(Messages.of("foreign.is-no-wav-file-it-does-not-begin", file));
        }
        long at = 12;
        while (at + CHUNK <= channel.size() && dataAt < 0 | comment.isEmpty()) {
            ByteBuffer chunk = bytes(at, CHUNK);
            String name = tag(chunk);
            long length = chunk.getInt() & 0xFFFF_FFFFL;
            if (name.equals("fmt ")) {
                format(bytes(at + CHUNK, (int) Math.min(40, length)));
            } else if (name.equals("LIST")) {
                said(bytes(at + CHUNK, (int) Math.min(LONGEST_TEXT, length)));
            } else if (name.equals("data")) {
                dataAt = at + CHUNK;
                dataBytes = Math.min(length, channel.size() - dataAt);
                if (dataBytes < length) {
                    remarks.add(Messages.of("foreign.it-is-cut-off-bytes-of-its-values", (length - dataBytes)));
                }
            }
            at += CHUNK + length + length % 2;
        }
        if (channels == 0 || dataAt < 0) {
            throw new TakeException(Messages.of(
                    "foreign.is-a-wav-file-without",
                    file,
                    (channels == 0 ? Messages.of("foreign.a-format") : Messages.of("foreign.values"))));
        }
    }

    private void format(ByteBuffer fields) throws TakeException {
        if (fields.remaining() < 16) {
            throw new TakeException(Messages.of("foreign.is-a-wav-file-whose-format-is-cut", file));
        }
        coding = fields.getShort() & 0xFFFF;
        channels = fields.getShort() & 0xFFFF;
        rateHz = fields.getInt() & 0xFFFF_FFFFL;
        fields.getInt();
        fields.getShort();
        bits = fields.getShort();
        if (coding == EXTENSIBLE && fields.remaining() >= 10) {
            coding = fields.getShort(24);
        }
        boolean whole = coding == PCM && (bits == 8 || bits == 16 || bits == 24 || bits == 32);
        boolean real = coding == FLOAT && (bits == 32 || bits == 64);
        if (!whole && !real || channels == 0 || !(rateHz > 0)) {
            throw new TakeException(Messages.of(
                    "foreign.is-a-wav-file-of-coding-with-bits", file, coding, bits, channels, (long) rateHz));
        }
    }

    private void said(ByteBuffer list) {
        if (list.remaining() < 4 || !tag(list).equals("INFO")) {
            return;
        }
        while (list.remaining() >= CHUNK) {
            String name = tag(list);
            int length = list.getInt();
            byte[] text = new byte[Math.max(0, Math.min(length, list.remaining()))];
            list.get(text);
            if (name.equals("ICMT")) {
                comment = new String(text, StandardCharsets.UTF_8).replace("\0", "");
            }
            if (length % 2 != 0 && list.hasRemaining()) {
                list.get();
            }
        }
    }

    private boolean own() {
        return comment.startsWith(WavExport.MARK);
    }

    private int width() {
        return channels * bits / 8;
    }

    @Override
    public List<Source> sources() {
        double rate = rateHz;
        List<Column> columns = new ArrayList<>();
        Matcher said = RATE.matcher(own() ? comment.substring(WavExport.MARK.length()) : "");
        if (said.matches()) {
            rate = Double.parseDouble(said.group(1));
            for (String one : said.group(2).split("\t")) {
                Matcher column = COLUMN.matcher(one);
                if (column.matches()) {
                    columns.add(new Column(column.group(1), column.group(2) == null ? "" : column.group(2)));
                }
            }
        }
        if (columns.size() != channels) {
            columns.clear();
            for (int c = 1; c <= channels; c++) {
                columns.add(new Column(String.valueOf(c), ""));
            }
        }
        return List.of(new Source("", columns, dataBytes / width(), rate));
    }

    @Override
    public List<String> remarks() {
        return remarks;
    }

    @Override
    public void read(int source, int[] columns, Taker taker) throws IOException {
        Source only = sources().get(0);
        double full = own() || coding == FLOAT ? 1 : 1.0 / (1L << bits - 1);
        for (long row = 0; row < only.rows(); row += ROWS) {
            int n = (int) Math.min(ROWS, only.rows() - row);
            ByteBuffer piece = bytes(dataAt + row * width(), n * width());
            double[] seconds = new double[n];
            double[][] values = new double[columns.length][n];
            for (int i = 0; i < n; i++) {
                seconds[i] = (row + i) / only.rateHz();
                for (int c = 0; c < columns.length; c++) {
                    values[c][i] = value(piece, i * width() + columns[c] * bits / 8) * full;
                }
            }
            taker.take(seconds, values);
        }
    }

    private double value(ByteBuffer bytes, int at) {
        return switch (bits) {
            case 8 -> (bytes.get(at) & 0xFF) - 128;
            case 16 -> bytes.getShort(at);
            case 24 -> (bytes.getShort(at) & 0xFFFF) | bytes.get(at + 2) << 16;
            case 32 -> coding == FLOAT ? bytes.getFloat(at) : bytes.getInt(at);
            default -> bytes.getDouble(at);
        };
    }

    @Override
    public void close() throws IOException {
        channel.close();
    }
}
