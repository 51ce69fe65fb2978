/**
 * What a setup will do before it is wired: each budget is arithmetic over what is known of it, and {@link zesty.signal.core.plan.Fault} says what
 * goes over and the smallest change that mends it.
 */
package zesty.signal.core.plan;
