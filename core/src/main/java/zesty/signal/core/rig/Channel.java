package zesty.signal.core.rig;

import java.util.Objects;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.scale.Scaling;

/**
 * A column with a scaling and a recipe.
 *
 * @param column the name of its column in the stream
 * @param name what the maker calls it
 * @param shown whether it has a lane
 */
public record Channel(String column, String name, Scaling scaling, Recipe recipe, boolean shown) {
    public Channel {
        Objects.requireNonNull(scaling, "scaling");
        Objects.requireNonNull(recipe, "recipe");
        if (column.isBlank() || name.isBlank()) {
            throw new IllegalArgumentException(
                    "a channel needs a column and a name, were '" + column + "', '" + name + "'");
        }
    }

    public Channel withScaling(Scaling other) {
        return new Channel(column, name, other, recipe, shown);
    }

    public Channel withRecipe(Recipe other) {
        return new Channel(column, name, scaling, other, shown);
    }

    public Channel withName(String other) {
        return new Channel(column, other, scaling, recipe, shown);
    }

    public Channel withShown(boolean other) {
        return new Channel(column, name, scaling, recipe, other);
    }
}
