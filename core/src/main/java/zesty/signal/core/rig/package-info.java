/**
 * The rig: a saved setup, in the order of the trail. Values only; reading and writing files is the takes module's work.
 */
package zesty.signal.core.rig;
