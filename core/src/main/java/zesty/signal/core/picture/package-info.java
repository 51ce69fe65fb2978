/** Pictures of numbers over time, such as a heat camera sends. x counts to the right, y down, both from 0. */
package zesty.signal.core.picture;
