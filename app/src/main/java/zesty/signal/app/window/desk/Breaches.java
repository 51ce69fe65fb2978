package zesty.signal.app.window.desk;

import java.util.HashSet;
import java.util.Set;
import zesty.signal.core.rig.Channel;
import zesty.signal.engine.ChannelSight;
import zesty.signal.engine.Sight;

/** Tells at once when a live channel goes beyond its limits, and marks it in the recording. JavaFX thread only. */
public final class Breaches {
    private final Desk desk;
    private final Set<String> told = new HashSet<>();

    public Breaches(Desk desk) {
        this.desk = desk;
    }

    /** Looks at a live sight; a channel that stays beyond is told once. */
    public void look(Sight live) {
        for (ChannelSight sight : live.channels()) {
            Channel channel = sight.channel();
            if (Double.isNaN(sight.beyond())) {
                told.remove(channel.column());
            } else if (told.add(channel.column())) {
                String words = channel.name() + ": "
                        + channel.limits()
                                .words(sight.beyond(), channel.scaling().unit());
                desk.trouble(words + ".");
                desk.markQuietly(words);
            }
        }
    }
}
