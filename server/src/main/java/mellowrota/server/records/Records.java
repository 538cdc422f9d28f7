package mellowrota.server.records;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mellowrota.core.change.FieldChange;
import mellowrota.core.change.RecordFields;
import mellowrota.core.change.Undo;
import mellowrota.core.people.ForSet;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.State;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.acts.Act;
import mellowrota.server.acts.Acts;
import mellowrota.server.platform.Problem;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import tools.jackson.databind.JsonNode;

/** Makes, changes and takes back records; each as an act. */
@Service
public class Records {

  private final Acts acts;
  private final Worlds worlds;
  private final RecordStore store;
  private final RecordAccess access;
  private final RecordViews views;
  private final JdbcClient jdbc;

  Records(
      Acts acts,
      Worlds worlds,
      RecordStore store,
      RecordAccess access,
      RecordViews views,
      JdbcClient jdbc) {
    this.acts = acts;
    this.worlds = worlds;
    this.store = store;
    this.access = access;
    this.views = views;
    this.jdbc = jdbc;
  }

  /**
   * What came of an act on a record.
   *
   * @param after the record as its changer may open it now; empty where that must be looked up
   * @param leaves what an undo left as it is, since somebody changed it meanwhile
   */
  public record Saved(
      Acts.Done done,
      RecordId record,
      Optional<RecordAccess.Standing> after,
      List<String> leaves) {}

  /** Carries what a command knows out of its act. */
  private static final class Outcome {
    Optional<RecordAccess.Standing> after = Optional.empty();

    Saved of(Acts.Done done) {
      return new Saved(done, RecordId.of(Long.parseLong(done.answer())), after, List.of());
    }
  }

  /** Makes a record. */
  public Saved create(PersonId asker, Optional<String> key, JsonNode body) {
    Acts.Wanted wanted = Acts.Wanted.by(asker, "record.create", key, body.toString());
    Outcome outcome = new Outcome();
    return outcome.of(acts.run(wanted, act -> create(act, body, outcome)));
  }

  private String create(Act act, JsonNode body, Outcome outcome) {
    World world = worlds.locked(act.worldVersion());
    Person author = world.person(act.actor());
    requireOfficeSomewhere(author);
    RecordInput input = RecordInput.of(body, world);
    Optional<String> source = input.source();
    Optional<String> sourceId = input.sourceId();
    if (source.isPresent() != sourceId.isPresent()) {
      input.input().fault("sourceId", "goes with source; send both or neither");
    }
    Optional<Long> known = source.flatMap(s -> bySource(s, sourceId.orElse("")));
    if (known.isPresent()) {
      return known.get().toString();
    }
    input.kind();
    WorkRecord blank = draft(author.id(), act.at());
    WorkRecord record = input.apply(blank, act.at());
    requireTitleOrPlace(record, input);
    WorkRecord numbered = record.with().ref(store.nextRef(record.kind())).build();
    RecordAccess.Standing standing = access.standing(world, author, numbered);
    if (!standing.isOffice()) {
      throw Problem.forbidden(
          "You may make records only for your teams and the people in them; name one of them.");
    }
    store.insert(numbered, source, sourceId);
    act.made(
        numbered, remember(act, world, numbered, RecordFields.ofNew(numbered), input.reason()));
    outcome.after = access.opening(world, author, numbered);
    return Long.toString(numbered.id().value());
  }

  private Optional<Long> bySource(String source, String sourceId) {
    return jdbc.sql("select id from record where source = ? and source_id = ?")
        .param(source)
        .param(sourceId)
        .query(Long.class)
        .optional();
  }

  private WorkRecord draft(PersonId author, Instant at) {
    return WorkRecord.ticket(store.reserve(), "", author, at).build();
  }

  private static void requireTitleOrPlace(WorkRecord record, RecordInput input) {
    if (record.text(DetailKey.TITLE).isEmpty()) {
      input.input().fault("title", "is missing; say in a few words what is to be done");
      input.input().check();
    }
  }

  private static void requireOfficeSomewhere(Person person) {
    if (!person.isCoordinator() && !person.isTeamCoordinator()) {
      throw Problem.forbidden("Records are made by coordinators; ask one of yours.");
    }
  }

  /** The ticket a body would make, for looking at where it would land; nothing is kept. */
  WorkRecord preview(World world, Person author, Instant at, JsonNode body) {
    requireOfficeSomewhere(author);
    RecordInput input = RecordInput.of(body, world);
    input.kind();
    WorkRecord blank = WorkRecord.ticket(RecordId.of(0), "T-new", author.id(), at).build();
    return input.apply(blank, at);
  }

  /**
   * Changes a record, if it is still as the asker saw it.
   *
   * @param ifMatch the tag of the view the asker had, or {@code *}
   */
  public Saved change(
      PersonId asker, RecordId id, Optional<String> key, String ifMatch, JsonNode body) {
    Acts.Wanted wanted = Acts.Wanted.by(asker, "record.change", key, id.value() + "\n" + body);
    Outcome outcome = new Outcome();
    return outcome.of(acts.run(wanted, act -> change(act, id, ifMatch, body, outcome)));
  }

  private String change(Act act, RecordId id, String ifMatch, JsonNode body, Outcome outcome) {
    World world = worlds.locked(act.worldVersion());
    WorkRecord before = store.find(id, true).orElseThrow(Problem::notFound);
    RecordAccess.Standing standing = access.standing(world, world.person(act.actor()), before);
    RecordView seen = views.view(standing).orElseThrow(Problem::notFound);
    requireMatch(ifMatch, seen, body);
    RecordInput input = RecordInput.of(body, world);
    if (input.input().has("kind") || input.input().has("source") || input.input().has("sourceId")) {
      input.input().fault("kind", "kind, source and sourceId are settled when a record is made");
    }
    Permits.require(standing, input.named());
    WorkRecord after = input.apply(before, act.at());
    requireTitleOrPlace(after, input);
    requireMarksOnly(standing, before, after);
    save(act, world, before, after, input.reason());
    outcome.after = access.opening(world, standing.person(), after);
    return Long.toString(id.value());
  }

