package mellowrota.server.today;

import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.time.ZoneId;
import java.util.List;
import mellowrota.core.people.Person;
import mellowrota.core.people.RoleId;
import mellowrota.core.work.RecordId;
import mellowrota.server.records.Opens;
import mellowrota.server.records.RecordAccess;
import mellowrota.server.records.RecordStore;
import mellowrota.server.sight.World;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;

/** Finds the work around today that somebody may open. */
@Service
class TodayWork {

  private static final int DAYS_AHEAD = 14;
  private static final int MOST = 300;

  private final RecordStore store;
  private final RecordAccess access;
  private final JdbcClient jdbc;

  TodayWork(RecordStore store, RecordAccess access, JdbcClient jdbc) {
    this.store = store;
    this.access = access;
    this.jdbc = jdbc;
  }

  /** Open work that is due or begins before the next two weeks end, soonest first. */
  List<RecordAccess.Standing> wanting(World world, Person me) {
    return opened(
        world,
        me,
        """
         and sees.times and r.state in ('TENTATIVE', 'CONFIRMED') and (r.cant
          or r.due_at < :until
          or exists (select 1 from visit v where v.record = r.id and (
            v.ends >= :from and v.starts < :until
            or v.date_to > :today and v.date_from < :last)))
        """);
  }

  /** Work of the next two weeks, and older that is not done, on which somebody is. */
  List<RecordAccess.Standing> of(World world, Person me) {
    return opened(
        world,
        me,
        """
         and sees.times and r.state in ('TENTATIVE', 'CONFIRMED', 'DONE')
          and exists (select 1 from assignment a where a.record = r.id and a.holder_kind = 'P'
            and a.holder = :me and a.role <> :informed)
          and (r.due_at >= :from and r.due_at < :until
            or r.due_at < :from and r.state <> 'DONE'
            or exists (select 1 from visit v where v.record = r.id and (
              v.ends >= :from and v.starts < :until
              or v.date_to > :today and v.date_from < :last)))
        """);
  }

  /** Work that is on no calendar and is no draft, for those who can do something about it. */
  List<RecordAccess.Standing> nowhere(World world, Person me) {
    return opened(
        world,
        me,
        """
         and (me.bits & 1) <> 0 and r.state in ('TENTATIVE', 'CONFIRMED')
          and not exists (select 1 from entry e where e.record = r.id and e.state <> 'GONE')
        """);
  }

  private List<RecordAccess.Standing> opened(World world, Person me, String condition) {
    ZoneId zone = world.house().zone();
    LocalDate today = world.day();
    return standings(
        world,
        me,
        Opens.of(
                jdbc,
                "select r.id from"
                    + Opens.RECORDS
                    + Opens.SEEN
                    + " where"
                    + Opens.MAY_OPEN
                    + condition
                    + " order by r.sorts_at, r.id limit :most",
                world,
                me)
            .param("informed", RoleId.INFORMED.value())
            .param("from", midnight(today, zone))
            .param("until", midnight(today.plusDays(DAYS_AHEAD), zone))
            .param("today", today)
            .param("last", today.plusDays(DAYS_AHEAD))
            .param("most", MOST)
            .query((row, n) -> RecordId.of(row.getLong(1)))
            .list());
  }

  private static OffsetDateTime midnight(LocalDate day, ZoneId zone) {
    return day.atStartOfDay(zone).toOffsetDateTime();
  }

  /** Where somebody stands before these, as far as they may open them. */
  List<RecordAccess.Standing> standings(World world, Person me, List<RecordId> ids) {
    return access.standings(world, me, store.load(ids, false)).stream()
        .filter(RecordAccess.Standing::opens)
        .toList();
  }
}
