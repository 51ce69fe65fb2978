package zesty.signal.exchange;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.ShortBuffer;
import java.nio.channels.FileChannel;
import java.nio.channels.FileChannel.MapMode;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;

/**
 * Room for the 16-bit values of a file whose records hold a piece of each signal, beside memory: in a passing file that goes
 * with the last of them. It is written before it is looked at, so that a full disk is an error and no crash. One thread.
 */
final class EdfSlots implements AutoCloseable {
    private static final int PIECE = 1 << 15;

    private final FileChannel channel;
    private long end;

    EdfSlots() throws IOException {
        Path file = Files.createTempFile("edf", ".slots");
        channel = FileChannel.open(
                file, StandardOpenOption.READ, StandardOpenOption.WRITE, StandardOpenOption.DELETE_ON_CLOSE);
    }

    /** @return so many values, all of them the given one */
    ShortBuffer filled(int count, short value) throws IOException {
        ByteBuffer piece = ByteBuffer.allocate(2 * PIECE).order(ByteOrder.LITTLE_ENDIAN);
        while (piece.hasRemaining()) {
            piece.putShort(value);
        }
        long begin = end;
        for (long left = 2L * count; left > 0; ) {
            piece.clear().limit((int) Math.min(piece.capacity(), left));
            int n = channel.write(piece, end);
            end += n;
            left -= n;
        }
        return channel.map(MapMode.READ_WRITE, begin, 2L * count)
                .order(ByteOrder.LITTLE_ENDIAN)
                .asShortBuffer();
    }

    @Override
    public void close() throws IOException {
        channel.close();
    }
}