  private void requireMatch(String ifMatch, RecordView seen, JsonNode body) {
    if (!ifMatch.equals("*") && !ifMatch.equals(views.etag(seen))) {
      throw Problem.of(
              412,
              "changed-meanwhile",
              "Somebody changed this meanwhile. Look at theirs and yours, then send yours again.")
          .with("theirs", seen)
          .with("theirsTag", views.etag(seen))
          .with("mine", body);
    }
  }

  /** Who may only mark may finish and take that back, and nothing else. */
  private static void requireMarksOnly(
      RecordAccess.Standing standing, WorkRecord before, WorkRecord after) {
    boolean finishes = after.isDone() && before.state() != State.DRAFT;
    boolean takesBack = before.isDone() && after.state() == before.stateBefore();
    boolean other = before.state() != after.state() && !finishes && !takesBack;
    if (other && !standing.isOffice()) {
      throw Problem.forbidden(
          "You may mark this done, or take that back; the rest is the office's.");
    }
  }

  private void save(Act act, World world, WorkRecord before, WorkRecord after, String reason) {
    List<FieldChange> changes = RecordFields.between(before, after);
    if (changes.isEmpty()) {
      return;
    }
    store.write(after, changes);
    long bits = remember(act, world, after, changes, reason);
    for (FieldChange change : changes) {
      bits |= RecordFields.forWhom(world.details(), before, change.field()).bits();
    }
    act.touch(after, bits);
  }

  /** Writes history; tells whom the changed details are for, together. */
  private long remember(
      Act act, World world, WorkRecord record, List<FieldChange> changes, String reason) {
    List<ForSet> forThen = new ArrayList<>();
    long bits = 0;
    for (FieldChange change : changes) {
      ForSet set = RecordFields.forWhom(world.details(), record, change.field());
      forThen.add(set);
      bits |= set.bits();
    }
    store.remember(act.id(), record.id(), changes, forThen);
    if (!reason.isEmpty()) {
      jdbc.sql("update act set reason = ? where id = ?").param(reason).param(act.id()).update();
    }
    return bits;
  }

  /** Takes back an act, as far as nobody changed its values since. */
  public Saved undo(PersonId asker, long actId, Optional<String> key) {
    Acts.Wanted wanted =
        Acts.Wanted.by(asker, "record.undo", key, Long.toString(actId)).undoing(actId);
    Acts.Done done = acts.run(wanted, act -> undo(act, actId));
    String[] answer = done.answer().split("\n");
    return new Saved(
        done,
        RecordId.of(Long.parseLong(answer[0])),
        Optional.empty(),
        List.of(answer).subList(1, answer.length));
  }

  private record ActRow(long record, long actor, String kind) {}

  private String undo(Act act, long actId) {
    World world = worlds.locked(act.worldVersion());
    ActRow row =
        jdbc.sql(
                """
                select h.record, a.actor, a.kind from act a join history h on h.act = a.id
                where a.id = ? order by h.record limit 1
                """)
            .param(actId)
            .query(ActRow.class)
            .optional()
            .orElseThrow(Problem::notFound);
    WorkRecord before = store.find(RecordId.of(row.record()), true).orElseThrow(Problem::notFound);
    RecordAccess.Standing standing = access.standing(world, world.person(act.actor()), before);
    if (!standing.opens()) {
      throw Problem.notFound();
    }
    List<FieldChange> done = changesOf(actId);
    if (!standing.isOffice()) {
      if (row.actor() != act.actor().value()) {
        throw Problem.forbidden("Only who did this, or the office, may take it back.");
      }
      Permits.require(standing, permitNames(done));
    }
    Undo undo =
        row.kind().equals("record.create")
            ? undoCreation(before)
            : Undo.of(done, RecordFields.flatten(before));
    WorkRecord after = RecordFields.apply(before, undo.takesBack());
    save(act, world, before, after, "");
    List<String> leaves = new ArrayList<>();
    for (String field : undo.leaves()) {
      boolean told =
          RecordFields.forWhom(world.details(), before, field).allows(standing.capacities());
      leaves.add(told ? HistoryWords.label(world, field) : "something you may not see");
    }
    return row.record() + (leaves.isEmpty() ? "" : "\n" + String.join("\n", leaves));
  }

  /** What was made is called off: the entries go, the record and its identifiers stay. */
  private static Undo undoCreation(WorkRecord now) {
    String called = State.CANCELLED + "/" + State.CANCELLED;
    String before = RecordFields.flatten(now).get(RecordFields.STATE);
    return new Undo(List.of(new FieldChange(RecordFields.STATE, before, called)), List.of());
  }

  private List<FieldChange> changesOf(long act) {
    return jdbc.sql("select field, old, new from history where act = ? order by id")
        .param(act)
        .query((r, n) -> new FieldChange(r.getString(1), r.getString(2), r.getString(3)))
        .list();
  }

  private static Set<String> permitNames(List<FieldChange> changes) {
    Map<String, String> names =
        Map.of(RecordFields.ASSIGNMENTS, "people", RecordFields.PRIVATE, "private");
    Set<String> found = new java.util.TreeSet<>();
    for (FieldChange change : changes) {
      String field = change.field();
      found.add(
          field.startsWith("detail:")
              ? field.substring("detail:".length())
              : names.getOrDefault(field, field));
    }
    return found;
  }
}
