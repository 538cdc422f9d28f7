package mellowrota.server.today;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.Person;
import mellowrota.core.people.RoleId;
import mellowrota.core.work.RecordId;
import mellowrota.server.records.OpenableRecords;
import mellowrota.server.records.RecordAccess;
import mellowrota.server.records.store.RecordStore;
import mellowrota.server.sight.World;
import org.hibernate.query.NativeQuery;
import org.springframework.stereotype.Service;

/** Finds the work around today that somebody may open. */
@Service
@RequiredArgsConstructor
class TodayWork {

  private static final int DAYS_AHEAD = 14;
  private static final int MOST = 300;

  private static final String WANTS =
      """
       and sees.times and r.state in ('TENTATIVE', 'CONFIRMED') and (r.cant
        or r.due_at < :until
        or exists (select 1 from visit v where v.record = r.id and (
          v.ends >= :from and v.starts < :until
          or v.date_to > :today and v.date_from < :last)))
      """;

  private static final String IS_ON =
      """
       and sees.times and r.state in ('TENTATIVE', 'CONFIRMED', 'DONE')
        and exists (select 1 from assignment a where a.record = r.id and a.holder_kind = 'P'
          and a.holder = :me and a.role <> :informed)
        and (r.due_at >= :from and r.due_at < :until
          or r.due_at < :from and r.state <> 'DONE'
          or exists (select 1 from visit v where v.record = r.id and (
            v.ends >= :from and v.starts < :until
            or v.date_to > :today and v.date_from < :last)))
      """;

  private static final String STANDS_NOWHERE =
      """
       and (me.bits & 1) <> 0 and r.state in ('TENTATIVE', 'CONFIRMED')
        and not exists (select 1 from entry e where e.record = r.id and e.state <> 'GONE')
      """;

  private final RecordStore store;
  private final RecordAccess access;
  private final OpenableRecords opens;

  /** Open work that is due or begins before the next two weeks end, soonest first. */
  List<RecordAccess.Standing> wanting(World world, Person me) {
    return opened(world, me, soon(world, query(world, me, WANTS)));
  }

  /** Work of the next two weeks, and older that is not done, on which somebody is. */
  List<RecordAccess.Standing> of(World world, Person me) {
    return opened(
        world,
        me,
        soon(world, query(world, me, IS_ON).setParameter("informed", RoleId.INFORMED.value())));
  }

  /** Work that is on no calendar and is no draft, for those who can do something about it. */
  List<RecordAccess.Standing> nowhere(World world, Person me) {
    return opened(world, me, query(world, me, STANDS_NOWHERE));
  }

  private NativeQuery<Long> query(World world, Person me, String condition) {
    return opens
        .query(
            Long.class,
            "select r.id from"
                + OpenableRecords.RECORDS
                + OpenableRecords.SEEN
                + " where"
                + OpenableRecords.MAY_OPEN
                + condition
                + " order by r.sorts_at, r.id limit :most",
            world,
            me)
        .setParameter("most", MOST);
  }

  private List<RecordAccess.Standing> opened(World world, Person me, NativeQuery<Long> query) {
    return standings(world, me, query.getResultList().stream().map(RecordId::of).toList());
  }

  /** With what begins or is due in the days that are told. */
  private static NativeQuery<Long> soon(World world, NativeQuery<Long> query) {
    ZoneId zone = world.house().zone();
    LocalDate today = world.day();
    LocalDate last = today.plusDays(DAYS_AHEAD);
    return query
        .setParameter("from", midnight(today, zone))
        .setParameter("until", midnight(last, zone))
        .setParameter("today", today)
        .setParameter("last", last);
  }

  private static Instant midnight(LocalDate day, ZoneId zone) {
    return day.atStartOfDay(zone).toInstant();
  }

  /** Where somebody stands before these, as far as they may open them. */
  List<RecordAccess.Standing> standings(World world, Person me, List<RecordId> ids) {
    return access.standings(world, me, store.load(ids, false)).stream()
        .filter(RecordAccess.Standing::opens)
        .toList();
  }
}
