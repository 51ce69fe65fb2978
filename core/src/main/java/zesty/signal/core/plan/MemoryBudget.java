package zesty.signal.core.plan;

/** What fits into a board's memory. @param seconds NaN where no rate is known */
public record MemoryBudget(long rows, double seconds) {
    public static MemoryBudget of(Plan.Memory memory, Plan.Row row) {
        long rows = (long) Math.floor(memory.bytes() / memory.bytesARow() * (1 + 1e-12));
        return new MemoryBudget(rows, row == null ? Double.NaN : rows / row.rateHz());
    }
}
