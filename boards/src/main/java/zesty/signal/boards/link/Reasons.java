package zesty.signal.boards.link;

import java.io.IOException;
import java.net.BindException;
import java.net.ConnectException;
import java.net.NoRouteToHostException;
import java.net.SocketException;
import java.net.SocketTimeoutException;
import java.nio.file.AccessDeniedException;
import java.util.Locale;
import zesty.signal.core.text.Messages;

/** Why a link failed, in words of our own: those of the operating system and of Java are not for makers. */
final class Reasons {
    private Reasons() {}

    static String of(IOException e) {
        String said = String.valueOf(e.getMessage()).toLowerCase(Locale.ROOT);
        if (e instanceof AccessDeniedException || said.contains("permission denied")) {
            return Messages.of("link.this-user-may-not-use-it");
        }
        if (e instanceof SocketTimeoutException || said.contains("timed out")) {
            return Messages.of("link.no-answer-in-time");
        }
        if (e instanceof ConnectException || said.contains("refused")) {
            return Messages.of("link.nobody-listens-there");
        }
        if (e instanceof NoRouteToHostException || said.contains("unreachable") || said.contains("no route")) {
            return Messages.of("link.no-way-leads-there");
        }
        if (said.contains("in use") || said.contains("busy")) {
            return Messages.of("link.another-program-holds-it");
        }
        if (e instanceof BindException || said.contains("assign")) {
            return Messages.of("link.this-computer-has-no-such-address");
        }
        if (said.contains("is a directory")) {
            return Messages.of("link.it-is-a-folder");
        }
        if (e instanceof SocketException || said.contains("reset") || said.contains("broken pipe")) {
            return Messages.of("link.the-connection-broke-off");
        }
        if (said.contains("no space left")) {
            return Messages.of("link.the-disk-is-full");
        }
        return Messages.of("link.reading-or-writing-failed");
    }
}
