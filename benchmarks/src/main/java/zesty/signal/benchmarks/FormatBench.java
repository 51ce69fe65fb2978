package zesty.signal.benchmarks;

import java.io.ByteArrayOutputStream;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;
import zesty.signal.boards.sim.SimulatedBoard;
import zesty.signal.boards.sim.SimulatedBoards;
import zesty.signal.core.decode.Recogniser;
import zesty.signal.core.decode.RejectedLines;
import zesty.signal.core.decode.Rows;
import zesty.signal.core.decode.StreamDecoder;

/** Formats on one thread: recognising 256 KiB, and decoding 4 MiB of a board's bytes, in milliseconds. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(1)
@Warmup(iterations = 3, time = 1)
@Measurement(iterations = 5, time = 1)
public class FormatBench {
    private static final int LOOK = 1 << 18;
    private static final int BYTES = 1 << 22;
    /** As much as is read from a link at once. */
    private static final int READ = 1 << 16;

    /** Comma text, stuffed packets, start-byte frames, labelled lines, sentences, JSON, a heat picture. */
    @Param({"deck", "hull", "forearm", "halyard", "masthead", "locker", "cupboard", "cowling"})
    private String board;

    private byte[] bytes;
    private StreamDecoder decoder;

    @Setup
    public void setUp() throws Exception {
        SimulatedBoard simulated = SimulatedBoards.create(board, 1);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.writeBytes(simulated.greeting());
        while (out.size() < LOOK) {
            simulated.next(out);
        }
        byte[] some = out.toByteArray();
        bytes = new byte[BYTES];
        for (int at = 0; at < BYTES; at += some.length) {
            System.arraycopy(some, 0, bytes, at, Math.min(some.length, BYTES - at));
        }
        decoder = Recogniser.recognise(some, LOOK).get(0).format().decoder(new RejectedLines(RejectedLines.KEPT));
    }

    /** What a maker waits for once the bytes are there. */
    @Benchmark
    public List<Recogniser.Proposal> recognise() {
        return Recogniser.recognise(bytes, LOOK);
    }

    /** 4 MiB; 42 ms are 100 MB/s. */
    @Benchmark
    public int decode() {
        int rows = 0;
        for (int at = 0; at < BYTES; at += READ) {
            decoder.feed(bytes, at, READ);
            Rows taken = decoder.takeRows();
            rows += taken.count();
        }
        return rows;
    }
}
