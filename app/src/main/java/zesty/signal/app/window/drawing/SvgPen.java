package zesty.signal.app.window.drawing;

import java.io.StringWriter;
import java.util.Locale;
import javafx.geometry.VPos;
import javafx.scene.paint.Color;
import javafx.scene.text.TextAlignment;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamWriter;

/**
 * Draws into a drawing of lines and letters, Scalable Vector Graphics 1.1, with the writer of XML that comes with Java: letters
 * stay letters, and are placed by whoever shows them.
 */
public final class SvgPen implements Pen {
    private static final String FONT = "Atkinson Hyperlegible Next, Atkinson Hyperlegible, sans-serif";

    private final StringWriter text = new StringWriter();
    private final XMLStreamWriter out;
    private final double letters;
    private int clips;

    /** @param letters height of the letters, in pixels */
    public SvgPen(double width, double height, Color ground, double letters) {
        this.letters = letters;
        try {
            out = XMLOutputFactory.newInstance().createXMLStreamWriter(text);
            out.writeStartDocument("UTF-8", "1.0");
            out.writeStartElement("svg");
            out.writeDefaultNamespace("http://www.w3.org/2000/svg");
            attributes("width", number(width), "height", number(height));
            attributes("viewBox", "0 0 " + number(width) + " " + number(height));
        } catch (XMLStreamException e) {
            throw new IllegalStateException(e);
        }
        rectangle(0, 0, width, height, ground);
    }

    /** @return the drawing as a file has it; nothing can be drawn into it any more */
    public String finished() {
        try {
            out.writeEndDocument();
            out.close();
        } catch (XMLStreamException e) {
            throw new IllegalStateException(e);
        }
        return text.toString();
    }

    private void attributes(String... pairs) throws XMLStreamException {
        for (int i = 0; i < pairs.length; i += 2) {
            out.writeAttribute(pairs[i], pairs[i + 1]);
        }
    }

    private void element(String name, String... pairs) {
        try {
            out.writeEmptyElement(name);
            attributes(pairs);
        } catch (XMLStreamException e) {
            throw new IllegalStateException(e);
        }
    }

    /** Hundredths of a pixel are finer than anybody prints. */
    private static String number(double pixels) {
        String number = String.format(Locale.ROOT, "%.2f", pixels);
        return number.endsWith(".00") ? number.substring(0, number.length() - 3) : number;
    }

    private static String colour(Color colour) {
        return String.format(
                Locale.ROOT,
                "#%02x%02x%02x",
                Math.round(colour.getRed() * 255),
                Math.round(colour.getGreen() * 255),
                Math.round(colour.getBlue() * 255));
    }

    private static String opacity(Color colour) {
        return String.format(Locale.ROOT, "%.3f", colour.getOpacity());
    }

    @Override
    public void line(double fromX, double fromY, double toX, double toY, Color colour, double width, double... dash) {
        element(
                "line",
                "x1",
                number(fromX),
                "y1",
                number(fromY),
                "x2",
                number(toX),
                "y2",
                number(toY),
                "stroke",
                colour(colour),
                "stroke-opacity",
                opacity(colour),
                "stroke-width",
                number(width),
                "stroke-dasharray",
                dashes(dash));
    }

    private static String dashes(double[] dash) {
        StringBuilder dashes = new StringBuilder();
        for (double one : dash) {
            dashes.append(dashes.isEmpty() ? "" : " ").append(number(one));
        }
        return dashes.isEmpty() ? "none" : dashes.toString();
    }

    @Override
    public void path(double[] x, double[] y, int length, Color colour, double width, double... dash) {
        StringBuilder way = new StringBuilder();
        boolean down = false;
        for (int i = 0; i < length; i++) {
            if (Double.isNaN(y[i])) {
                down = false;
                continue;
            }
            way.append(down ? 'L' : 'M').append(number(x[i])).append(' ').append(number(y[i]));
            down = true;
        }
        if (!way.isEmpty()) {
            element(
                    "path",
                    "d",
                    way.toString(),
                    "fill",
                    "none",
                    "stroke",
                    colour(colour),
                    "stroke-opacity",
                    opacity(colour),
                    "stroke-width",
                    number(width),
                    "stroke-linejoin",
                    "round",
                    "stroke-dasharray",
                    dashes(dash));
        }
    }

    @Override
    public void rectangle(double x, double y, double width, double height, Color colour) {
        element(
                "rect",
                "x",
                number(x),
                "y",
                number(y),
                "width",
                number(width),
                "height",
                number(height),
                "fill",
                colour(colour),
                "fill-opacity",
                opacity(colour));
    }

    @Override
    public void dot(double x, double y, double radius, Color colour) {
        element(
                "circle",
                "cx",
                number(x),
                "cy",
                number(y),
                "r",
                number(radius),
                "fill",
                colour(colour),
                "fill-opacity",
                opacity(colour));
    }

    @Override
    public void words(String words, double x, double y, TextAlignment across, VPos down, Color colour) {
        // Letters stand on their line: a good third of their height below their middle, four fifths below their top.
        double foot =
                y + letters * (down == VPos.TOP ? 0.8 : down == VPos.CENTER ? 0.35 : down == VPos.BOTTOM ? -0.2 : 0);
        try {
            out.writeStartElement("text");
            attributes("x", number(x), "y", number(foot), "font-family", FONT, "font-size", number(letters));
            String anchor = across == TextAlignment.CENTER ? "middle" : across == TextAlignment.RIGHT ? "end" : "start";
            attributes("fill", colour(colour), "text-anchor", anchor);
            out.writeCharacters(words);
            out.writeEndElement();
        } catch (XMLStreamException e) {
            throw new IllegalStateException(e);
        }
    }

    @Override
    public void clip(double x, double y, double width, double height) {
        String name = "clip" + ++clips;
        try {
            out.writeStartElement("clipPath");
            attributes("id", name);
            rectangle(x, y, width, height, Color.BLACK);
            out.writeEndElement();
            out.writeStartElement("g");
            attributes("clip-path", "url(#" + name + ")");
        } catch (XMLStreamException e) {
            throw new IllegalStateException(e);
        }
    }

    @Override
    public void unclip() {
        try {
            out.writeEndElement();
        } catch (XMLStreamException e) {
            throw new IllegalStateException(e);
        }
    }
}
