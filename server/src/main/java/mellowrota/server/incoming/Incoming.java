package mellowrota.server.incoming;

import static mellowrota.server.platform.Words.say;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.function.BiConsumer;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.Person;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.State;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.acts.Act;
import mellowrota.server.acts.Acts;
import mellowrota.server.crew.People;
import mellowrota.server.incoming.store.ImportedRows;
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.Problem;
import mellowrota.server.records.IncomingRecords;
import mellowrota.server.records.PlannedCheck;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.springframework.stereotype.Service;
import tools.jackson.databind.node.ObjectNode;

/**
 * Takes rows of files. A row that was taken before changes only what it says otherwise than then,
 * so that the same file again changes nothing, whatever was changed here meanwhile.
 */
@Service
@RequiredArgsConstructor
class Incoming {

  private static final int LONGEST_ID = 120;

  private final IncomingRecords records;
  private final ImportedRows taken;
  private final People people;
  private final Acts acts;
  private final Worlds worlds;
  private final PlannedCheck check;
  private final Clock clock;

  /** One row, judged, and what taking it does; nothing where it is faulty or as it was. */
  private record Judged(Verdict verdict, Optional<Deed> deed) {}

  /** What came of taking rows. */
  record Taking(Acts.Done done, List<Verdict> verdicts) {}

  /** Tells what would become of each row; nothing is kept. */
  List<Verdict> look(World world, Asker asker, FileRows file) {
    return judge(world, world.person(asker.person()), file).stream().map(Judged::verdict).toList();
  }

  /** Takes every row that has no fault, as one act. */
  Taking take(Asker asker, Optional<String> key, String body, FileRows file) {
    List<Verdict> verdicts = new ArrayList<>();
    Acts.Wanted wanted = Acts.Wanted.by(asker.person(), "file.take", key, body);
    boolean crew = file.what() != Field.What.RECORDS;
    Acts.Done done =
        acts.run(
            crew ? wanted.changingTheWorld() : wanted,
            act -> {
              verdicts.clear();
              World world = crew ? worlds.now() : worlds.locked(act.worldVersion());
              if (!crew) {
                records.lock(file.source(), file.rows().stream().map(r -> id(file, r)).toList());
              }
              for (Judged one : judge(world, world.person(asker.person()), file)) {
                one.deed().ifPresent(deed -> deed.how().accept(act, world));
                verdicts.add(one.verdict());
              }
              return "";
            });
    return new Taking(done, verdicts);
  }

  private List<Judged> judge(World world, Person asker, FileRows file) {
    Map<String, Integer> rowOf = new HashMap<>();
    Map<Table.Row, String> ids = new LinkedHashMap<>();
    for (Table.Row row : file.rows()) {
      ids.put(row, id(file, row));
    }
    // What became of a row is not there for whoever may not open it.
    Map<String, RecordId> numbers =
        file.what() == Field.What.RECORDS
            ? records.known(world, asker, file.source(), ids.values())
            : Map.of();
    Map<String, ImportedRows.Taken> before =
        taken.find(file.what().name(), file.source(), ids.values(), numbers.values());
    Judging judging = judging(world, asker, file, before, ids, numbers);
    List<Judged> found = new ArrayList<>();
    for (Table.Row row : file.rows()) {
      Cells cells = Cells.of(file.fields(), row);
      String id = ids.get(row);
      faultsOfId(file, cells, id, rowOf.putIfAbsent(id, row.row()));
      found.add(judge(judging, row, cells, id, Optional.ofNullable(before.get(id))));
    }
    return together(world, asker, found);
  }

  /** What no row says by itself: those that would clash are left until they are mended. */
  private List<Judged> together(World world, Person asker, List<Judged> rows) {
    List<Judged> found = new ArrayList<>(rows);
    List<Integer> places = new ArrayList<>();
    List<PlannedCheck.Planned> planned = new ArrayList<>();
    for (int at = 0; at < rows.size(); at++) {
      Optional<PlannedCheck.Planned> row = rows.get(at).deed().flatMap(Deed::planned);
      if (row.isPresent()) {
        places.add(at);
        planned.add(row.get());
      }
    }
    check
        .refused(world, asker, planned)
        .forEach(
            (which, why) -> {
              int row = found.get(places.get(which)).verdict().row();
              Verdict.Fault fault = new Verdict.Fault(null, why, null);
              found.set(
                  places.get(which),
                  new Judged(
                      new Verdict(row, Verdict.Outcome.FAULTY, List.of(fault)), Optional.empty()));
            });
    return found;
  }

  private static Judged judge(
      Judging judging, Table.Row row, Cells cells, String id, Optional<ImportedRows.Taken> before) {
    boolean same =
        before.isPresent()
            && !before.get().undone()
            && cells.differing(before.get().cells()).isEmpty();
    if (same && cells.faults().isEmpty()) {
      return new Judged(new Verdict(row.row(), Verdict.Outcome.SAME, List.of()), Optional.empty());
    }
    Deed deed = judging.judge(id, cells, before);
    if (!cells.faults().isEmpty()) {
      return new Judged(
          new Verdict(row.row(), Verdict.Outcome.FAULTY, cells.faults()), Optional.empty());
    }
    Verdict.Outcome outcome = deed.makes() ? Verdict.Outcome.NEW : Verdict.Outcome.CHANGED;
    return new Judged(new Verdict(row.row(), outcome, List.of()), Optional.of(deed));
  }

