package mellowrota.bench;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import mellowrota.core.deadline.Chain;
import mellowrota.core.deadline.ChainReader;
import mellowrota.core.deadline.Given;
import mellowrota.core.deadline.Known;
import mellowrota.core.deadline.Name;
import mellowrota.core.deadline.Reckoned;
import mellowrota.core.deadline.Reckoner;
import mellowrota.core.time.WorkingDays;
import mellowrota.core.time.WorkingWeek;
import mellowrota.core.work.Due;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Threads;
import org.openjdk.jmh.annotations.Warmup;

/** The largest chain there may be, on one core: 200 steps in almost 65 536 characters. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.SampleTime)
@OutputTimeUnit(TimeUnit.MICROSECONDS)
@Fork(1)
@Threads(1)
@Warmup(iterations = 3, time = 1)
@Measurement(iterations = 3, time = 2)
public class ChainBenchmark {

  private static final Known HOUSE =
      new Known(List.of(), List.of(Name.of("Lead")), List.of(Name.of("Duty Office")));

  private final String good = text("step %d");
  private final String unknown = text("nobody knows what is meant by the number %d of all these");
  private final Chain chain = ChainReader.read(good, HOUSE).chain().orElseThrow();
  private final Given given =
      new Given(
          Optional.of(new Due.On(LocalDate.of(2027, 6, 1))),
          Optional.empty(),
          Map.of(),
          Map.of(),
          List.of(),
          new WorkingDays(
              new WorkingWeek(EnumSet.range(DayOfWeek.MONDAY, DayOfWeek.FRIDAY)),
              Map.of(LocalDate.of(2026, 12, 25), "Midwinter"),
              List.of()),
          ZoneId.of("Europe/London"));

  /** Each step counts from the one before it, by that name. */
  private static String text(String from) {
    StringBuilder text = new StringBuilder("chain: largest\nkey date: step 0\n");
    for (int step = 1; step <= 200; step++) {
      text.append("9 working days before ")
          .append(from.formatted(step - 1))
          .append(": step ")
          .append(step)
          .append("; for Duty Office as Lead".repeat(8))
          .append('\n');
    }
    return text.toString();
  }

  @Benchmark
  public ChainReader.Reading readsAGoodText() {
    return ChainReader.read(good, HOUSE);
  }

  @Benchmark
  public ChainReader.Reading tellsEveryNameUnknown() {
    return ChainReader.read(unknown, HOUSE);
  }

  @Benchmark
  public List<Reckoned> reckonsItsDates() {
    return Reckoner.of(chain, given);
  }
}
