package mellowrota.server.records;

import static mellowrota.server.platform.Words.say;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import lombok.RequiredArgsConstructor;
import mellowrota.core.change.FieldChange;
import mellowrota.core.change.RecordFields;
import mellowrota.core.people.ForSet;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.Repeat;
import mellowrota.core.work.State;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.acts.Act;
import mellowrota.server.acts.Acts;
import mellowrota.server.platform.IfMatch;
import mellowrota.server.platform.Problem;
import mellowrota.server.records.store.RecordStore;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.springframework.stereotype.Service;
import tools.jackson.databind.JsonNode;

/** Makes and changes records, one or many; each time as one act. */
@Service
@RequiredArgsConstructor
public class Records {

  private final Acts acts;
  private final Worlds worlds;
  private final RecordStore store;
  private final RecordAccess access;
  private final RecordViews views;
  private final SourceIds sources;

  /**
   * What came of an act on records.
   *
   * @param records those it made or changed, in the order asked for
   * @param after the first record as its changer may open it now; empty where that must be looked
   *     up
   * @param leaves what an undo left as it is, since somebody changed it meanwhile
   */
  public record Saved(
      Acts.Done done,
      List<RecordId> records,
      Optional<RecordAccess.Standing> after,
      List<String> leaves) {

    /** From what the command of an act answered: the records, then a line for each thing left. */
    static Saved of(Acts.Done done, Optional<RecordAccess.Standing> after) {
      List<String> lines = List.of(done.answer().split("\n"));
      List<RecordId> ids = new ArrayList<>();
      for (String id : lines.get(0).split(",")) {
        ids.add(RecordId.of(Long.parseLong(id)));
      }
      return new Saved(done, ids, after, lines.subList(1, lines.size()));
    }

    static String answer(List<RecordId> ids, List<String> leaves) {
      List<String> lines = new ArrayList<>();
      lines.add(String.join(",", ids.stream().map(id -> "" + id.value()).toList()));
      lines.addAll(leaves);
      return String.join("\n", lines);
    }
  }

  /** Carries what a command knows out of its act. */
  static final class Outcome {
    private final List<RecordId> records = new ArrayList<>();
    private Optional<RecordAccess.Standing> first = Optional.empty();

    void add(RecordId id, Optional<RecordAccess.Standing> after) {
      if (records.isEmpty()) {
        first = after;
      }
      records.add(id);
    }

    /** An act that is done anew makes it anew. */
    void begin() {
      records.clear();
      first = Optional.empty();
    }

    List<RecordId> records() {
      return records;
    }

    String answer() {
      return Saved.answer(records, List.of());
    }
  }

  /** Makes a record, or as many as it repeats. */
  public Saved create(PersonId asker, Optional<String> key, JsonNode body) {
    Acts.Wanted wanted = Acts.Wanted.by(asker, "record.create", key, body.toString());
    Outcome outcome = new Outcome();
    Acts.Done done =
        acts.run(
            wanted,
            act -> {
              outcome.begin();
              World world = worlds.locked(act.worldVersion());
              create(act, world, Optional.empty(), body, outcome);
              return outcome.answer();
            });
    return Saved.of(done, outcome.first);
  }

  void create(Act act, World world, Optional<RecordId> like, JsonNode body, Outcome outcome) {
    Person author = world.person(act.actor());
    requireOfficeSomewhere(author);
    RecordInput input = RecordInput.of(body, world, author);
    Optional<String> source = input.source();
    Optional<String> sourceId = input.sourceId();
    Optional<Repeat> repeat = input.repeat();
    if (source.isPresent() != sourceId.isPresent()) {
      input.input().fault("sourceId", say("records.goes-with-source-send"));
    }
    if (source.isPresent() && repeat.isPresent()) {
      input.input().fault("repeat", say("records.does-not-go-with"));
    }
    if (source.isPresent() && sourceId.isPresent()) {
      sources.lock(source.get(), List.of(sourceId.get()));
      Optional<RecordId> known =
          Optional.ofNullable(
              sources
                  .known(world, author, source.get(), List.of(sourceId.get()))
                  .get(sourceId.get()));
      if (known.isPresent()) {
        outcome.add(known.get(), Optional.empty());
        return;
      }
    }
    WorkRecord first =
        like.isPresent()
            ? input.makeLike(opened(world, author, like.get()).carried(), author.id(), act.at())
            : input.make(author.id(), act.at());
    int times = repeat.map(Repeat::times).orElse(1);
    for (int i = 0; i < times; i++) {
      RecordStore.Numbers numbers = store.reserve(first.kind());
      WorkRecord one = first.with().called(RecordId.of(numbers.id()), numbers.ref()).build();
      WorkRecord record = i == 0 ? one : Repeat.later(one, repeat.get().distance(i));
      insert(act, world, author, record, source, sourceId, input.reason());
      outcome.add(record.id(), access.opening(world, author, record));
    }
  }

  private RecordAccess.Standing opened(World world, Person asker, RecordId id) {
    return store
        .find(id, false)
        .map(record -> access.standing(world, asker, record))
        .filter(RecordAccess.Standing::opens)
        .orElseThrow(Problem::notFound);
  }

  void insert(
      Act act,
      World world,
      Person author,
      WorkRecord record,
      Optional<String> source,
      Optional<String> sourceId,
      String reason) {
    requireMayMake(world, author, record);
    RecordStore.Remembered history =
        remembered(act, world, record, RecordFields.ofNew(record), reason);
    store.insert(record, source, sourceId, history);
    act.made(record, bits(history));
  }

