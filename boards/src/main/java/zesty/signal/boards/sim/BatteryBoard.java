package zesty.signal.boards.sim;

import java.io.ByteArrayOutputStream;
import java.util.List;
import java.util.Map;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.Role;

/**
 * Six stations in turn, twelve lines a second, each station twice: a millisecond clock, the station's number, its volts
 * and its amps, parted by semicolons, with a decimal comma. All feel the pump, that runs for six seconds of twenty; station 4 is weak and sags; station 6 goes silent for some
 * seconds now and then.
 */
final class BatteryBoard extends SampledBoard {
    private static final int STATIONS = 6;
    private final double[] volts = {12.71, 12.66, 12.7, 12.24, 12.69, 12.63};

    BatteryBoard(Setup setup) {
        super(
                setup,
                12,
                List.of(
                        new Column("t_ms", "", Role.CLOCK, true),
                        new Column("station", "", Role.STATION, true),
                        new Column("volts", ""),
                        new Column("amps", "")));
        range(2, 0, 12.5);
    }

    @Override
    public byte[] greeting() {
        return ascii("shed battery board, six stations\nt_ms;station;volts;amps\n");
    }

    @Override
    void measure(double t) {
        int station = (int) (sample % STATIONS) + 1;
        double motor = t % 20 > 14 ? 6 : 0;
        double load = motor + (station == 4 ? 0.9 : 0.15);
        double drained = volts[station - 1] - t * (station == 4 ? 4e-4 : 2e-5);
        row[0] = 900 + Math.round(sample * 1000 / 12.0);
        row[1] = station;
        row[2] = rounded(drained - load * (station == 4 ? 0.09 : 0.03) + noise(0.004), 3);
        row[3] = rounded(load + noise(0.01), 2);
    }

    /** @return whether the newest frame's station says nothing */
    private boolean silent() {
        return row[1] == STATIONS && sample / 12 % 25 >= 18;
    }

    @Override
    void write(ByteArrayOutputStream out) {
        if (silent()) {
            return;
        }
        String line =
                (long) row[0] + ";" + (long) row[1] + ";" + decimals(row[2], 3) + ";" + decimals(row[3], 2) + "\n";
        text(out, line.replace('.', ','));
    }

    @Override
    public double[][] newest() {
        // The frame counter has moved on since the row was written.
        boolean said = !(row[1] == STATIONS && (sample - 1) / 12 % 25 >= 18);
        return said ? super.newest() : new double[0][];
    }

    @Override
    public Map<String, Double> truth() {
        return Map.of("stations", (double) STATIONS, "weak station", 4.0);
    }
}
