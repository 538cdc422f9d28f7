package mellowrota.server.records;

import java.time.ZoneOffset;
import java.time.zone.ZoneRulesProvider;
import java.util.List;
import java.util.Map;
import java.util.Set;
import mellowrota.core.people.ForSet;
import mellowrota.core.people.Holder;
import mellowrota.core.work.Assignment;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.DetailValue;
import mellowrota.core.work.Ruling;
import mellowrota.core.work.Visit;
import mellowrota.core.work.When;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.platform.Writes;

/** Writes the tables that hold what a record has several of. */
final class RecordTables {

  static final String TZDB = ZoneRulesProvider.getVersions("UTC").lastEntry().getKey();

  static final List<String> ALL = List.of("visit", "assignment", "detail", "tag", "ruling");

  private RecordTables() {}

  /** Writes what one table holds of a record, which has nothing there. */
  static void insert(Writes writes, String table, WorkRecord record) {
    long id = record.id().value();
    switch (table) {
      case "visit" -> record.visits().forEach(visit -> insert(writes, id, visit));
      case "assignment" -> insertAssignments(writes, id, record.assignments());
      case "detail" -> insertDetails(writes, id, record.details());
      case "tag" -> insertTags(writes, id, record.tags());
      default -> insertRulings(writes, id, record.rulings());
    }
  }

  private static void insertDetails(Writes writes, long id, Map<DetailKey, DetailValue> values) {
    if (values.isEmpty()) {
      return;
    }
    List<DetailKey> keys = List.copyOf(values.keySet());
    writes.add(
        """
        insert into detail (record, key, value, for_bits)
        select ?, * from unnest(?::text[], ?::text[], ?::bigint[])
        """,
        id,
        keys.stream().map(DetailKey::name).toArray(String[]::new),
        keys.stream().map(key -> values.get(key).text()).toArray(String[]::new),
        keys.stream()
            .map(key -> values.get(key).forWhom().map(ForSet::bits).orElse(null))
            .toArray(Long[]::new));
  }

  private static void insertTags(Writes writes, long id, Set<String> tags) {
    if (!tags.isEmpty()) {
      writes.add(
          "insert into tag (record, tag) select ?, unnest(?::text[])",
          id,
          tags.toArray(String[]::new));
    }
  }

  private static void insertRulings(Writes writes, long id, List<Ruling> rulings) {
    int position = 0;
    for (Ruling ruling : rulings) {
      writes.add(
          """
          insert into ruling (record, position, sort, calendar, visit, reason)
          values (?, ?, ?, ?, ?, ?)
          """,
          id,
          position++,
          ruling.sort().name(),
          ruling.calendar(),
          ruling.visit().isPresent() ? ruling.visit().getAsInt() : null,
          ruling.reason());
    }
  }

  private static void insert(Writes writes, long record, Visit visit) {
    When.Timed timed = visit.when().orElse(null) instanceof When.Timed t ? t : null;
    When.AllDay allDay = visit.when().orElse(null) instanceof When.AllDay a ? a : null;
    writes.add(
        """
        insert into visit (record, no, local_from, local_to, zone, offset_from, offset_to, date_from,
          date_to, starts, ends, tzdb, margin_before, margin_after)
        values (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)
        """,
        record,
        visit.no(),
        timed == null ? null : timed.start().toLocalDateTime(),
        timed == null ? null : timed.end().toLocalDateTime(),
        timed == null ? null : timed.start().getZone().getId(),
        timed == null ? null : timed.start().getOffset().getId(),
        timed == null ? null : timed.end().getOffset().getId(),
        allDay == null ? null : allDay.days().first(),
        allDay == null ? null : allDay.days().until(),
        timed == null ? null : timed.start().toInstant().atOffset(ZoneOffset.UTC),
        timed == null ? null : timed.end().toInstant().atOffset(ZoneOffset.UTC),
        timed == null ? null : TZDB,
        visit.margins().map(m -> m.before().toString()).orElse(null),
        visit.margins().map(m -> m.after().toString()).orElse(null));
  }

  private static void insertAssignments(Writes writes, long record, List<Assignment> all) {
    if (all.isEmpty()) {
      return;
    }
    writes.add(
        """
        insert into assignment (record, visit, position, holder_kind, holder, role, given_at)
        select ?, visit, position - 1, kind, holder, role, given_at
        from unnest(?::int[], ?::text[], ?::bigint[], ?::int[], ?::timestamptz[])
          with ordinality as a (visit, kind, holder, role, given_at, position)
        """,
        record,
        all.stream().map(Assignment::visit).toArray(Integer[]::new),
        all.stream().map(a -> isPerson(a) ? "P" : "T").toArray(String[]::new),
        all.stream().map(RecordTables::holder).toArray(Long[]::new),
        all.stream().map(a -> a.role().value()).toArray(Integer[]::new),
        all.stream().map(a -> a.givenAt().toString()).toArray(String[]::new));
  }

  private static boolean isPerson(Assignment a) {
    return a.holder() instanceof Holder.OnePerson;
  }

  private static long holder(Assignment a) {
    return a.holder() instanceof Holder.OnePerson one
        ? one.person().value()
        : ((Holder.WholeTeam) a.holder()).team().value();
  }
}
