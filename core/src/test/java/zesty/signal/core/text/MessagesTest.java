package zesty.signal.core.text;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Locale;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Texts by their keys, in the language that is spoken when nobody has chosen one; choosing is tried in the window. */
class MessagesTest {
    /** A key without a text is its own text, which shows what becomes of places and braces. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "{0} of {1}|a of b",
                "{1}{0}{1}|bab",
                "{2} and {x} and {|{2} and {x} and {",
                "{{0} is a brace|{0} is a brace",
                "{} {012} {9}|{} {012} {9}",
                "nothing to fill|nothing to fill"
            })
    void placesAreFilledAndAllElseStays(String text, String filled) {
        assertThat(Messages.of(text, "a", "b")).isEqualTo(filled);
        assertThat(Messages.of(text)).isEqualTo(text);
    }

    @Test
    void aTextIsKnownInAnyLanguage() {
        assertThat(Messages.language()).isEqualTo(Locale.ENGLISH);
        assertThat(Messages.decimal()).isEqualTo('.');
        assertThat(Messages.of("scale.raw")).isEqualTo("raw");
        assertThat(Messages.in(Locale.GERMANY, "scale.raw")).isEqualTo("roh");
        assertThat(Messages.in(Locale.FRENCH, "scale.raw")).isEqualTo("raw");
        assertThat(Messages.in(Locale.GERMAN, "no.such.key")).isEqualTo("no.such.key");
        assertThat(Messages.means("raw", "Raw")).isTrue();
        assertThat(Messages.means("raw", "roh")).isTrue();
        assertThat(Messages.means("raw", "counts")).isFalse();
        assertThat(Messages.within("Scale")).isEqualTo("scale");
        assertThat(Messages.token("no such word")).isEqualTo("no such word");
        assertThat(Messages.all(Locale.GERMAN))
                .containsEntry("scale.raw", "roh")
                .hasSizeGreaterThan(500);
        assertThat(Messages.all(Locale.GERMAN).keySet())
                .isEqualTo(Messages.all(Locale.ENGLISH).keySet());
    }
}
