/** A channel's scaling and recipe in whole numbers, for boards without a float unit, and how far that is off. */
package zesty.signal.core.fixed;
