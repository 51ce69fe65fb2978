package zesty.signal.boards.link;

import com.fazecast.jSerialComm.SerialPort;
import com.fazecast.jSerialComm.SerialPortInvalidPortException;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFileAttributes;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import zesty.signal.core.text.Messages;

/** A serial port. */
final class SerialLink implements Link {
    private static final int READ_TIMEOUT_MS = 100;
    /** What Unix systems answer where a device has no line settings (ENOTTY). */
    private static final int NOT_A_TERMINAL = 25;

    /** Start, data, parity and stop of a byte, at most. */
    private static final int MOST_BITS = 12;
    /** What adapters keep a byte for besides. */
    private static final long KEPT_NANOS = 20_000_000L;
    /** Longer than that nobody waits for a board that takes nothing. */
    private static final long MOST_NANOS = 2_000_000_000L;

    /** So long an ending process waits for who may still have a line to write. */
    private static final long ENDING_NANOS = 1_000_000_000L;

    /** Open ports that were written to, for the library closes all at the process's end, with its own hook beside ours. */
    private static final Set<SerialLink> WRITTEN = ConcurrentHashMap.newKeySet();

    static {
        SerialPort.addShutdownHook(new Thread(SerialLink::letOthersClose, "serial ports"));
    }

    private final LinkAddress.Serial address;
    private volatile SerialPort port;
    private volatile boolean shared;
    /** When the last byte that was written is on the wire; 0 where none was. */
    private volatile long wiredNanos;

    SerialLink(LinkAddress.Serial address) {
        this.address = address;
    }

    @Override
    public void open() throws LinkException {
        Path device = Path.of(address.path());
        boolean unix = address.path().startsWith("/");
        if (unix && Files.notExists(device)) {
            throw new LinkException(Messages.of("link.port-is-not-there-is-the-board", address.path()), false);
        }
        if (unix && (Files.isDirectory(device) || Files.isRegularFile(device))) {
            throw new LinkException(
                    Messages.of(
                            "link.is-a-no-serial-port-ports-are",
                            address.path(),
                            (Files.isDirectory(device) ? Messages.of("link.folder") : Messages.of("link.file-2"))),
                    true);
        }
        if (unix && !(Files.isReadable(device) && Files.isWritable(device))) {
            throw new LinkException(
                    Messages.of("link.port-may-not-be-used-by-you-join", address.path(), group(device)), true);
        }
        SerialPort candidate;
        try {
            candidate = SerialPort.getCommPort(address.path());
        } catch (SerialPortInvalidPortException e) {
            throw new LinkException(Messages.of("link.is-no-serial-port", address.path()), true);
        }
        SerialSettings settings = address.settings();
        candidate.setComPortParameters(
                address.baud(),
                settings.dataBits(),
                settings.stopBits() == 2 ? SerialPort.TWO_STOP_BITS : SerialPort.ONE_STOP_BIT,
                switch (settings.parity()) {
                    case NONE -> SerialPort.NO_PARITY;
                    case EVEN -> SerialPort.EVEN_PARITY;
                    case ODD -> SerialPort.ODD_PARITY;
                });
        if (settings.quiet()) {
            candidate.clearDTR();
            candidate.clearRTS();
        }
        if (shared) {
            candidate.disableExclusiveLock();
        }
        candidate.setFlowControl(SerialPort.FLOW_CONTROL_DISABLED);
        candidate.setComPortTimeouts(SerialPort.TIMEOUT_READ_SEMI_BLOCKING, READ_TIMEOUT_MS, 0);
        if (!candidate.openPort(0)) {
            if (candidate.getLastErrorCode() == NOT_A_TERMINAL) {
                throw new LinkException(Messages.of("link.is-no-serial-port-ports-are-listed", address.path()), true);
            }
            String holder = PortHolders.of(device)
                    .map(name -> Messages.of("link.holds-it", name))
                    .orElse(Messages.of("link.another-program-may-hold-it"));
            throw new LinkException(
                    Messages.of("link.port-would-not-open-at-baud-close", address.path(), address.baud(), holder),
                    false);
        }
        port = candidate;
    }

    /** What makes an output safe is sent while the process ends: ports stay open until who opened them has closed them. */
    private static void letOthersClose() {
        long from = System.nanoTime();
        while (!WRITTEN.isEmpty() && System.nanoTime() - from < ENDING_NANOS) {
            await(System.nanoTime() + KEPT_NANOS);
        }
    }

    /** Waits whatever interrupts: a line that makes a heater safe is worth it. */
    private static void await(long nanos) {
        boolean interrupted = false;
        for (long left = nanos - System.nanoTime(); left > 0; left = nanos - System.nanoTime()) {
            try {
                TimeUnit.NANOSECONDS.sleep(left);
            } catch (InterruptedException e) {
                interrupted = true;
            }
        }
        if (interrupted) {
            Thread.currentThread().interrupt();
        }
    }

    private static String group(Path device) {
        try {
            return Files.readAttributes(device, PosixFileAttributes.class)
                    .group()
                    .getName();
        } catch (IOException | UnsupportedOperationException e) {
            return Messages.of("link.often-dialout");
        }
    }

    @Override
    public int read(byte[] buffer) throws LinkException {
        SerialPort open = port;
        if (open == null) {
            throw new LinkException(Messages.of("link.port-is-closed", address.path()), false);
        }
        int count = open.readBytes(buffer, buffer.length);
        if (count < 0 || count == 0 && !present()) {
            throw new LinkException(Messages.of("link.port-went-away", address.path()), false);
        }
        return count;
    }

    private boolean present() {
        return !address.path().startsWith("/") || Files.exists(Path.of(address.path()));
    }

    @Override
    public void write(byte[] bytes) throws LinkException {
        SerialPort open = port;
        WRITTEN.add(this);
        if (open == null || open.writeBytes(bytes, bytes.length) != bytes.length) {
            throw new LinkException(Messages.of("link.port-took-no-bytes-2", address.path()), false);
        }
        long now = System.nanoTime();
        long free = wiredNanos != 0 && wiredNanos - now > 0 ? wiredNanos : now;
        wiredNanos = free + bytes.length * MOST_BITS * 1_000_000_000L / address.baud();
    }

    @Override
    public boolean share() {
        boolean change = !shared;
        shared = true;
        return change;
    }

    @Override
    public void close() {
        SerialPort open = port;
        port = null;
        if (open != null) {
            // Closing throws away what has not left yet.
            long now = System.nanoTime();
            if (wiredNanos != 0 && present()) {
                await(Math.min(wiredNanos + KEPT_NANOS - now, MOST_NANOS) + now);
            }
            open.closePort();
            WRITTEN.remove(this);
        }
    }

    @Override
    public boolean joinsMidStream() {
        return true;
    }
}
