package zesty.signal.boards.link;

import java.io.IOException;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.net.SocketTimeoutException;
import java.net.UnknownHostException;
import zesty.signal.core.text.Messages;

/** A board that listens on a TCP port. */
final class TcpLink implements Link {
    private static final int CONNECT_TIMEOUT_MS = 3000;
    private static final int READ_TIMEOUT_MS = 100;

    private final LinkAddress.Tcp address;
    private volatile Socket socket;

    TcpLink(LinkAddress.Tcp address) {
        this.address = address;
    }

    @Override
    public void open() throws LinkException {
        Socket candidate = new Socket();
        try {
            InetSocketAddress target = new InetSocketAddress(address.host(), address.port());
            if (target.isUnresolved()) {
                throw new UnknownHostException();
            }
            candidate.connect(target, CONNECT_TIMEOUT_MS);
            candidate.setSoTimeout(READ_TIMEOUT_MS);
            candidate.setTcpNoDelay(true);
            socket = candidate;
        } catch (UnknownHostException e) {
            throw new LinkException(Messages.of("link.no-host-is-called-is-the-name", address.host()), false);
        } catch (IOException e) {
            close(candidate);
            throw new LinkException(
                    Messages.of("link.does-not-answer-is-the-board-on", address.words(), Reasons.of(e)), false);
        }
    }

    @Override
    public int read(byte[] buffer) throws LinkException {
        Socket open = socket;
        if (open == null) {
            throw new LinkException(Messages.of("link.is-closed", address.words()), false);
        }
        try {
            int count = open.getInputStream().read(buffer);
            if (count < 0) {
                throw new LinkException(Messages.of("link.hung-up", address.words()), false);
            }
            return count;
        } catch (SocketTimeoutException e) {
            return NOTHING;
        } catch (LinkException e) {
            throw e;
        } catch (IOException e) {
            throw new LinkException(Messages.of("link.broke-off", address.words(), Reasons.of(e)), false);
        }
    }

    @Override
    public void write(byte[] bytes) throws LinkException {
        Socket open = socket;
        try {
            if (open == null) {
                throw new IOException(Messages.of("link.it-is-closed"));
            }
            open.getOutputStream().write(bytes);
        } catch (IOException e) {
            throw new LinkException(Messages.of("link.took-no-bytes", address.words(), Reasons.of(e)), false);
        }
    }

    @Override
    public void close() {
        Socket open = socket;
        socket = null;
        close(open);
    }

    private static void close(Socket open) {
        if (open != null) {
            try {
                open.close();
            } catch (IOException e) {
                // It is gone either way.
            }
        }
    }

    @Override
    public boolean holdsUp() {
        return true;
    }

    @Override
    public boolean joinsMidStream() {
        return true;
    }
}
