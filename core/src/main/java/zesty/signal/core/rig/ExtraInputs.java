package zesty.signal.core.rig;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.IntFunction;
import zesty.signal.core.decode.Stations;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.scale.Scaling;
import zesty.signal.core.text.Messages;

/**
 * What a channel's chain takes in besides its own column: other columns of the same rows, each by its own chain, not
 * cleaned.
 *
 * @param columns their indices in the stream, in the order that the chain wants
 * @param scalings of each
 */
public record ExtraInputs(List<Integer> columns, List<Scaling> scalings) {
    public static final ExtraInputs NONE = new ExtraInputs(List.of(), List.of());

    public ExtraInputs {
        columns = List.copyOf(columns);
        scalings = List.copyOf(scalings);
    }

    /** @return the name by which formulas call a column: letters, digits and _ only */
    public static String variable(String column) {
        String plain = column.replaceAll("[^A-Za-z0-9]+", "_");
        return plain.isEmpty() || Character.isDigit(plain.charAt(0)) ? "_" + plain : plain;
    }

    /** @return what formulas of the channel may take in: the names of the other columns of its source */
    public static List<String> offered(Rig rig, Channel channel) {
        StreamFormat format = rig.formatOf(channel.column());
        String own = Stations.streamColumn(format, rig.ownName(channel.column()));
        return format.columns().stream()
                .filter(column -> column.isChannel() && !column.name().equals(own))
                .map(column -> variable(column.name()))
                .toList();
    }

    /** @throws IllegalArgumentException when the chain takes in a column that cannot be had, saying why */
    public static ExtraInputs of(Rig rig, Channel channel) {
        List<String> wanted = channel.scaling().columns();
        if (wanted.isEmpty()) {
            return NONE;
        }
        List<Integer> columns = new ArrayList<>();
        List<Scaling> scalings = new ArrayList<>();
        for (String name : wanted) {
            Channel other = extraInput(rig, channel, name);
            if (!other.scaling().columns().isEmpty()) {
                throw new IllegalArgumentException(Messages.of("rig.is-itself-worked-out-of-other", name));
            }
            columns.add(Stations.indexOf(rig.formatOf(other.column()), rig.ownName(other.column())));
            scalings.add(other.scaling());
        }
        return new ExtraInputs(columns, scalings);
    }

    /** @return the channel beside the given one, of the same source and station, that formulas call by that name */
    private static Channel extraInput(Rig rig, Channel channel, String name) {
        int source = rig.sourceOf(channel.column());
        StreamFormat format = rig.formatOf(channel.column());
        double station = Stations.stationOf(format, rig.ownName(channel.column()));
        return rig.channels().stream()
                .filter(other -> rig.sourceOf(other.column()) == source)
                .filter(other -> Double.compare(Stations.stationOf(format, rig.ownName(other.column())), station) == 0)
                .filter(other -> variable(Stations.streamColumn(format, rig.ownName(other.column())))
                        .equals(variable(name)))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException(
                        Messages.of("rig.there-is-no-column-beside-it-there", name, offered(rig, channel))));
    }

    /**
     * @param raw the stream's column of that index: {@code length} values from {@code from} on count
     * @return the scaled values, one array a extra input
     */
    public double[][] values(IntFunction<double[]> raw, int from, int length) {
        double[][] values = new double[columns.size()][];
        for (int c = 0; c < values.length; c++) {
            double[] column = raw.apply(columns.get(c));
            values[c] = column == null ? missing(length) : Arrays.copyOfRange(column, from, from + length);
            scalings.get(c).apply(values[c], values[c], length);
        }
        return values;
    }

    private static double[] missing(int length) {
        double[] none = new double[length];
        Arrays.fill(none, Double.NaN);
        return none;
    }
}
