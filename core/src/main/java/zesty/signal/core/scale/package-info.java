/**
 * From counts to the quantity. Pure functions in full precision; nothing is rounded before the screen. NaN passes
 * through. Null arguments throw.
 */
package zesty.signal.core.scale;
