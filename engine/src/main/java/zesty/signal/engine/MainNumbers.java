package zesty.signal.engine;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import zesty.signal.core.read.ScalarInfo;
import zesty.signal.core.text.Messages;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeException;

/** The main number of each reader of a take, for its card on the shelf. */
public final class MainNumbers {
    /** More do not fit on a card. */
    private static final int MOST = 4;

    private MainNumbers() {}

    /**
     * @return such as "Helm pulse: 75 beats/min"; a number that is read poorly says so. Waits for the disk, and reads all of it
     * @throws TakeException when the take cannot be read
     */
    public static List<String> of(Path file) throws TakeException {
        List<String> numbers = new ArrayList<>();
        try (Take take = Take.open(file)) {
            for (ChannelSnapshot channel : StoredTake.load(take).snapshot().channels()) {
                for (ReaderSnapshot reader : channel.readers()) {
                    boolean own = reader.setup()
                            .columns()
                            .get(0)
                            .equals(channel.channel().column());
                    if (!own || reader.reading() == null || numbers.size() == MOST) {
                        continue;
                    }
                    String value = reader.kind().scalars().stream()
                            .filter(info -> info.key().equals(reader.kind().mainNumber()))
                            .map(info -> named(
                                    info,
                                    TakeReport.value(
                                            reader.reading(),
                                            info,
                                            channel.channel().scaling().unit())))
                            .filter(one -> !one.isEmpty())
                            .map(one -> one.replaceFirst(" \u00b1 \\S+", ""))
                            .findFirst()
                            .orElse(Messages.of("engine.nothing-found"));
                    boolean sure = reader.reading().quality().share() >= Comparison.LEAST_QUALITY;
                    numbers.add(channel.channel().name() + ": " + value + (sure ? "" : Messages.of("engine.unsure")));
                }
            }
        }
        return numbers;
    }

    /** A number without a unit needs its name. */
    private static String named(ScalarInfo info, String value) {
        return value.isEmpty() || value.contains(" ") ? value : info.words() + " " + value;
    }
}
