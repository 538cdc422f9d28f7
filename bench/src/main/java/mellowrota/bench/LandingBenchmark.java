package mellowrota.bench;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.SplittableRandom;
import java.util.concurrent.TimeUnit;
import mellowrota.core.Worlds;
import mellowrota.core.entry.Entry;
import mellowrota.core.people.RoleId;
import mellowrota.core.project.Projector;
import mellowrota.core.sight.Face;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.DetailValue;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.WorkRecord;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OperationsPerInvocation;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Threads;
import org.openjdk.jmh.annotations.Warmup;
import org.openjdk.jmh.infra.Blackhole;

/** Entries a second on one core: landing alone, with faces cut and hashed, and the floor. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.Throughput)
@OutputTimeUnit(TimeUnit.SECONDS)
@Fork(1)
@Threads(1)
@Warmup(iterations = 3, time = 2)
@Measurement(iterations = 5, time = 2)
public class LandingBenchmark {

  private static final int TICKETS = 1000;
  private static final int ENTRIES = 6 * TICKETS;
  private static final int PEOPLE = 500;
  private static final int TEAMS = 40;

  private Worlds.World world;
  private final List<WorkRecord> tickets = new ArrayList<>();
  private final List<Projector.Projected> entries = new ArrayList<>();

  /** 500 people in 40 teams; each ticket with a Lead and a Support of two teams: six entries. */
  @Setup
  public void lay() {
    Worlds.Builder builder = Worlds.world().coordinator(PEOPLE + 1, "Hana");
    List<List<Long>> teams = new ArrayList<>();
    for (int t = 0; t < TEAMS; t++) {
      teams.add(new ArrayList<>());
    }
    for (long p = 1; p <= PEOPLE; p++) {
      builder.worker(p, "Person " + p);
      teams.get((int) (p % TEAMS)).add(p);
    }
    for (int t = 0; t < TEAMS; t++) {
      builder.team(t + 1, "Team " + t, teams.get(t).stream().mapToLong(Long::longValue).toArray());
    }
    builder.place(7, "L7", "Lock 7, Thornmere Flight");
    world = builder.build();
    SplittableRandom random = new SplittableRandom(1);
    for (int i = 0; i < TICKETS; i++) {
      tickets.add(ticket(i, 1 + random.nextInt(PEOPLE - 1)));
    }
    for (WorkRecord ticket : tickets) {
      entries.addAll(world.projector().project(ticket));
    }
    if (entries.size() != ENTRIES) {
      throw new IllegalStateException(entries.size() + " entries, not " + ENTRIES);
    }
  }

  private static WorkRecord ticket(int i, long lead) {
    return Worlds.ticket()
        .build()
        .with()
        .due(Worlds.dueAt("2026-12-%02dT13:00".formatted(1 + i % 28)))
        .place(Optional.of(PlaceId.of(7)))
        .assignments(List.of(Worlds.lead(lead, Worlds.NOW), Worlds.as(RoleId.SUPPORT, lead + 1)))
        .detail(DetailKey.TITLE, DetailValue.of("Stuck paddle " + i))
        .detail(DetailKey.CONTACT, DetailValue.of("H. Varga"))
        .detail(DetailKey.PHONE, DetailValue.of("0555 0142"))
        .detail(DetailKey.GATE_CODE, DetailValue.of("4471"))
        .build();
  }

  @Benchmark
  @OperationsPerInvocation(ENTRIES)
  public void landing(Blackhole hole) {
    for (WorkRecord ticket : tickets) {
      hole.consume(world.router().land(ticket));
    }
  }

  @Benchmark
  @OperationsPerInvocation(ENTRIES)
  public void landingChosenFilledAndHashed(Blackhole hole) {
    for (WorkRecord ticket : tickets) {
      for (Projector.Projected projected : world.projector().project(ticket)) {
        hole.consume(Face.digest(projected.faces().get(0).face().canonical()));
      }
    }
  }

  /** The floor: the same entries, ready made, copied and their contents hashed. */
  @Benchmark
  @OperationsPerInvocation(ENTRIES)
  public void floorCopiedAndHashed(Blackhole hole) {
    for (Projector.Projected projected : entries) {
      hole.consume(copy(projected.entry()));
      hole.consume(Face.digest(copy(projected.faces().get(0).face()).canonical()));
    }
  }

  private static Entry copy(Entry entry) {
    return new Entry(
        entry.key(),
        entry.uid(),
        entry.times(),
        entry.bareTimes(),
        entry.given(),
        entry.marks(),
        entry.wording(),
        new ArrayList<>(entry.rules()),
        entry.with(),
        entry.waits());
  }

  private static Face copy(Face face) {
    return new Face(
        face.title(),
        face.place(),
        face.text(),
        face.times(),
        face.marks(),
        new ArrayList<>(face.categories()));
  }
}
