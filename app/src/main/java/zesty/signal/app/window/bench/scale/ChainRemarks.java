package zesty.signal.app.window.bench.scale;

import java.util.ArrayList;
import java.util.List;
import zesty.signal.core.decode.Stations;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.prove.RangeWatch;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.ExtraInputs;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.Sensor;
import zesty.signal.core.sample.Series;
import zesty.signal.core.scale.Converter;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.scale.Divisor;
import zesty.signal.core.scale.Formula;
import zesty.signal.core.scale.Scaling;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;

/** What is to be said of a channel's chain: what a step is worth, what is odd, and what usually goes wrong with it. */
final class ChainRemarks {
    private static final int WATCHED = 2000;

    private ChainRemarks() {}

    /** @return what is odd about the chain and its newest samples, in words; may be empty */
    static String of(Rig rig, ChannelSnapshot channel) {
        StringBuilder words = new StringBuilder();
        Series raw = channel.raw();
        Scaling scaling = channel.channel().scaling();
        if (scaling.converter() != null && raw.end() > raw.start()) {
            int n = (int) Math.min(WATCHED, raw.end() - raw.start());
            double[] newest = new double[n];
            for (int i = 0; i < n; i++) {
                newest[i] = raw.value(raw.end() - n + i);
            }
            RangeWatch.of(newest, scaling.converter())
                    .forEach(remark -> words.append(remark).append(' '));
        }
        words.append(unitRemark(rig, channel.channel()));
        Sensor sensor = channel.channel().sensor();
        words.append(sensor.oddity(channel.latestClean(), scaling.unit()))
                .append(' ')
                .append(sensor.trap());
        return words.toString().strip();
    }

    /** What the units of a formula say about it. */
    private static String unitRemark(Rig rig, Channel channel) {
        Scaling scaling = channel.scaling();
        if (!(scaling.conversion() instanceof Formula formula) || rig.formatOf(channel.column()) == null) {
            return "";
        }
        try {
            List<String> units = new ArrayList<>();
            units.add(scaling.converter() != null ? "V" : unitOfColumn(rig, channel.column()));
            ExtraInputs.of(rig, channel).scalings().forEach(other -> units.add(other.unit()));
            if (scaling.converter() != null
                    && !scaling.converter().referenceFrom().isEmpty()) {
                units.remove(1);
            }
            String remark = formula.unitRemark(units);
            return remark.isEmpty() ? "" : Messages.of("bench.scale.the-formula-s-units", remark);
        } catch (IllegalArgumentException e) {
            return "";
        }
    }

    private static String unitOfColumn(Rig rig, String column) {
        StreamFormat format = rig.formatOf(column);
        int index = Stations.indexOf(format, rig.ownName(column));
        return index < 0 ? "" : format.columns().get(index).unit();
    }

    /** @return what one step is worth around the raw value, and what the other divisor would make of it */
    static String worth(Scaling scaling, double raw) {
        double around = scaling.stepSize(raw);
        String step = Digits.of(around) + (scaling.unit().isEmpty() ? "" : " " + scaling.unit());
        if (Double.isNaN(around)) {
            return Messages.of("bench.scale.the-present-value-stands-for");
        }
        if (scaling.converter() == null) {
            return Messages.of(
                    "bench.scale.one-step-of-what-arrives-is-worth",
                    step,
                    scaling.conversion().words());
        }
        Converter converter = scaling.converter();
        Divisor other = converter.divisor() == Divisor.STEPS ? Divisor.HIGHEST_CODE : Divisor.STEPS;
        Scaling otherwise = new Scaling(
                new Converter(converter.bits(), converter.referenceVolts(), other, converter.signed(), ""),
                scaling.conversion(),
                scaling.corrections(),
                scaling.unit());
        double difference = Math.abs(scaling.apply(raw) - otherwise.apply(raw));
        return Messages.of(
                "bench.scale.one-count-is-worth-here-divided-by", step, Digits.of(difference), scaling.unit());
    }
}
