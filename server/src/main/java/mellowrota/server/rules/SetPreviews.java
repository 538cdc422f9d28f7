package mellowrota.server.rules;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import lombok.RequiredArgsConstructor;
import mellowrota.core.calendar.Calendar;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.calendar.Rendering;
import mellowrota.core.calendar.RenderingId;
import mellowrota.core.people.ForSet;
import mellowrota.core.people.Person;
import mellowrota.core.project.Preview;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.DetailKey;
import mellowrota.server.records.ForWords;
import mellowrota.server.records.OpenableRecords;
import mellowrota.server.sight.ReaderWords;
import mellowrota.server.sight.World;
import org.springframework.stereotype.Component;

/** Puts what a set would do in words. */
@Component
@RequiredArgsConstructor
class SetPreviews {

  private final OpenableRecords opens;

  /** What is told alike however many records were looked at. */
  record Frame(
      String token,
      long total,
      World before,
      World after,
      List<SetViews.ForChangeView> readers,
      List<String> warnings) {

    private SetViews.CalendarView view(CalendarId calendar, Map<Preview.Move, Long> moves) {
      return new SetViews.CalendarView(
          calendar.value(),
          name(before, calendar),
          moves.getOrDefault(Preview.Move.ADDED, 0L),
          moves.getOrDefault(Preview.Move.CHANGED, 0L),
          moves.getOrDefault(Preview.Move.TAKEN_OFF, 0L));
    }

    SetViews.PreviewView view(Preview.Sum sum, boolean finished) {
      List<SetViews.CalendarView> calendars =
          sum.moves().entrySet().stream().map(one -> view(one.getKey(), one.getValue())).toList();
      return new SetViews.PreviewView(
          token,
          finished,
          sum.records(),
          total,
          sum.count(Preview.Move.ADDED),
          sum.count(Preview.Move.CHANGED),
          sum.count(Preview.Move.TAKEN_OFF),
          sum.waits(),
          calendars,
          sight(after, before, sum.shown()),
          sight(after, before, sum.hidden()),
          readers,
          warnings,
          List.of(),
          sum.digest());
    }
  }

  Frame frame(String token, long total, World before, World after, RuleSet set, Person asker) {
    return new Frame(
        token, total, before, after, readers(before, asker, set), RuleWarnings.of(after));
  }

  /** Which details would be for others; that changes what people read on our screens too. */
  private List<SetViews.ForChangeView> readers(World world, Person asker, RuleSet set) {
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
                holding(world, asker, one)));
      }
    }
    return found;
  }

  /**
   * On how many records a detail says something, where they say nothing else of its readers. What
   * whoever looks may not see counts wherever the kind has it: whether it is filled is not told.
   */
  private long holding(World world, Person asker, DetailDefinition detail) {
    return opens
        .query(
            Long.class,
            "select count(*) from"
                + OpenableRecords.RECORDS
                + """
                 where r.kind = any(:kinds) and not exists (select 1 from detail d
                   where d.record = r.id and d.key = :detail and d.for_bits is not null)
                 and (not :typed or (:usual & me.bits) = 0 or exists (select 1 from detail d
                   where d.record = r.id and d.key = :detail and d.value <> ''))
                """,
            world,
            asker)
        .setParameter("detail", detail.key().name())
        .setParameter("kinds", detail.kinds().stream().map(Enum::name).toArray(String[]::new))
        .setParameter("typed", detail.typed())
        .setParameter("usual", world.details().forWhom(detail.key()).bits())
        .getSingleResult();
  }

  private static String name(World world, CalendarId calendar) {
    return world.calendars().find(calendar).map(Calendar::name).orElse("");
  }

  private static List<SetViews.SightView> sight(
      World after, World before, Map<RenderingId, Map<DetailKey, Long>> counts) {
    Map<DetailKey, String> labels = RuleSets.labels(before);
    labels.putAll(RuleSets.labels(after));
    List<SetViews.SightView> found = new ArrayList<>();
    counts.forEach(
        (rendering, details) -> {
          // Of what is withdrawn only the world before still knows.
          Optional<Rendering> stays = after.calendars().rendering(rendering);
          Rendering one = stays.or(() -> before.calendars().rendering(rendering)).orElseThrow();
          String readers = ReaderWords.of(stays.isPresent() ? after : before, one);
          details.forEach(
              (detail, entries) ->
                  found.add(
                      new SetViews.SightView(
                          one.calendar().value(),
                          name(after, one.calendar()),
                          readers,
                          labels.getOrDefault(detail, detail.name()),
                          entries)));
        });
    return found;
  }
}
