package zesty.signal.core.read;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import zesty.signal.core.act.Band;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.clean.Suggestion;
import zesty.signal.core.text.Messages;

/**
 * A kind of reader describes itself once; the command line, the rig's JSON, the controls, tooltips, cards, exports and
 * what a band may watch all come from this. Kinds are stateless. {@code ReaderKinds} lists them.
 */
public interface ReaderKind {
    /** @return its name on the command line and in rigs, one lower-case word */
    String name();

    /** @return what it is for, in a sentence */
    String words();

    /** @return its name as a heading */
    default String title() {
        return Messages.token(Character.toUpperCase(name().charAt(0)) + name().substring(1));
    }

    /** @return what it gives, in a few words for a tile */
    String gives();

    /**
     * Whether a signal looks like one for it.
     *
     * @param reading what it says of the signal's last seconds
     * @return why, in a sentence; empty where it does not, or where that cannot be told
     */
    default Optional<String> looksLike(Reading reading) {
        return Optional.empty();
    }

    /** @return what a signal of it is by its nature */
    default Nature nature() {
        return Nature.LEVEL;
    }

    /** @return recipes that usually do for a signal of it, the best first */
    default List<Suggestion> suggestions() {
        return Suggestion.LEVEL;
    }

    /** @return the signals it takes, in order; the last ones may be left away down to {@link #fewestPorts()} */
    List<Port> ports();

    /** @return how many of the ports there must be */
    default int fewestPorts() {
        return ports().size();
    }

    /** @return the sorts of sensors that answer it, the usual one first, and what each needs */
    List<Need> needs();

    /** @return what can be set */
    List<Setting> settings();

    /** @return the numbers it gives, the headline first */
    List<ScalarInfo> scalars();

    /** @return keys of the numbers that stand below the headline on a card */
    default List<String> detailKeys() {
        return scalars().stream().skip(1).limit(2).map(ScalarInfo::key).toList();
    }

    /** @return keys of what else it gives: events, words, traces, lists */
    List<String> otherKeys();

    /** @return what is best set for a signal in that unit; nothing where the usual settings do */
    default Map<String, String> settingsFor(String unit) {
        return Map.of();
    }

    /** @return whether its sensor sits on a body */
    default boolean onBody() {
        return false;
    }

    /** @return whether events can be taken out and put in by hand */
    default boolean editable() {
        return false;
    }

    /** @return the bands that its numbers are usually meant to stay in, by key; none unless something is usual */
    default Map<String, Band> usualBands() {
        return Map.of();
    }

    /** @return how long a stretch a live reading speaks of, in s */
    double windowSeconds();

    /** @return how far back events are shown live, in s, at least the window */
    default double eventSeconds() {
        return windowSeconds();
    }

    /** @return the reason why it does not suit a signal of that unit and rate, and what would; empty when it suits */
    Optional<String> unsuited(Settings settings, String unit, double rateHz);

    /**
     * @return the longest hole that is short beside what it looks for, in s from the sample before it to the one after:
     *     such a hole is filled by a straight line and told as filled; after a longer one it begins anew. 0 for one that is
     *     about the samples themselves. At most {@link Recipe#LEAST_HOLE_SECONDS}
     */
    default double longestHoleSeconds(Settings settings) {
        return 0;
    }

    /** @return whether it must know how many rows come a second; false where the values are times themselves */
    default boolean needsRate(Settings settings) {
        return true;
    }

    /** @return the key of the number that says most of a whole record */
    default String mainNumber() {
        return scalars().get(0).key();
    }

    /** @return keys of the numbers that make no sense of a part alone, such as what compares with a rest that lies elsewhere */
    default Set<String> ofWhole() {
        return Set.of();
    }

    /**
     * What the whole of a record taught, for a part of it in which it cannot be learned: the level at rest is that of the record.
     *
     * @param settings the reader's, by their keys
     * @param whole the reading of the whole record
     * @return the settings to read a part with
     */
    default Map<String, String> learned(Map<String, String> settings, Reading whole) {
        return settings;
    }

    /**
     * Looks at a whole file before it is read.
     *
     * @param ports as {@link Reader#accept} would get them
     * @throws ReaderException when what is in it cannot be what the settings say, saying what would be
     */
    default void check(Settings settings, double[][] ports) {}

    /**
     * @param rateHz samples a second
     * @return a reader at its beginning
     * @throws ReaderException when it cannot work like this, saying what would do
     */
    Reader reader(Settings settings, double rateHz);

    /** @return the description of a number; null when it gives none of that key */
    default ScalarInfo scalar(String key) {
        return scalars().stream().filter(s -> s.key().equals(key)).findFirst().orElse(null);
    }
}
