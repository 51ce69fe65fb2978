package zesty.signal.app.window.workspace;

import java.util.HashSet;
import java.util.Set;
import zesty.signal.core.rig.Channel;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.Snapshot;

/** Tells at once when a live channel goes beyond its limits, and marks it in the recording. JavaFX thread only. */
public final class LimitAlerts {
    private final Workspace workspace;
    private final Set<String> told = new HashSet<>();

    public LimitAlerts(Workspace workspace) {
        this.workspace = workspace;
    }

    /** Looks at a live sight; a channel that stays beyond is told once. */
    public void look(Snapshot live) {
        for (ChannelSnapshot snapshot : live.channels()) {
            Channel channel = snapshot.channel();
            if (Double.isNaN(snapshot.beyond())) {
                told.remove(channel.column());
            } else if (told.add(channel.column())) {
                String words = channel.name() + ": "
                        + channel.limits()
                                .words(snapshot.beyond(), channel.scaling().unit());
                workspace.trouble(words + ".");
                workspace.recordings().markQuietly(words);
            }
        }
    }
}
