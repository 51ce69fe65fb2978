package zesty.signal.app.window.workspace;

import java.io.IOException;
import java.util.Set;
import javafx.application.Platform;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import zesty.signal.app.show.Publisher;
import zesty.signal.app.show.ShowServer;
import zesty.signal.app.show.Where;
import zesty.signal.boards.link.BrokerSecrets;
import zesty.signal.boards.link.LinkAddress;
import zesty.signal.core.text.Messages;

/** The page for a phone: off until it is opened, and off again with the window. JavaFX thread only. */
public final class Sharing {
    private final Workspace workspace;
    private final ReadOnlyObjectWrapper<ShowServer> page = new ReadOnlyObjectWrapper<>();
    private final ReadOnlyObjectWrapper<Publisher> publishing = new ReadOnlyObjectWrapper<>();
    private boolean markers;

    Sharing(Workspace workspace) {
        this.workspace = workspace;
    }

    /** @return the page that is open; null for none */
    public ReadOnlyObjectProperty<ShowServer> page() {
        return page.getReadOnlyProperty();
    }

    /** Opens the page, in the place of one that is open for others. */
    public void open(Where where) {
        close();
        try {
            ShowServer opened = new ShowServer(
                    where,
                    0,
                    () -> workspace.live().snapshot(System.nanoTime()),
                    text -> Platform.runLater(() -> workspace.recordings().mark(text, System.nanoTime())));
            opened.takeMarkers(markers);
            page.set(opened);
        } catch (IOException e) {
            workspace.trouble(Messages.of("workspace.the-page-cannot-be-shown", e.getMessage()));
        }
    }

    /** Whether viewers may send markers. */
    public void takeMarkers(boolean on) {
        markers = on;
        if (page.get() != null) {
            page.get().takeMarkers(on);
        }
    }

    /** @return what is published; null for nothing */
    public ReadOnlyObjectProperty<Publisher> publishing() {
        return publishing.getReadOnlyProperty();
    }

    /**
     * Publishes readings and decisions from now on, in the place of others.
     *
     * @param password of the address's user; empty for none, or the one that is known already
     * @throws IllegalArgumentException when one of them makes no sense, saying what would do
     */
    public void publish(String address, String password, Set<String> names, double everySeconds) {
        if (LinkAddress.parse(address) instanceof LinkAddress.Broker broker && !password.isEmpty()) {
            BrokerSecrets.keep(broker, password);
        }
        Publisher fresh = new Publisher(
                address, names, everySeconds, () -> workspace.live().snapshot(System.nanoTime()));
        stopPublishing();
        publishing.set(fresh);
    }

    public void stopPublishing() {
        Publisher was = publishing.get();
        publishing.set(null);
        if (was != null) {
            was.close();
        }
    }

    /** Closes the page, where one is open. */
    public void close() {
        ShowServer open = page.get();
        page.set(null);
        if (open != null) {
            open.close();
        }
    }
}
