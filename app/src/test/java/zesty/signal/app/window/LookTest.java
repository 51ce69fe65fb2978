package zesty.signal.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javafx.scene.paint.Color;
import org.junit.jupiter.api.Test;
import zesty.signal.app.window.drawing.Palette;

/** Contrast of the style sheet's own roles, by the formula of the Web Content Accessibility Guidelines 2.1. */
class LookTest {
    /** Text roles and what they stand on. */
    private static final String[][] PAIRS = {
        {"-ink", "-paper"},
        {"-ink", "-card"},
        {"-ink", "-chip"},
        {"-ink", "-hover"},
        {"-muted", "-paper"},
        {"-muted", "-card"},
        {"-on-rind", "-rind"},
        {"-on-rind", "-rind-deep"},
        {"-on-rind", "-rind-soft"},
        {"-on-rind-soft", "-rind"},
        {"-on-rind-soft", "-rind-deep"},
        {"-on-lemon", "-lemon"},
        {"-trouble", "-card"},
        {"-trouble", "-trouble-wash"},
        {"-card", "-ink"}
    };

    private static Map<String, String> roles(String sheet, String selector, Map<String, String> base) {
        Map<String, String> roles = new HashMap<>(base);
        Matcher block = Pattern.compile(Pattern.quote(selector) + " \\{(.*?)}", Pattern.DOTALL)
                .matcher(sheet);
        assertThat(block.find()).isTrue();
        Matcher role = Pattern.compile("(-[a-z-]+): (#[0-9A-Fa-f]{6});").matcher(block.group(1));
        while (role.find()) {
            roles.put(role.group(1), role.group(2));
        }
        return roles;
    }

    private static double contrast(String a, String b) {
        return contrast(Color.web(a), Color.web(b));
    }

    /** @return how much one stands out of the other, from 1 to 21 */
    static double contrast(Color a, Color b) {
        double x = luminance(a);
        double y = luminance(b);
        return (Math.max(x, y) + 0.05) / (Math.min(x, y) + 0.05);
    }

    private static double luminance(Color colour) {
        double sum = 0;
        double[] weights = {0.2126, 0.7152, 0.0722};
        for (int i = 0; i < 3; i++) {
            double part = i == 0 ? colour.getRed() : i == 1 ? colour.getGreen() : colour.getBlue();
            sum += weights[i] * (part <= 0.03928 ? part / 12.92 : Math.pow((part + 0.055) / 1.055, 2.4));
        }
        return sum;
    }

    @Test
    void everyTextStandsOutByFourAndAHalfToOneByDayAndByNight() throws Exception {
        String sheet;
        try (var in = LookTest.class.getResourceAsStream("zesty.css")) {
            sheet = new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
        Map<String, String> day = roles(sheet, ".window", Map.of());
        Map<String, String> night = roles(sheet, ".window.night", day);
        for (String[] pair : PAIRS) {
            assertThat(contrast(day.get(pair[0]), day.get(pair[1])))
                    .as("day %s on %s", pair[0], pair[1])
                    .isGreaterThanOrEqualTo(4.5);
            assertThat(contrast(night.get(pair[0]), night.get(pair[1])))
                    .as("night %s on %s", pair[0], pair[1])
                    .isGreaterThanOrEqualTo(4.5);
        }
        // High contrast is seven to one, for text and for the channels' lines.
        Map<String, String> strong = roles(sheet, ".window.contrast", day);
        for (String[] pair : PAIRS) {
            assertThat(contrast(strong.get(pair[0]), strong.get(pair[1])))
                    .as("high contrast %s on %s", pair[0], pair[1])
                    .isGreaterThanOrEqualTo(7);
        }
        for (int i = 0; i < 8; i++) {
            assertThat(contrast(Palette.channel(i).night(), strong.get("-card")))
                    .as("%s on black", Palette.channel(i).name())
                    .isGreaterThanOrEqualTo(7);
        }
        for (int i = 0; i < 8; i++) {
            Palette.Named colour = Palette.channel(i);
            assertThat(contrast(colour.day(), day.get("-card")))
                    .as(colour.name())
                    .isGreaterThanOrEqualTo(4.5);
            assertThat(contrast(colour.night(), night.get("-card")))
                    .as(colour.name() + " by night")
                    .isGreaterThanOrEqualTo(4.5);
        }
        assertThat(contrast(day.get("-orange"), "#1B0B04")).isGreaterThanOrEqualTo(4.5);
    }
}
