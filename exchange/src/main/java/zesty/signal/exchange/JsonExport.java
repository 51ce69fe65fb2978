package zesty.signal.exchange;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import java.io.OutputStream;
import zesty.signal.takes.Mark;
import zesty.signal.takes.RigJson;
import zesty.signal.takes.Take;

/** A take as JSON: what is told of it, its rig, its readings, and its columns with all values. */
public final class JsonExport {
    private static final int[] NONE = {};

    private JsonExport() {}

    /** Writes the readings as a value of the object that is being written. */
    @FunctionalInterface
    public interface Readings {
        void write(JsonGenerator json) throws IOException;
    }

    /** Where nothing was read. */
    public static final Readings NO_READINGS = json -> {
        json.writeStartArray();
        json.writeEndArray();
    };

    /** The stream stays the caller's. */
    public static void write(Take take, TakeView view, Readings readings, OutputStream out) throws IOException {
        JsonGenerator json = new JsonFactory().createGenerator(out).disable(JsonGenerator.Feature.AUTO_CLOSE_TARGET);
        json.writeStartObject();
        json.writeStringField("title", take.title());
        json.writeStringField("started", take.started().toString());
        json.writeFieldName("rig");
        json.writeRawValue(RigJson.write(take.rigOrPlain()));
        json.writeArrayFieldStart("marks");
        for (Mark mark : take.marks()) {
            json.writeStartObject();
            json.writeNumberField("t_s", mark.seconds());
            if (mark.isSpan()) {
                json.writeNumberField("until_s", mark.untilSeconds());
            }
            json.writeStringField("text", mark.text());
            json.writeEndObject();
        }
        json.writeEndArray();
        json.writeStringField("notes", take.notes());
        json.writeArrayFieldStart("tags");
        for (String tag : take.tags()) {
            json.writeString(tag);
        }
        json.writeEndArray();
        json.writeFieldName("readings");
        readings.write(json);
        json.writeArrayFieldStart("columns");
        for (int s = 0; s < view.sources().size(); s++) {
            TakeView.Source source = view.sources().get(s);
            begin(json, s == 0 ? "t" : "t_" + source.name(), "s");
            view.read(s, NONE, (seconds, values) -> numbers(json, seconds));
            end(json);
            for (int c = 0; c < source.columns().size(); c++) {
                begin(
                        json,
                        source.columns().get(c).name(),
                        source.columns().get(c).unit());
                view.read(s, new int[] {c}, (seconds, values) -> numbers(json, values[0]));
                end(json);
            }
        }
        json.writeEndArray();
        json.writeEndObject();
        json.writeRaw('\n');
        json.close();
    }

    private static void begin(JsonGenerator json, String name, String unit) throws IOException {
        json.writeStartObject();
        json.writeStringField("name", name);
        json.writeStringField("unit", unit);
        json.writeArrayFieldStart("values");
    }

    private static void end(JsonGenerator json) throws IOException {
        json.writeEndArray();
        json.writeEndObject();
    }

    private static void numbers(JsonGenerator json, double[] values) throws IOException {
        for (double value : values) {
            if (Double.isFinite(value)) {
                json.writeNumber(value);
            } else {
                json.writeNull();
            }
        }
    }
}
