package mellowrota.server.incoming;

import static mellowrota.server.platform.Words.say;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.Person;
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.IdempotencyKey;
import mellowrota.server.platform.Problem;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.jspecify.annotations.Nullable;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.JsonNode;

/** A file in: read to rows, looked at, mended by whoever brings it, taken. */
@RestController
@RequestMapping("/api/v1/files")
@RequiredArgsConstructor
class IncomingController {

  /** How many rows are taken in one act, so that nobody else waits long. */
  private static final int MOST_TAKEN = 500;

  private final Incoming incoming;
  private final Worlds worlds;

  @Schema(name = "FileField")
  record FieldView(String key, String label) {}

  /**
   * A column of the file.
   *
   * @param field what its name says it is; empty where that is not plain
   */
  @Schema(name = "FileColumn")
  record ColumnView(String name, String field) {}

  @Schema(name = "FileNotRead")
  record NotReadView(int row, String what, String why) {}

  @Schema(name = "FileRead")
  record ReadView(
      String written,
      List<ColumnView> columns,
      List<FileRows.SentRow> rows,
      List<NotReadView> notRead,
      List<FieldView> fields) {}

  @Schema(name = "FileLook")
  record LookView(List<Verdict> rows) {}

  /** What taking rows did; the act is absent where nothing had to change. */
  @Schema(name = "FileTaken")
  record TakenView(@Nullable Long act, List<Verdict> rows, long entries, int calendars) {}

  @PostMapping(path = "/read", consumes = "*/*")
  @Operation(summary = "Read a CSV or iCalendar file into rows and suggest what its columns hold")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  ReadView read(
      Asker asker,
      @RequestParam Field.What what,
      @io.swagger.v3.oas.annotations.parameters.RequestBody(
              content = {
                @Content(mediaType = "text/csv", schema = @Schema(type = "string")),
                @Content(mediaType = "text/calendar", schema = @Schema(type = "string"))
              })
          @RequestBody(required = false)
          byte[] file) {
    World world = worlds.now();
    requireMayBring(world.person(asker.person()), what);
    if (file == null || file.length == 0) {
      throw Problem.of(422, "unreadable", say("incoming.the-file-is-empty"));
    }
    ZoneId house = world.house().zone();
    boolean calendar = CalendarTable.isOne(file);
    if (calendar && what != Field.What.RECORDS) {
      throw Problem.of(422, "unreadable", say("incoming.a-calendar-file-can"));
    }
    Table table = calendar ? CalendarTable.read(file, house, world.day()) : CsvReader.read(file);
    List<Field> fields = Field.of(what, world);
    return new ReadView(
        table.written(),
        columns(table, fields),
        table.rows().stream().map(r -> new FileRows.SentRow(r.row(), r.cells())).toList(),
        table.notRead().stream().map(n -> new NotReadView(n.row(), n.what(), n.why())).toList(),
        fields.stream().map(f -> new FieldView(f.key(), f.label())).toList());
  }

  private static List<ColumnView> columns(Table table, List<Field> fields) {
    List<ColumnView> found = new ArrayList<>();
    Set<String> given = new HashSet<>();
    for (String column : table.columns()) {
      Optional<String> field = Field.named(fields, column).map(Field::key).filter(given::add);
      found.add(new ColumnView(column, field.orElse("")));
    }
    return found;
  }

  @PostMapping("/look")
  @Operation(summary = "Tells what would become of each row, with every fault; nothing is kept")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  LookView look(
      Asker asker, @RequestBody @Schema(implementation = FileRows.Sent.class) JsonNode body) {
    World world = worlds.now();
    FileRows rows = FileRows.of(body, what -> Field.of(what, world), Table.MOST_ROWS);
    requireMayBring(world.person(asker.person()), rows.what());
    return new LookView(incoming.look(world, asker, rows));
  }

  @PostMapping("/take")
  @Operation(
      summary = "Import the rows without errors as one change, at most 500; the others are listed")
  TakenView take(
      Asker asker,
      IdempotencyKey key,
      @RequestBody @Schema(implementation = FileRows.Sent.class) JsonNode body) {
    World world = worlds.now();
    FileRows rows = FileRows.of(body, what -> Field.of(what, world), MOST_TAKEN);
    requireMayBring(world.person(asker.person()), rows.what());
    Incoming.Taking taking = incoming.take(asker, key.value(), body.toString(), rows);
    return new TakenView(
        taking.done().act(), taking.verdicts(), taking.done().entries(), taking.done().calendars());
  }

  /**
   * Work is brought by whoever may make records, which each row is judged for; people by office.
   */
  private static void requireMayBring(Person person, Field.What what) {
    boolean may =
        person.isCoordinator() || what == Field.What.RECORDS && person.isTeamCoordinator();
    if (!may) {
      throw Problem.forbidden(say("incoming.only-coordinators-can-import"));
    }
  }
}
