package mellowrota.server.rules;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import mellowrota.core.calendar.Calendar;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.calendar.Rendering;
import mellowrota.core.calendar.RenderingId;
import mellowrota.core.people.ForSet;
import mellowrota.core.people.PersonId;
import mellowrota.core.project.Outlook;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.acts.Act;
import mellowrota.server.acts.Acts;
import mellowrota.server.acts.Undoes;
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.Problem;
import mellowrota.server.records.ForWords;
import mellowrota.server.records.RecordStore;
import mellowrota.server.sight.ReaderWords;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Looks at what a set of rules and wordings would do, and does it: never otherwise than it was
 * looked at.
 */
@Service
class SetChanges implements Undoes {

  private static final int AT_ONCE = 500;

  private final Sets sets;
  private final Acts acts;
  private final Worlds worlds;
  private final RecordStore store;
  private final JdbcClient jdbc;
  private final JsonMapper json;

  SetChanges(
      Sets sets, Acts acts, Worlds worlds, RecordStore store, JdbcClient jdbc, JsonMapper json) {
    this.sets = sets;
    this.acts = acts;
    this.worlds = worlds;
    this.store = store;
    this.jdbc = jdbc;
    this.json = json;
  }

  /** The sum over all records, and which of them change. */
  private record Looked(Outlook.Sum sum, List<RecordId> touched) {}

  /** What the set would do; nothing is kept. */
  SetViews.OutlookView look(World world, RuleSet set) {
    requireFresh(set);
    World after = sets.worldWith(world, set);
    return view(world, after, outlook(world, after).sum(), set);
  }

  /** Takes the set, if it does what was looked at. */
  Acts.Done take(Asker asker, Optional<String> key, String body, RuleSet set) {
    return acts.run(
        Acts.Wanted.by(asker.person(), "rules.change", key, body).changingTheWorld(),
        act -> {
          requireFresh(set);
          World world = worlds.now();
          World after = sets.worldWith(world, set);
          Looked looked = outlook(world, after);
          SetViews.OutlookView view = view(world, after, looked.sum(), set);
          if (set.looked().filter(view.looked()::equals).isEmpty()) {
            throw Problem.of(
                    409,
                    "look-first",
                    "Look first at what this would do, then take it; what it does changed since.")
                .with("outlook", view);
          }
          change(act, looked.touched(), set);
          return "";
        });
  }

  private void change(Act act, List<RecordId> touched, RuleSet set) {
    JsonNode before = sets.now();
    sets.write(set);
    act.reaches(touched);
    act.later()
        .add(
            "insert into set_change (act, before, after) values (?, ?::jsonb, ?::jsonb)",
            act.id(),
            before.toString(),
            sets.now().toString());
  }

  /** Somebody else's change is never written over. */
  private void requireFresh(RuleSet set) {
    if (!set.tag().equals(Sets.tag(sets.now()))) {
      throw Problem.of(
          412,
          "changed-meanwhile",
          "Somebody changed the rules or wordings meanwhile. Fetch them and make your change again.");
    }
  }

  private Looked outlook(World before, World after) {
    Outlook outlook = new Outlook(before.projector(), after.projector());
    Outlook.Sum sum = new Outlook.Sum();
    List<RecordId> touched = new ArrayList<>();
    List<RecordId> ids =
        jdbc.sql(
                """
                select id from record where state in ('TENTATIVE', 'CONFIRMED', 'DONE') order by id
                """)
            .query((row, n) -> RecordId.of(row.getLong(1)))
            .list();
    for (int from = 0; from < ids.size(); from += AT_ONCE) {
      List<RecordId> some = ids.subList(from, Math.min(ids.size(), from + AT_ONCE));
      for (WorkRecord record : store.load(some, false)) {
        Outlook.Told one = outlook.of(record);
        sum.add(one.rows());
        if (!one.isNothing()) {
          touched.add(record.id());
        }
      }
    }
    return new Looked(sum, touched);
  }

