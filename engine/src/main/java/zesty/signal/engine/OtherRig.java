package zesty.signal.engine;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.text.Messages;
import zesty.signal.exchange.report.Report;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeException;

/** A take worked out with the rig it was made with and with another one, number by number. */
public final class OtherRig {
    private OtherRig() {}

    /**
     * @param other its scalings, recipes and readers are taken where the take has their columns; the take is not changed
     * @return rows of number, value with its own rig, value with the other; empty where one has it not
     * @throws TakeException when the take cannot be read, or has no column of the other rig
     */
    public static Report.Table of(Path file, Rig other) throws TakeException {
        try (Take take = Take.open(file)) {
            StoredTake own = StoredTake.load(take);
            Rig with = onto(own.snapshot().rig(), other, file);
            Map<String, String[]> side = new LinkedHashMap<>();
            put(side, TakeReport.numbers(own), 0);
            put(side, TakeReport.numbers(own.with(with)), 1);
            List<List<String>> rows = new ArrayList<>();
            side.forEach((name, values) ->
                    rows.add(List.of(name, values[0] == null ? "" : values[0], values[1] == null ? "" : values[1])));
            return new Report.Table(
                    Messages.of("engine.with-another-rig"),
                    List.of(
                            Messages.of("engine.number"),
                            Messages.of("engine.as-recorded", take.rigOrPlain().name()),
                            other.name()),
                    rows);
        }
    }

    private static void put(Map<String, String[]> side, List<List<String>> numbers, int column) {
        for (List<String> row : numbers) {
            side.computeIfAbsent(row.get(0) + " \u00b7 " + row.get(1), key -> new String[2])[column] = row.get(2);
        }
    }

    private static Rig onto(Rig own, Rig other, Path file) throws TakeException {
        List<String> there = own.channels().stream().map(Channel::column).toList();
        List<Channel> channels = new ArrayList<>(own.channels());
        int taken = 0;
        for (Channel channel : other.channels()) {
            int at = there.indexOf(channel.column());
            if (at >= 0) {
                // A column that the formula of a scaling takes in, too, must be there.
                boolean whole = there.containsAll(channel.scaling().columns());
                channels.set(at, whole ? channel : channels.get(at));
                taken += whole ? 1 : 0;
            }
        }
        if (taken == 0) {
            throw new TakeException(Messages.of(
                    "engine.has-no-column-of-the-rig-it-has", file, other.name(), String.join(", ", there)));
        }
        List<ReaderSetup> readers = other.readers().stream()
                .filter(reader -> there.containsAll(reader.columns()))
                .toList();
        return own.withChannels(channels).withReaders(readers, List.of());
    }
}
