package zesty.signal.core.read.pulse;

/** Makes candidates of samples at an even rate. What is late in it is taken off the candidates' times. */
interface Finder {
    /** Receives candidates in order of time. */
    interface Found {
        /**
         * @param upward whether the candidate is one for beats that point up; electrical ones are for both
         * @param nowSeconds up to when all candidates have been told
         */
        void candidate(Candidate candidate, boolean upward, double nowSeconds);
    }

    void next(double value, double seconds);

    /** @return up to when candidates can have been told, in s; NaN before the first sample */
    double knownSeconds();

    /** What is under way is finished with the samples there are. */
    void finish();

    /** Forgets the samples so far, as after a gap. */
    void reset();

    /** Tells how high a beat of that polarity usually is, 0 when it is not known: what is far above it is clipped. */
    void usualHeight(boolean upward, double height);
}
