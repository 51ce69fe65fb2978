package zesty.signal.engine;

import java.util.List;
import java.util.function.DoubleUnaryOperator;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import zesty.signal.core.decode.Column;
import zesty.signal.core.read.ScalarInfo;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.Source;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/**
 * A condition by which a recording begins or ends: on one channel, sample by sample, or on a number of a reader, as often as
 * it is read.
 *
 * @param column a number's name, "of" and the channel's name for a reader's number; else a column's name, of a further source behind the source's and a slash, or a channel's name; its value is that which the rig's
 *     scaling gives
 */
public record RecordingCue(String column, Comparison comparison, double limit) {
    /** How a value compares. */
    public enum Comparison {
        ABOVE(">"),
        BELOW("<"),
        AT_LEAST(">="),
        AT_MOST("<=");

        private final String sign;

        Comparison(String sign) {
            this.sign = sign;
        }
    }

    private static final String OF = " of ";
    /** A number that is read less surely begins and ends nothing. */
    private static final double LEAST_QUALITY = 0.4;

    private static final Pattern TEXT = Pattern.compile("(.+?)\\s*(>=|<=|>|<)\\s*(\\S+)");

    /** @throws IllegalArgumentException when the text is no condition, saying how one looks */
    public static RecordingCue parse(String text) {
        Matcher matcher = TEXT.matcher(text.strip());
        if (matcher.matches()) {
            for (Comparison one : Comparison.values()) {
                if (one.sign.equals(matcher.group(2))) {
                    return new RecordingCue(matcher.group(1), one, limit(matcher.group(3), text));
                }
            }
        }
        throw wrong(text);
    }

    private static double limit(String number, String text) {
        try {
            double limit = Double.parseDouble(number);
            if (Double.isFinite(limit) && !number.matches(".*[a-zA-Z]")) {
                return limit;
            }
        } catch (NumberFormatException e) {
            // Said below.
        }
        throw wrong(text);
    }

    private static IllegalArgumentException wrong(String text) {
        return new IllegalArgumentException(Messages.of("engine.a-condition-is-column-number-also", text));
    }

    /** @return the condition as it is written */
    public String words() {
        return column + " " + comparison.sign + " " + Digits.exact(limit);
    }

    /** @return whether a value meets it; a missing one does not */
    boolean met(double value) {
        return switch (comparison) {
            case ABOVE -> value > limit;
            case BELOW -> value < limit;
            case AT_LEAST -> value >= limit;
            case AT_MOST -> value <= limit;
        };
    }

    /**
     * Where the condition's values are found: in the blocks of a rig's sources, or in a reading.
     *
     * @param source −1 for a reading
     * @param reader its id; empty for a column. @param key of its number
     */
    record Place(int source, int column, DoubleUnaryOperator scaling, String reader, String key) {
        Place(int source, int column, DoubleUnaryOperator scaling) {
            this(source, column, scaling, "", "");
        }

        boolean isReading() {
            return source < 0;
        }

        /** @return the number as it was read last; NaN where there is none, or it is not to be trusted */
        double in(Snapshot snapshot) {
            return snapshot.channels().stream()
                    .flatMap(channel -> channel.readers().stream())
                    .filter(one -> one.setup().id().equals(reader)
                            && one.reading() != null
                            && one.reading().quality().share() >= RecordingCue.LEAST_QUALITY)
                    .mapToDouble(one -> one.reading().scalar(key))
                    .findFirst()
                    .orElse(Double.NaN);
        }
    }

    /** @return whether it may be a condition on a reader's number, as it is written */
    public boolean maybeReading() {
        return column.contains(OF);
    }

    private Place reading(Rig rig) {
        int cut = column.lastIndexOf(OF);
        String number = cut < 0 ? "" : column.substring(0, cut).strip();
        String channel = cut < 0 ? "" : column.substring(cut + OF.length()).strip();
        for (Channel one : rig.channels()) {
            if (one.column().equals(channel) || one.name().equalsIgnoreCase(channel)) {
                for (ReaderSetup reader : rig.readersOn(one.column())) {
                    for (ScalarInfo scalar : reader.readerKind().scalars()) {
                        if (scalar.key().equalsIgnoreCase(number) || Messages.means(scalar.words(), number)) {
                            return new Place(-1, -1, DoubleUnaryOperator.identity(), reader.id(), scalar.key());
                        }
                    }
                }
            }
        }
        return null;
    }

    /** @throws IllegalArgumentException when the rig has no such column, naming those it has */
    Place in(Rig rig) {
        for (Channel channel : rig.channels()) {
            if (channel.column().equals(column) || channel.name().equals(column)) {
                int source = rig.sourceOf(channel.column());
                int index = rig.formatOf(channel.column()) == null
                        ? -1
                        : rig.formatOf(channel.column()).indexOf(rig.ownName(channel.column()));
                boolean alone = channel.scaling().columns().isEmpty();
                if (index >= 0) {
                    return new Place(source, index, alone ? channel.scaling()::apply : DoubleUnaryOperator.identity());
                }
            }
        }
        for (int s = 0; s < rig.sources().size(); s++) {
            Source source = rig.sources().get(s);
            if (source.format() != null && column.startsWith(source.prefix())) {
                int index =
                        source.format().indexOf(column.substring(source.prefix().length()));
                if (index >= 0) {
                    return new Place(s, index, DoubleUnaryOperator.identity());
                }
            }
        }
        Place reading = reading(rig);
        if (reading != null) {
            return reading;
        }
        List<String> names = rig.sources().stream()
                .filter(source -> source.format() != null)
                .flatMap(source ->
                        source.format().columns().stream().map(Column::name).map(name -> source.prefix() + name))
                .toList();
        throw new IllegalArgumentException(
                Messages.of("engine.the-source-has-no-column-it-has", column, String.join(", ", names)));
    }
}
