package zesty.signal.boards.link;

import com.fazecast.jSerialComm.SerialPort;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/** The serial ports this computer knows of. */
public final class SerialPorts {
    /** Speeds boards usually run at, the most usual first. */
    public static final List<Integer> USUAL_SPEEDS =
            List.of(115200, 9600, 57600, 38400, 19200, 230400, 250000, 460800, 500000, 921600, 1000000, 2000000);

    private SerialPorts() {}

    /** A port's path and what the computer says of it. */
    public record Found(String path, String about) {}

    /** @return the ports found now, by path. Takes some milliseconds: not for the window's thread */
    public static List<Found> list() {
        List<Found> found = new ArrayList<>();
        for (SerialPort port : SerialPort.getCommPorts()) {
            found.add(new Found(port.getSystemPortPath(), port.getDescriptivePortName()));
        }
        found.sort(Comparator.comparing(Found::path));
        return found;
    }
}
