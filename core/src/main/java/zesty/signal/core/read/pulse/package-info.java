/**
 * The pulse reader. Samples are freed of mains and put together to a working rate ({@code PulseReader}); a finder makes
 * candidates of them ({@code OpticalFinder}, {@code ElectricalFinder}); a path chooses the best run of them ({@code
 * BeatPath}); a judge believes a run, and from then on beats ({@code BeatJudge}, {@code Run}); what they say together is
 * worked out when it is asked for ({@code Beats}, {@code PulseAnswer}).
 */
package zesty.signal.core.read.pulse;
