package zesty.signal.app.command;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.ByteArrayOutputStream;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** What a command said that was asked in this process: much quicker than a process of its own. */
record Said(int status, String out, String err) {
    private static final Pattern FILE = Pattern.compile("\\b\\w+\\.(csv|zest|txt)\\b");

    /** One at a time: classes run beside each other, and the streams are the whole process's. */
    static synchronized Said zesty(String... words) {
        PrintStream out = System.out;
        PrintStream err = System.err;
        ByteArrayOutputStream said = new ByteArrayOutputStream();
        ByteArrayOutputStream wrong = new ByteArrayOutputStream();
        try {
            System.setOut(new PrintStream(said, true, StandardCharsets.UTF_8));
            System.setErr(new PrintStream(wrong, true, StandardCharsets.UTF_8));
            int status = Commands.run(words);
            System.out.flush();
            return new Said(status, said.toString(StandardCharsets.UTF_8), wrong.toString(StandardCharsets.UTF_8));
        } finally {
            System.setOut(out);
            System.setErr(err);
        }
    }

    /** @param words parted by spaces, with files of the folder by their names alone */
    static Said in(Path folder, String words) {
        String whole = FILE.matcher(words)
                .replaceAll(file ->
                        Matcher.quoteReplacement(folder.resolve(file.group()).toString()));
        return zesty(whole.split(" "));
    }

    /** @return the answer, of a command that was done */
    JsonNode json() throws Exception {
        org.assertj.core.api.Assertions.assertThat(status).as(err).isZero();
        return new ObjectMapper().readTree(out);
    }
}
