package zesty.signal.boards.link;

import java.io.IOException;
import java.net.ServerSocket;
import java.net.Socket;
import java.net.SocketTimeoutException;

/** Waits on a TCP port for a board to call. One board at a time; when it hangs up, the next may call. */
final class ListeningLink implements Link {
    private static final int TIMEOUT_MS = 100;

    private final int port;
    private volatile ServerSocket server;
    private volatile Socket caller;

    ListeningLink(int port) {
        this.port = port;
    }

    @Override
    public void open() throws LinkException {
        try {
            if (server == null) {
                ServerSocket fresh = new ServerSocket(port);
                fresh.setSoTimeout(TIMEOUT_MS);
                server = fresh;
            }
        } catch (IOException e) {
            throw new LinkException(
                    "port " + port + " cannot be listened on (" + e.getMessage()
                            + "). Another program may hold it: choose another port, from 1024 up",
                    true);
        }
    }

    @Override
    public int read(byte[] buffer) throws LinkException {
        ServerSocket listening = server;
        if (listening == null) {
            throw new LinkException("port " + port + " is closed", false);
        }
        Socket open = caller;
        try {
            if (open == null) {
                open = listening.accept();
                open.setSoTimeout(TIMEOUT_MS);
                open.setTcpNoDelay(true);
                caller = open;
                return NOTHING;
            }
            int count = open.getInputStream().read(buffer);
            if (count < 0) {
                hangUp();
                throw new LinkException("the board that called on port " + port + " hung up", false);
            }
            return count;
        } catch (SocketTimeoutException e) {
            return NOTHING;
        } catch (LinkException e) {
            throw e;
        } catch (IOException e) {
            hangUp();
            throw new LinkException("the board that called on port " + port + " broke off: " + e.getMessage(), false);
        }
    }

    @Override
    public void write(byte[] bytes) throws LinkException {
        Socket open = caller;
        try {
            if (open == null) {
                throw new IOException("no board has called yet");
            }
            open.getOutputStream().write(bytes);
        } catch (IOException e) {
            throw new LinkException("port " + port + " took no bytes: " + e.getMessage(), false);
        }
    }

    private void hangUp() {
        Socket open = caller;
        caller = null;
        try {
            if (open != null) {
                open.close();
            }
        } catch (IOException e) {
            // It is gone either way.
        }
    }

    @Override
    public void close() {
        hangUp();
        ServerSocket listening = server;
        server = null;
        try {
            if (listening != null) {
                listening.close();
            }
        } catch (IOException e) {
            // It is gone either way.
        }
    }

    @Override
    public boolean joinsMidStream() {
        return true;
    }
}
