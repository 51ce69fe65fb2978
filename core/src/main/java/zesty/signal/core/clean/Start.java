package zesty.signal.core.clean;

/** What a filter takes the signal to have been before its first sample. */
public enum Start {
    /** Zero: the state is all zeros. */
    FROM_REST,
    /** The first sample, for ever: a steady level gives no bump. */
    SETTLED
}