  private SetViews.OutlookView view(World world, World after, Outlook.Sum sum, RuleSet set) {
    List<SetViews.CalendarView> calendars = new ArrayList<>();
    sum.moves()
        .forEach(
            (calendar, moves) ->
                calendars.add(
                    new SetViews.CalendarView(
                        calendar.value(),
                        name(world, calendar),
                        moves.getOrDefault(Outlook.Move.ADDED, 0L),
                        moves.getOrDefault(Outlook.Move.CHANGED, 0L),
                        moves.getOrDefault(Outlook.Move.TAKEN_OFF, 0L))));
    List<SetViews.SightView> shown = sight(after, sum.shown());
    List<SetViews.SightView> hidden = sight(world, sum.hidden());
    List<SetViews.ForChangeView> readers = readers(world, set);
    String all = set.tag() + set.content() + calendars + shown + hidden + readers;
    return new SetViews.OutlookView(
        UUID.nameUUIDFromBytes(all.getBytes(StandardCharsets.UTF_8)).toString(),
        sum.records(),
        sum.count(Outlook.Move.ADDED),
        sum.count(Outlook.Move.CHANGED),
        sum.count(Outlook.Move.TAKEN_OFF),
        calendars,
        shown,
        hidden,
        readers,
        RuleWarnings.of(after));
  }

  /** Which details would be for others; that changes what people read on our screens too. */
  private List<SetViews.ForChangeView> readers(World world, RuleSet set) {
    List<SetViews.ForChangeView> found = new ArrayList<>();
    for (DetailDefinition one : set.details()) {
      ForSet before =
          world.details().find(one.key()).map(DetailDefinition::forWhom).orElse(one.forWhom());
      if (!before.equals(one.forWhom())) {
        found.add(
            new SetViews.ForChangeView(
                one.label(),
                ForWords.of(before, world.roles()),
                ForWords.of(one.forWhom(), world.roles()),
                (one.forWhom().bits() & ~before.bits()) != 0,
                holding(one)));
      }
    }
    return found;
  }

  /** On how many records a detail says something, where they say nothing else of its readers. */
  private long holding(DetailDefinition detail) {
    String sql =
        detail.typed()
            ? "select count(*) from detail where key = ? and value <> '' and for_bits is null"
            : """
            select count(*) from record r where not exists (select 1 from detail d
              where d.record = r.id and d.key = ? and d.for_bits is not null)
            """;
    return jdbc.sql(sql).param(detail.key().name()).query(Long.class).single();
  }

  private static String name(World world, CalendarId calendar) {
    return world.calendars().find(calendar).map(Calendar::name).orElse("");
  }

  private static List<SetViews.SightView> sight(
      World world, Map<RenderingId, Map<DetailKey, Long>> counts) {
    Map<DetailKey, String> labels = Sets.labels(world);
    List<SetViews.SightView> found = new ArrayList<>();
    counts.forEach(
        (rendering, details) -> {
          Rendering one = world.calendars().rendering(rendering).orElseThrow();
          String readers = ReaderWords.of(world, one);
          details.forEach(
              (detail, entries) ->
                  found.add(
                      new SetViews.SightView(
                          one.calendar().value(),
                          name(world, one.calendar()),
                          readers,
                          labels.getOrDefault(detail, detail.name()),
                          entries)));
        });
    return found;
  }

  @Override
  public boolean knows(long act) {
    return jdbc.sql("select exists (select 1 from set_change where act = ?)")
        .param(act)
        .query(Boolean.class)
        .single();
  }

  /** Puts back the set from before an act, if nobody changed it since. */
  @Override
  public Acts.Done undo(PersonId asker, long undone, Optional<String> key) {
    Acts.Wanted wanted =
        Acts.Wanted.by(asker, "rules.undo", key, Long.toString(undone))
            .changingTheWorld()
            .undoing(undone);
    return acts.run(
        wanted,
        act -> {
          World world = worlds.now();
          if (!world.person(act.actor()).isCoordinator()) {
            throw Problem.notFound();
          }
          record Row(String before, String after) {}
          Row row =
              jdbc.sql("select before::text, after::text from set_change where act = ?")
                  .param(undone)
                  .query(Row.class)
                  .single();
          // Read alike, so that numbers are of one sort.
          if (!json.readTree(row.after()).equals(json.readTree(sets.now().toString()))) {
            throw Problem.of(
                409,
                "changed-since",
                "The rules or wordings were changed since; take that back first.");
          }
          RuleSet past = sets.past(json.readTree(row.before()));
          change(act, outlook(world, sets.worldWith(world, past)).touched(), past);
          return "";
        });
  }
}
