package mellowrota.server.rules;

import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Function;
import java.util.stream.Collectors;
import mellowrota.core.people.PersonId;
import mellowrota.core.project.Outlook;
import mellowrota.core.project.Release;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.calendars.ReleaseStore;
import mellowrota.server.records.RecordStore;
import mellowrota.server.sight.World;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** Goes through the records that stand on calendars, some at a time, from the lowest number up. */
@Component
class Outlooks {

  private static final String STANDING = "state in ('TENTATIVE', 'CONFIRMED', 'DONE')";

  private final RecordStore store;
  private final ReleaseStore releases;
  private final JdbcClient jdbc;
  private final int inOneAct;

  Outlooks(
      RecordStore store,
      ReleaseStore releases,
      JdbcClient jdbc,
      @Value("${mellow.records-in-one-act}") int inOneAct) {
    this.store = store;
    this.releases = releases;
    this.jdbc = jdbc;
    this.inOneAct = inOneAct;
  }

  /** Where there are more, a change goes through them in the background. */
  int inOneAct() {
    return inOneAct;
  }

  /** How many there are. */
  long count() {
    return jdbc.sql("select count(*) from record where " + STANDING).query(Long.class).single();
  }

  /** The numbers of the next ones after a number. */
  List<RecordId> after(long number, int most) {
    return jdbc.sql("select id from record where id > ? and " + STANDING + " order by id limit ?")
        .param(number)
        .param(most)
        .query((row, n) -> RecordId.of(row.getLong(1)))
        .list();
  }

  /**
   * What a change does to some records.
   *
   * @param touched which it touches at all, as far as there are not more than {@code most}
   */
  record Part(Outlook.Sum sum, List<RecordId> touched, int most) {

    static Part of(int most) {
      return new Part(new Outlook.Sum(), new ArrayList<>(), most);
    }
  }

  /**
   * Adds what becomes of these records.
   *
   * @param from work that ended before this day counts only where something is hidden
   * @param asker who gets to see the sum
   */
  void add(
      Part part,
      World before,
      World after,
      Optional<LocalDate> from,
      List<RecordId> ids,
      PersonId asker) {
    Outlook exact = new Outlook(before.projector(), after.projector());
    Outlook asked = new Outlook(before.projector(), after.projector(), asker);
    Set<RecordId> past = past(from, before, ids);
    Release.Known known = releases(before, after, ids);
    for (WorkRecord record : store.load(ids, false)) {
      boolean isPast = past.contains(record.id());
      Outlook.Told told = exact.of(record, known);
      Outlook.Told seen = asked.covers(record) ? asked.of(record, known) : told;
      boolean stays = isPast && !hides(seen);
      part.sum().add(stays ? List.of() : seen.rows(), stays ? 0 : seen.waits());
      if (isTouched(told, isPast) && part.touched().size() < part.most()) {
        part.touched().add(record.id());
      }
    }
  }

  /** What becomes of these records in another world. */
  List<Outlook.Told> told(World before, World after, List<RecordId> ids, PersonId asker) {
    Outlook outlook = new Outlook(before.projector(), after.projector(), asker);
    Release.Known known = releases(before, after, ids);
    return store.load(ids, false).stream().map(record -> outlook.of(record, known)).toList();
  }

  /** What becomes of records that change themselves, from what they are now. */
  List<Outlook.Told> told(
      World before, World after, Map<RecordId, WorkRecord> changed, PersonId asker) {
    Outlook outlook = new Outlook(before.projector(), after.projector(), asker);
    List<RecordId> ids = List.copyOf(new TreeSet<>(changed.keySet()));
    Release.Known known = releases(before, after, ids);
    Map<RecordId, WorkRecord> now =
        store.load(ids, false).stream()
            .collect(Collectors.toMap(WorkRecord::id, Function.identity()));
    return ids.stream()
        .map(id -> outlook.of(Optional.ofNullable(now.get(id)), changed.get(id), known))
        .toList();
  }

  /** Which of these records a change touches at all. */
  List<RecordId> touched(World before, World after, Optional<LocalDate> from, List<RecordId> ids) {
    Outlook outlook = new Outlook(before.projector(), after.projector());
    Set<RecordId> past = past(from, before, ids);
    Release.Known known = releases(before, after, ids);
    List<RecordId> found = new ArrayList<>();
    for (WorkRecord record : store.load(ids, false)) {
      if (isTouched(outlook.of(record, known), past.contains(record.id()))) {
        found.add(record.id());
      }
    }
    return found;
  }

  private static boolean isTouched(Outlook.Told told, boolean isPast) {
    return isPast ? hides(told) : !told.isNothing();
  }

  private Release.Known releases(World before, World after, List<RecordId> ids) {
    return before.asksForYes() || after.asksForYes() ? releases.of(ids) : Release.Known.NONE_WAITS;
  }

  private static boolean hides(Outlook.Told told) {
    return told.rows().stream()
        .flatMap(row -> row.faces().stream())
        .anyMatch(face -> !face.hidden().isEmpty());
  }

  /** Which of them ended before the day, in the house's zone; what has no time never ends. */
  private Set<RecordId> past(Optional<LocalDate> from, World world, List<RecordId> ids) {
    if (from.isEmpty()) {
      return Set.of();
    }
    List<RecordId> found =
        jdbc.sql(
                """
                select r.id from record r where r.id = any(:ids)
                  and coalesce(r.due_at, (r.due_day + 1)::timestamp at time zone 'UTC', '-infinity')
                    <= :at
                  and not exists (select 1 from visit v where v.record = r.id
                    and (v.ends > :at or v.date_to > :day))
                  and (r.due_at is not null or r.due_day is not null or exists (
                    select 1 from visit v where v.record = r.id
                      and (v.ends is not null or v.date_to is not null)))
                """)
            .param("ids", ids.stream().map(RecordId::value).toArray(Long[]::new))
            .param(
                "at",
                from.get()
                    .atStartOfDay(world.house().zone())
                    .toOffsetDateTime()
                    .withOffsetSameInstant(ZoneOffset.UTC))
            .param("day", from.get())
            .query((row, n) -> RecordId.of(row.getLong(1)))
            .list();
    return new HashSet<>(found);
  }
}
