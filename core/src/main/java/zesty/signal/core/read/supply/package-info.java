/** What a supply gave: charge, energy, inner resistance, and how long it lasts. */
package zesty.signal.core.read.supply;
