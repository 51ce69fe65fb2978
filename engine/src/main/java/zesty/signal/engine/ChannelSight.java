package zesty.signal.engine;

import zesty.signal.core.act.Band;
import zesty.signal.core.read.LevelReader;
import zesty.signal.core.read.PulseReading;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.sample.Series;
import zesty.signal.core.scale.Scaling;

/**
 * One channel at one moment.
 *
 * @param strand the line of samples it belongs to
 * @param raw what arrived, in the column's own numbers; sample i belongs to row i of its strand
 * @param clean the scaled and cleaned signal, in the channel's unit; sample i + {@code lateSamples} belongs to row i
 * @param lateSamples by how many samples the cleaned signal stands behind because it looks ahead
 * @param delaySeconds by how much the cleaned signal is late in all, as far as that is one number
 * @param latestRaw the newest value as it arrived; NaN when none
 * @param latestClean the newest cleaned value; NaN when none
 * @param level over the last seconds of the cleaned signal
 * @param pulse the pulse reader's answer; null when the channel has none
 * @param side where the pulse lies in its band; null when the channel has no reader
 * @param warming whether its newest samples are kept but not read yet, because the board is warming up
 * @param beyond the value furthest beyond the channel's limits lately; NaN while it keeps within
 * @param scalingNow its chain with the other columns that it takes in as they are now
 * @param trouble why the channel cannot be cleaned or read, in words; empty when it can
 */
public record ChannelSight(
        Channel channel,
        StrandSight strand,
        Series raw,
        Series clean,
        int lateSamples,
        double delaySeconds,
        double latestRaw,
        double latestClean,
        LevelReader.Level level,
        PulseReading pulse,
        Band.Side side,
        boolean warming,
        double beyond,
        Scaling scalingNow,
        String trouble) {}
