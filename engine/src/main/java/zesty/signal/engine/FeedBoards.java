package zesty.signal.engine;

import java.util.List;
import zesty.signal.boards.link.LinkException;
import zesty.signal.core.text.Messages;

/** The boards of a trail as its outputs know them. Any thread. */
record FeedBoards(List<Feed> feeds) implements Outputs.Boards {
    private SourceReader reader(String source) {
        return feeds.stream()
                .filter(feed -> feed.name().equals(source))
                .findFirst()
                .map(Feed::reader)
                .orElse(null);
    }

    @Override
    public SentLine send(String source, String line) throws LinkException {
        SourceReader reader = reader(source);
        if (reader == null) {
            throw new LinkException(Messages.of("engine.its-board-is-not-connected"), false);
        }
        return reader.send(line, Outputs.ENDING);
    }

    @Override
    public SentLine answered(String source, SentLine line) {
        SourceReader reader = reader(source);
        return reader == null
                ? line
                : reader.sent().stream()
                        .filter(one ->
                                one.nanoTime() == line.nanoTime() && one.text().equals(line.text()))
                        .findFirst()
                        .orElse(line);
    }

    @Override
    public boolean confirmed(String source, String line, long sinceNanos) {
        SourceReader reader = reader(source);
        return reader != null
                && reader.sent().stream()
                        .anyMatch(one -> one.text().equals(line)
                                && one.nanoTime() >= sinceNanos
                                && one.answer().contains(line));
    }

    @Override
    public void share(String source) {
        SourceReader reader = reader(source);
        if (reader != null) {
            reader.share();
        }
    }
}
