package zesty.signal.boards.link;

import java.io.IOException;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.net.SocketTimeoutException;
import java.nio.ByteBuffer;
import java.nio.channels.ServerSocketChannel;
import java.nio.channels.SocketChannel;
import java.nio.charset.StandardCharsets;
import java.util.concurrent.locks.LockSupport;

/**
 * Waits on a TCP port for a board to call. One board at a time; whoever else calls meanwhile is told so. When it hangs up,
 * the next may call.
 */
final class ListeningLink implements Link {
    private static final int TIMEOUT_MS = 100;
    private static final long LOOK_NANOS = 5_000_000;
    private static final byte[] BUSY =
            "busy: another board is connected here; try again later\n".getBytes(StandardCharsets.UTF_8);

    private final LinkAddress.Tcp address;
    private volatile ServerSocketChannel server;
    private volatile Socket caller;

    ListeningLink(LinkAddress.Tcp address) {
        this.address = address;
    }

    @Override
    public void open() throws LinkException {
        try {
            if (server == null) {
                ServerSocketChannel fresh = ServerSocketChannel.open();
                InetSocketAddress at = address.listensOn() == null
                        ? new InetSocketAddress(address.port())
                        : new InetSocketAddress(address.listensOn(), address.port());
                if (at.isUnresolved()) {
                    throw new LinkException("no address is called " + address.listensOn(), true);
                }
                fresh.bind(at);
                fresh.configureBlocking(false);
                server = fresh;
            }
        } catch (LinkException e) {
            throw e;
        } catch (IOException e) {
            throw new LinkException(
                    "port " + address.port() + " cannot be listened on (" + Reasons.of(e)
                            + "). Choose another port, from 1024 up",
                    true);
        }
    }

    @Override
    public int read(byte[] buffer) throws LinkException {
        ServerSocketChannel listening = server;
        if (listening == null) {
            throw new LinkException("port " + address.port() + " is closed", false);
        }
        Socket open = caller;
        try {
            if (open == null) {
                return await(listening);
            }
            int count = came(open, buffer);
            if (count < 0) {
                hangUp();
                throw new LinkException(
                        "the board that called on port " + address.port() + " hung up; waiting for the next", false);
            }
            // Only now is it certain that the caller is still there, and another one too many.
            turnAway(listening);
            return count;
        } catch (LinkException e) {
            throw e;
        } catch (IOException e) {
            hangUp();
            throw new LinkException(
                    "the board that called on port " + address.port() + " broke off: " + Reasons.of(e)
                            + "; waiting for the next",
                    false);
        }
    }

    private static int came(Socket caller, byte[] buffer) throws IOException {
        try {
            return caller.getInputStream().read(buffer);
        } catch (SocketTimeoutException e) {
            return NOTHING;
        }
    }

    private int await(ServerSocketChannel listening) throws IOException {
        long until = System.nanoTime() + TIMEOUT_MS * 1_000_000L;
        while (System.nanoTime() < until) {
            SocketChannel came = listening.accept();
            if (came != null) {
                came.configureBlocking(true);
                came.socket().setSoTimeout(TIMEOUT_MS);
                came.socket().setTcpNoDelay(true);
                caller = came.socket();
                return NOTHING;
            }
            LockSupport.parkNanos(LOOK_NANOS);
        }
        return NOTHING;
    }

    private static void turnAway(ServerSocketChannel listening) throws IOException {
        SocketChannel second = listening.accept();
        if (second != null) {
            try (second) {
                second.configureBlocking(false);
                second.write(ByteBuffer.wrap(BUSY));
            } catch (IOException e) {
                // It went before it could be told.
            }
        }
    }

    @Override
    public void write(byte[] bytes) throws LinkException {
        Socket open = caller;
        try {
            if (open == null) {
                throw new LinkException("port " + address.port() + " took no bytes: no board has called yet", false);
            }
            open.getOutputStream().write(bytes);
        } catch (LinkException e) {
            throw e;
        } catch (IOException e) {
            throw new LinkException("port " + address.port() + " took no bytes: " + Reasons.of(e), false);
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
        ServerSocketChannel listening = server;
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
    public boolean holdsUp() {
        return true;
    }

    @Override
    public boolean listens() {
        return true;
    }

    @Override
    public boolean joinsMidStream() {
        return true;
    }
}
