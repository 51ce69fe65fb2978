package zesty.signal.core.read.cells;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import zesty.signal.core.read.Need;
import zesty.signal.core.read.Port;
import zesty.signal.core.read.Reader;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.ScalarInfo;
import zesty.signal.core.read.Setting;
import zesty.signal.core.read.Settings;
import zesty.signal.core.text.Messages;

/** Two to twenty-four cells side by side: sag under load, slope, time left, and whether one stands out. */
public final class Cells implements ReaderKind {
    public static final String NAME = "cells";

    static final int MOST = 24;

    @Override
    public String name() {
        return NAME;
    }

    @Override
    public String words() {
        return Messages.of("read.cells.cells-of-one-battery-side-by-side");
    }

    @Override
    public String gives() {
        return Messages.of("read.cells.weak-cell-sag-spread");
    }

    @Override
    public List<Port> ports() {
        List<Port> ports = new ArrayList<>();
        for (int c = 1; c <= MOST; c++) {
            ports.add(new Port("cell" + c, "V", Messages.of("read.cells.the-voltage-of-cell", c)));
        }
        return ports;
    }

    @Override
    public int fewestPorts() {
        return 2;
    }

    @Override
    public List<Need> needs() {
        return List.of(new Need(
                Messages.of("read.cells.a-divider-for-each-cell"),
                1,
                3,
                400,
                4,
                Messages.of("read.cells.the-limit-of-the-divider-a-silent"),
                List.of(
                        Messages.of("read.cells.a-divider-for-each-cell"),
                        Messages.of("read.cells.common-ground-at-the-lowest-cell"),
                        Messages.of("read.cells.fuse-at-each-tap"))));
    }

    @Override
    public List<Setting> settings() {
        return List.of(Setting.number(
                "cutoff",
                Setting.AUTO,
                -1e6,
                1e6,
                "V",
                Messages.of("read.cells.cutoff"),
                Messages.of("read.cells.the-voltage-at-which-a-cell-counts")));
    }

    @Override
    public List<ScalarInfo> scalars() {
        return List.of(
                new ScalarInfo(
                        "spread_v",
                        Messages.of("read.cells.spread"),
                        "V",
                        -1,
                        Messages.of("read.cells.highest-less-lowest-mean-voltage")),
                new ScalarInfo(
                        "weak",
                        Messages.of("read.cells.weak-cells"),
                        "",
                        0,
                        Messages.of("read.cells.how-many-stand-out-by-their-sag-or")),
                new ScalarInfo(
                        "load_steps",
                        Messages.of("read.cells.load-steps"),
                        "",
                        0,
                        Messages.of("read.cells.steps-that-all-cells-have-in")));
    }

    @Override
    public List<String> otherKeys() {
        return List.of("cells", "weakest");
    }

    @Override
    public double windowSeconds() {
        return 600;
    }

    @Override
    public Optional<String> unsuited(Settings settings, String unit, double rateHz) {
        return Optional.empty();
    }

    @Override
    public Reader reader(Settings settings, double rateHz) {
        return new CellsReader(settings);
    }
}