  void requireMayMake(World world, Person author, WorkRecord record) {
    requireOfficeSomewhere(author);
    if (!access.standing(world, author, record).isOffice()) {
      throw Problem.forbidden(say("records.you-may-create-records"));
    }
  }

  private static void requireOfficeSomewhere(Person person) {
    if (!person.isCoordinator() && !person.isTeamCoordinator()) {
      throw Problem.forbidden(say("records.only-coordinators-can-create"));
    }
  }

  /** The record a body would make, for looking at where it would land; nothing is kept. */
  public WorkRecord preview(World world, Person author, Instant at, JsonNode body) {
    requireOfficeSomewhere(author);
    return RecordInput.of(body, world, author).makeUnfinished(author.id(), at);
  }

  /** The record as a body would change it; nothing is kept. */
  public WorkRecord preview(
      World world, RecordAccess.Standing standing, Instant at, JsonNode body) {
    RecordInput input = RecordInput.of(body, world, standing.person());
    input.refuseWhatIsSettled();
    Permits.require(standing, input.named());
    return input.apply(standing.record(), at);
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
    Acts.Done done =
        acts.run(
            wanted,
            act -> {
              outcome.begin();
              change(act, worlds.locked(act.worldVersion()), id, ifMatch, body, outcome);
              return outcome.answer();
            });
    return Saved.of(done, outcome.first);
  }

  void change(Act act, World world, RecordId id, String ifMatch, JsonNode body, Outcome outcome) {
    WorkRecord before = store.find(id, true).orElseThrow(Problem::notFound);
    RecordAccess.Standing standing = access.standing(world, world.person(act.actor()), before);
    RecordView seen = views.view(standing).orElseThrow(Problem::notFound);
    requireMatch(ifMatch, seen, body);
    RecordInput input = RecordInput.of(body, world, standing.person());
    input.refuseWhatIsSettled();
    Permits.require(standing, input.named());
    WorkRecord after = input.apply(before, act.at());
    requireMarksOnly(standing, before, after);
    save(act, world, before, after, input.reason());
    outcome.add(id, access.opening(world, standing.person(), after));
  }

  /** Makes and changes several records as one act: all of it is done, or nothing. */
  public Saved several(PersonId asker, Optional<String> key, JsonNode body) {
    Acts.Wanted wanted = Acts.Wanted.by(asker, "record.several", key, body.toString());
    Outcome outcome = new Outcome();
    Acts.Done done =
        acts.run(
            wanted,
            act -> {
              outcome.begin();
              World world = worlds.locked(act.worldVersion());
              List<SeveralInput.Item> items = SeveralInput.read(body);
              // Locked in one order, whatever order they were sent in.
              store.lock(items.stream().flatMap(item -> item.record().stream()).toList());
              for (int i = 0; i < items.size(); i++) {
                try {
                  take(act, world, items.get(i), outcome);
                } catch (Problem problem) {
                  throw problem.inside(items.get(i).pointer()).with("item", i);
                }
              }
              return outcome.answer();
            });
    return Saved.of(done, outcome.first);
  }

  private void requireMatch(String ifMatch, RecordView seen, JsonNode body) {
    new IfMatch(ifMatch).require(views.etag(seen), seen, body);
  }

  /** Who may only mark may finish and take that back, and nothing else. */
  private static void requireMarksOnly(
      RecordAccess.Standing standing, WorkRecord before, WorkRecord after) {
    boolean finishes = after.isDone() && before.state() != State.DRAFT;
    boolean takesBack = before.isDone() && after.state() == before.stateBefore();
    boolean other = before.state() != after.state() && !finishes && !takesBack;
    if (other && !standing.isOffice()) {
      throw Problem.forbidden(say("records.you-may-mark-this"));
    }
  }

  /** Keeps a changed record with its history; nothing where nothing changed. */
  void save(Act act, World world, WorkRecord before, WorkRecord after, String reason) {
    List<FieldChange> changes = RecordFields.between(before, after);
    if (changes.isEmpty()) {
      return;
    }
    RecordStore.Remembered history = remembered(act, world, after, changes, reason);
    store.write(after, history);
    long bits = bits(history);
    for (FieldChange change : changes) {
      bits |= RecordFields.forWhom(world.details(), before, change.field()).bits();
    }
    act.changed(before, after, bits);
  }

  private RecordStore.Remembered remembered(
      Act act, World world, WorkRecord record, List<FieldChange> changes, String reason) {
    if (!reason.isEmpty()) {
      act.because(reason);
    }
    List<ForSet> forThen =
        changes.stream()
            .map(change -> RecordFields.forWhom(world.details(), record, change.field()))
            .toList();
    return new RecordStore.Remembered(act.id(), act.at(), changes, forThen);
  }

  private static long bits(RecordStore.Remembered history) {
    return history.forThen().stream().mapToLong(ForSet::bits).reduce(0, (a, b) -> a | b);
  }

  private void take(Act act, World world, SeveralInput.Item item, Outcome outcome) {
    if (item.record().isPresent()) {
      change(act, world, item.record().get(), item.ifMatch(), item.body(), outcome);
    } else {
      create(act, world, item.like(), item.body(), outcome);
    }
  }
}
