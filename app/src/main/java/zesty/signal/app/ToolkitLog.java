package zesty.signal.app;

import java.text.MessageFormat;
import java.util.ResourceBundle;
import org.slf4j.LoggerFactory;

/**
 * Takes what the window toolkit says of itself to the log. Until the log is set up nothing is: the toolkit has a word for
 * every start, and to set up a log or to print it would take longer than to read the maker's settings. An error is not
 * held back. Any thread.
 */
public final class ToolkitLog extends System.LoggerFinder {
    @Override
    public System.Logger getLogger(String name, Module module) {
        return new Forwarded(name);
    }

    private record Forwarded(String name) implements System.Logger {
        @Override
        public String getName() {
            return name;
        }

        @Override
        public boolean isLoggable(Level level) {
            return level != Level.OFF
                    && level != Level.ALL
                    && (level == Level.ERROR || LogSetup.isReady())
                    && LoggerFactory.getLogger(name).isEnabledForLevel(sameAs(level));
        }

        @Override
        public void log(Level level, ResourceBundle bundle, String message, Throwable fault) {
            if (isLoggable(level)) {
                LoggerFactory.getLogger(name)
                        .atLevel(sameAs(level))
                        .setCause(fault)
                        .log(message);
            }
        }

        @Override
        public void log(Level level, ResourceBundle bundle, String format, Object... values) {
            if (isLoggable(level)) {
                log(level, bundle, values == null ? format : MessageFormat.format(format, values), (Throwable) null);
            }
        }

        private static org.slf4j.event.Level sameAs(Level level) {
            return level == Level.WARNING ? org.slf4j.event.Level.WARN : org.slf4j.event.Level.valueOf(level.name());
        }
    }
}
