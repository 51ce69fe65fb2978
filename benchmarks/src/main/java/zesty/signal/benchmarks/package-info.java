/** Speed and size, measured. How to run each, and what came out, is in docs/MEASURED.md. */
package zesty.signal.benchmarks;
