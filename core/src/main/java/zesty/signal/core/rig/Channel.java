package zesty.signal.core.rig;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.prove.Proof;
import zesty.signal.core.scale.Line;
import zesty.signal.core.scale.Scaling;
import zesty.signal.core.scale.UnitBook;
import zesty.signal.core.text.Messages;

/**
 * A column with a scaling and a recipe.
 *
 * @param column the name of its column in the rig
 * @param name what the maker calls it
 * @param shown whether it has a lane
 * @param shownIn the unit its numbers are shown in; empty for the scaling's own
 * @param sensor what is known of the sensor behind it
 * @param limits what it must not go beyond, in the scaling's unit
 * @param proofs the checks against something trusted, oldest first
 */
public record Channel(
        String column,
        String name,
        Scaling scaling,
        Recipe recipe,
        boolean shown,
        String shownIn,
        Sensor sensor,
        Limits limits,
        List<Proof> proofs) {
    /** So many of the newest proofs are kept. */
    private static final int MOST_PROOFS = 100;

    public Channel {
        Objects.requireNonNull(scaling, "scaling");
        Objects.requireNonNull(recipe, "recipe");
        Objects.requireNonNull(sensor, "sensor");
        Objects.requireNonNull(limits, "limits");
        if (column.isBlank() || name.isBlank()) {
            throw new IllegalArgumentException(Messages.of("rig.a-channel-needs-a-column-and-a", column, name));
        }
        // The book of units takes a tenth of a second to open: only where it is needed.
        if (!shownIn.isEmpty() && !UnitBook.alternatives(scaling.unit()).contains(shownIn)) {
            shownIn = "";
        }
        proofs = List.copyOf(proofs.subList(Math.max(0, proofs.size() - MOST_PROOFS), proofs.size()));
    }

    /** A channel shown in its own unit, of which nothing else is known. */
    public Channel(String column, String name, Scaling scaling, Recipe recipe, boolean shown) {
        this(column, name, scaling, recipe, shown, "", Sensor.UNKNOWN, Limits.NONE, List.of());
    }

    /** @return the unit its numbers are shown in */
    public String unit() {
        return shownIn.isEmpty() ? scaling.unit() : shownIn;
    }

    /** @return the line from the scaling's unit to the one shown */
    public Line display() {
        return shownIn.isEmpty() ? Line.SAME : UnitBook.line(scaling.unit(), shownIn);
    }

    /** @return the newest proof; null when it was never proved */
    public Proof proof() {
        return proofs.isEmpty() ? null : proofs.get(proofs.size() - 1);
    }

    public Channel withScaling(Scaling other) {
        return new Channel(column, name, other, recipe, shown, shownIn, sensor, limits, proofs);
    }

    public Channel withRecipe(Recipe other) {
        return new Channel(column, name, scaling, other, shown, shownIn, sensor, limits, proofs);
    }

    public Channel withName(String other) {
        return new Channel(column, other, scaling, recipe, shown, shownIn, sensor, limits, proofs);
    }

    public Channel withShown(boolean other) {
        return new Channel(column, name, scaling, recipe, other, shownIn, sensor, limits, proofs);
    }

    public Channel withShownIn(String unit) {
        return new Channel(column, name, scaling, recipe, shown, unit, sensor, limits, proofs);
    }

    public Channel withSensor(Sensor other) {
        return new Channel(column, name, scaling, recipe, shown, shownIn, other, limits, proofs);
    }

    public Channel withLimits(Limits others) {
        return new Channel(column, name, scaling, recipe, shown, shownIn, sensor, others, proofs);
    }

    /** @return the same channel with one more proof in its book */
    public Channel proved(Proof newest) {
        List<Proof> more = new ArrayList<>(proofs);
        more.add(newest);
        return new Channel(column, name, scaling, recipe, shown, shownIn, sensor, limits, more);
    }

    /** @return the same channel on another column */
    public Channel onColumn(String other, String otherName) {
        return new Channel(other, otherName, scaling, recipe, shown, shownIn, sensor, limits, proofs);
    }
}
