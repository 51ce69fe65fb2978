package zesty.signal.core.rig;

import java.util.Objects;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.prove.Proof;
import zesty.signal.core.scale.Line;
import zesty.signal.core.scale.Scaling;
import zesty.signal.core.scale.UnitBook;

/**
 * A column with a scaling and a recipe.
 *
 * @param column the name of its column in the stream
 * @param name what the maker calls it
 * @param shown whether it has a lane
 * @param shownIn the unit its numbers are shown in; empty for the scaling's own
 * @param proof the newest check against something trusted; null when it was never proved
 */
public record Channel(
        String column, String name, Scaling scaling, Recipe recipe, boolean shown, String shownIn, Proof proof) {
    public Channel {
        Objects.requireNonNull(scaling, "scaling");
        Objects.requireNonNull(recipe, "recipe");
        if (column.isBlank() || name.isBlank()) {
            throw new IllegalArgumentException(
                    "a channel needs a column and a name, were '" + column + "', '" + name + "'");
        }
        if (!UnitBook.alternatives(scaling.unit()).contains(shownIn)) {
            shownIn = "";
        }
    }

    /** A channel shown in its own unit and never proved. */
    public Channel(String column, String name, Scaling scaling, Recipe recipe, boolean shown) {
        this(column, name, scaling, recipe, shown, "", null);
    }

    /** @return the unit its numbers are shown in */
    public String unit() {
        return shownIn.isEmpty() ? scaling.unit() : shownIn;
    }

    /** @return the line from the scaling's unit to the one shown */
    public Line display() {
        return shownIn.isEmpty() ? Line.SAME : UnitBook.line(scaling.unit(), shownIn);
    }

    public Channel withScaling(Scaling other) {
        return new Channel(column, name, other, recipe, shown, shownIn, proof);
    }

    public Channel withRecipe(Recipe other) {
        return new Channel(column, name, scaling, other, shown, shownIn, proof);
    }

    public Channel withName(String other) {
        return new Channel(column, other, scaling, recipe, shown, shownIn, proof);
    }

    public Channel withShown(boolean other) {
        return new Channel(column, name, scaling, recipe, other, shownIn, proof);
    }

    public Channel withShownIn(String unit) {
        return new Channel(column, name, scaling, recipe, shown, unit, proof);
    }

    public Channel withProof(Proof other) {
        return new Channel(column, name, scaling, recipe, shown, shownIn, other);
    }

    /** @return the same channel on another column */
    public Channel onColumn(String other, String otherName) {
        return new Channel(other, otherName, scaling, recipe, shown, shownIn, proof);
    }
}
