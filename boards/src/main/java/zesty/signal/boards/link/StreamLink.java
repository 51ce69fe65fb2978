package zesty.signal.boards.link;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;

/** A file or standard input, read as fast as it gives. */
final class StreamLink implements Link {
    @FunctionalInterface
    private interface Opener {
        InputStream open() throws IOException;
    }

    private final String words;
    private final boolean file;
    private final Opener opener;
    private volatile InputStream stream;

    private StreamLink(String words, boolean file, Opener opener) {
        this.words = words;
        this.file = file;
        this.opener = opener;
    }

    static Link ofFile(Path path) {
        return new StreamLink("file " + path, true, () -> Files.newInputStream(path));
    }

    static Link ofStandardInput() {
        return new StreamLink("standard input", false, () -> System.in);
    }

    @Override
    public void open() throws LinkException {
        try {
            stream = opener.open();
        } catch (IOException e) {
            throw new LinkException(words + " cannot be read: " + e.getMessage(), true);
        }
    }

    @Override
    public int read(byte[] buffer) throws LinkException {
        InputStream open = stream;
        if (open == null) {
            return OVER;
        }
        try {
            return open.read(buffer);
        } catch (IOException e) {
            throw new LinkException(words + " cannot be read: " + e.getMessage(), true);
        }
    }

    @Override
    public void write(byte[] bytes) throws LinkException {
        throw new LinkException(words + " is only read", true);
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
}
