package zesty.signal.boards.link;

import com.fazecast.jSerialComm.SerialPort;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/** The serial ports this computer knows of. */
public final class SerialPorts {
    /** Speeds boards usually run at, the most usual first. */
    public static final List<Integer> USUAL_SPEEDS =
            List.of(115200, 9600, 57600, 38400, 19200, 230400, 250000, 460800, 500000, 921600, 1000000, 2000000);

    private SerialPorts() {}

    /**
     * A port.
     *
     * @param about what the computer calls it
     * @param maker the numbers by which its maker is known, as hexadecimal digits, and its serial number; may be empty
     * @param holder which program has it open, where the system tells; empty for none
     */
    public record Found(String path, String about, String maker, String holder) {}

    /** @return the ports found now, by path. Takes some milliseconds: not for the window's thread */
    public static List<Found> list() {
        List<Found> found = new ArrayList<>();
        for (SerialPort port : SerialPort.getCommPorts()) {
            String path = port.getSystemPortPath();
            found.add(new Found(
                    path,
                    port.getDescriptivePortName(),
                    maker(port),
                    PortHolders.of(Path.of(path)).orElse("")));
        }
        found.sort(Comparator.comparing(Found::path));
        return found;
    }

    private static String maker(SerialPort port) {
        if (port.getVendorID() < 0 || port.getProductID() < 0) {
            return "";
        }
        String serial = port.getSerialNumber();
        boolean known = serial != null && !serial.isBlank() && !serial.equalsIgnoreCase("unknown");
        return String.format("%04X:%04X", port.getVendorID(), port.getProductID()) + (known ? " no. " + serial : "");
    }
}