  /** A row's own id; where the file has none, all it says stands for it. */
  private static String id(FileRows file, Table.Row row) {
    Cells cells = Cells.of(file.fields(), row);
    if (cells.has(Field.ID.key())) {
      return cells.text(Field.ID.key());
    }
    String all = String.join("\u0000", cells.fields().stream().map(cells::text).toList());
    return "row " + UUID.nameUUIDFromBytes(all.getBytes(java.nio.charset.StandardCharsets.UTF_8));
  }

  private static void faultsOfId(FileRows file, Cells cells, String id, Integer earlier) {
    String field = Field.ID.key();
    if (cells.has(field) && id.isEmpty()) {
      cells.fault(field, say("incoming.is-missing-each-row"));
    } else if (id.length() > LONGEST_ID) {
      cells.faultOf(field, id, say("common.is-longer-than-characters", LONGEST_ID));
    } else if (earlier != null) {
      cells.fault(
          field, say(cells.has(field) ? "incoming.id-of-row" : "incoming.same-as-row", earlier));
    }
  }

  /**
   * What taking a row does, and whether that makes something new.
   *
   * @param planned the record it makes or changes
   */
  private record Deed(
      boolean makes, Optional<PlannedCheck.Planned> planned, BiConsumer<Act, World> how) {}

  /** Judges rows of one sort. */
  private interface Judging {
    /** Notes what is wrong in the cells; else tells what to do. */
    Deed judge(String id, Cells cells, Optional<ImportedRows.Taken> before);
  }

  private Judging judging(
      World world,
      Person asker,
      FileRows file,
      Map<String, ImportedRows.Taken> before,
      Map<Table.Row, String> ids,
      Map<String, RecordId> numbers) {
    return switch (file.what()) {
      case RECORDS -> new RecordJudging(world, asker, file, before, ids, numbers);
      case PEOPLE -> people(new CrewRows(world), file);
      case PLACES -> places(new CrewRows(world), file);
    };
  }

  private Judging people(CrewRows rows, FileRows file) {
    return (id, cells, before) -> {
      People.PersonWanted wanted = rows.person(cells, before);
      return new Deed(
          wanted.known().isEmpty(),
          Optional.empty(),
          (act, world) -> {
            long person = people.keep(wanted).value();
            taken.remember(act, file.what().name(), file.source(), id, person, cells.all());
          });
    };
  }

  private Judging places(CrewRows rows, FileRows file) {
    return (id, cells, before) -> {
      People.PlaceWanted wanted = rows.place(cells, before);
      return new Deed(
          wanted.known().isEmpty(),
          Optional.empty(),
          (act, world) -> {
            long place = people.keep(wanted).value();
            taken.remember(act, file.what().name(), file.source(), id, place, cells.all());
          });
    };
  }

  private final class RecordJudging implements Judging {
    private final World world;
    private final Person asker;
    private final FileRows file;
    private final Known names;
    private final Map<String, RecordId> numbers;
    private final Map<RecordId, WorkRecord> loaded;
    private final Instant now = clock.instant();

    RecordJudging(
        World world,
        Person asker,
        FileRows file,
        Map<String, ImportedRows.Taken> before,
        Map<Table.Row, String> ids,
        Map<String, RecordId> numbers) {
      this.world = world;
      this.asker = asker;
      this.file = file;
      names = Known.in(world);
      this.numbers = numbers;
      List<RecordId> differing = new ArrayList<>();
      ids.forEach(
          (row, id) -> {
            ImportedRows.Taken said = before.get(id);
            boolean same =
                said != null
                    && !said.undone()
                    && Cells.of(file.fields(), row).differing(said.cells()).isEmpty();
            if (numbers.containsKey(id) && !same) {
              differing.add(numbers.get(id));
            }
          });
      loaded = records.load(differing);
    }

    @Override
    public Deed judge(String id, Cells cells, Optional<ImportedRows.Taken> before) {
      RecordRow row = new RecordRow(names, cells, file.strokes(), file.kind());
      Optional<RecordId> number = Optional.ofNullable(numbers.get(id));
      Optional<WorkRecord> record = number.map(loaded::get);
      ObjectNode body = record.map(r -> changed(row, r, before)).orElseGet(() -> made(row, id));
      Optional<PlannedCheck.Planned> planned = Optional.empty();
      try {
        WorkRecord after = records.judge(world, asker, record, body, now);
        planned = Optional.of(new PlannedCheck.Planned(record, after));
      } catch (Problem problem) {
        row.tell(problem);
      }
      return new Deed(
          number.isEmpty(),
          planned,
          (act, its) -> {
            RecordId kept = records.take(act, its, number, body);
            taken.remember(act, file.what().name(), file.source(), id, kept.value(), cells.all());
          });
    }

    private ObjectNode made(RecordRow row, String id) {
      return row.made(file.source(), id);
    }

    private ObjectNode changed(
        RecordRow row, WorkRecord record, Optional<ImportedRows.Taken> before) {
      boolean undone = before.map(ImportedRows.Taken::undone).orElse(false);
      Map<String, String> said =
          undone ? Map.of() : before.map(ImportedRows.Taken::cells).orElse(Map.of());
      return row.changed(record, said, undone && record.state() == State.CANCELLED);
    }
  }
}
