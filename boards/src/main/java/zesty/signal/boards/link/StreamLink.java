package zesty.signal.boards.link;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.TimeUnit;
import zesty.signal.core.text.Messages;

/** A file or standard input, read as fast as it gives. Standard input is read ahead by a thread of its own, a little. */
final class StreamLink implements Link {
    @FunctionalInterface
    private interface Opener {
        InputStream open() throws IOException;
    }

    private static final int CHUNK = 1 << 16;
    private static final int READ_AHEAD = 4;
    private static final int WAIT_MS = 100;
    private static final byte[] END = {};

    private final String words;
    private final boolean file;
    private final Opener opener;
    private final BlockingQueue<byte[]> ahead = new ArrayBlockingQueue<>(READ_AHEAD);
    private volatile InputStream stream;
    private volatile IOException broke;
    private byte[] rest = END;

    private StreamLink(String words, boolean file, Opener opener) {
        this.words = words;
        this.file = file;
        this.opener = opener;
    }

    static Link ofFile(Path path) {
        return new StreamLink("file " + path, true, () -> Files.newInputStream(path));
    }

    static Link ofStandardInput() {
        return ofPipe(Messages.of("link.standard-input"), System.in);
    }

    /** A stream that may be silent for long: whoever reads it is not held by it. */
    static Link ofPipe(String words, InputStream pipe) {
        return new StreamLink(words, false, () -> pipe);
    }

    @Override
    public void open() throws LinkException {
        try {
            stream = opener.open();
        } catch (IOException e) {
            throw cannot(e);
        }
        if (!file) {
            Thread pump = new Thread(this::pump, words);
            pump.setDaemon(true);
            pump.start();
        }
    }

    private LinkException cannot(IOException e) {
        return new LinkException(
                words
                        + (e instanceof NoSuchFileException
                                ? Messages.of("link.is-not-there")
                                : Messages.of("link.cannot-be-read", Reasons.of(e))),
                true);
    }

    private void pump() {
        byte[] buffer = new byte[CHUNK];
        try {
            InputStream open = stream;
            while (open != null) {
                int count = open.read(buffer);
                if (count < 0) {
                    break;
                }
                ahead.put(Arrays.copyOf(buffer, count));
                open = stream;
            }
            ahead.put(END);
        } catch (IOException e) {
            broke = e;
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    @Override
    public int read(byte[] buffer) throws LinkException {
        InputStream open = stream;
        if (open == null) {
            return OVER;
        }
        try {
            return file ? open.read(buffer) : next(buffer);
        } catch (IOException e) {
            throw cannot(e);
        }
    }

    private int next(byte[] buffer) throws IOException {
        if (rest.length == 0) {
            try {
                byte[] came = ahead.poll(WAIT_MS, TimeUnit.MILLISECONDS);
                if (came == END) {
                    return OVER;
                }
                if (came == null) {
                    if (broke != null) {
                        throw broke;
                    }
                    return NOTHING;
                }
                rest = came;
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                return NOTHING;
            }
        }
        int count = Math.min(rest.length, buffer.length);
        System.arraycopy(rest, 0, buffer, 0, count);
        rest = count == rest.length ? END : Arrays.copyOfRange(rest, count, rest.length);
        return count;
    }

    @Override
    public void write(byte[] bytes) throws LinkException {
        throw new LinkException(Messages.of("link.is-only-read", words), true);
    }

    @Override
    public void close() {
        InputStream open = stream;
        stream = null;
        if (open != null && file) {
            try {
                open.close();
            } catch (IOException e) {
                // It was only read.
            }
        }
    }

    @Override
    public boolean joinsMidStream() {
        return false;
    }

    @Override
    public boolean unpaced() {
        return file;
    }

    @Override
    public boolean holdsUp() {
        return true;
    }
}
