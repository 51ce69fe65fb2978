package zesty.signal.boards.sim;

/**
 * What a simulated board is made with.
 *
 * @param clipped whether its sensor's range is too small for what it measures
 */
record Setup(long seed, boolean clipped) {}
