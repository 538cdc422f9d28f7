package mellowrota.server.links;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import mellowrota.core.people.PersonId;
import mellowrota.core.sync.Deciding;
import mellowrota.server.crew.store.HouseStore;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Keeps in force whoever decides in which outside calendars somebody's own is copied. */
@Component
class Deciders {

  private final CopyStore copies;
  private final HouseStore house;
  private final JdbcClient jdbc;

  Deciders(CopyStore copies, HouseStore house, JdbcClient jdbc) {
    this.house = house;
    this.copies = copies;
    this.jdbc = jdbc;
  }

  private record Row(long person, long id, boolean ofTheHouse, boolean overruled, boolean open) {}

  /** By person, whose word holds; who is not named has nothing linked. */
  Map<PersonId, Deciding> all() {
    Map<PersonId, Deciding> found = new LinkedHashMap<>();
    boolean locked = isLocked();
    rows()
        .forEach(
            (person, rows) -> found.put(PersonId.of(person), Deciding.of(locked, outlets(rows))));
    return found;
  }

  /** Whether the house keeps it to itself. */
  boolean isLocked() {
    return house.copying().decidedBy() == HouseStore.DecidedBy.HOUSE;
  }

  private static List<Deciding.Outlet> outlets(List<Row> rows) {
    return rows.stream()
        .map(row -> new Deciding.Outlet(row.id(), row.ofTheHouse(), !row.open(), row.overruled()))
        .toList();
  }

  private Map<Long, List<Row>> rows() {
    Map<Long, List<Row>> found = new LinkedHashMap<>();
    jdbc.sql(
            """
            select c.person, l.id, k.person is null as of_the_house, l.overruled,
              l.read_at is null or c.change_no > l.seen_no or exists (select 1 from copy p
                where p.link_calendar = l.id and p.due_at is not null) as open
            from link_calendar l join link k on k.id = l.link
              join rendering r on r.id = l.rendering join calendar c on c.id = r.calendar
            where k.ended_at is null and k.ends_at is null and r.way = 'COPY'
              and c.person is not null
            order by c.person, l.id
            """)
        .query(Row.class)
        .list()
        .forEach(row -> found.computeIfAbsent(row.person(), key -> new ArrayList<>()).add(row));
    return found;
  }

  /** Takes out what is overruled by now, and lets in what no longer is. */
  @Transactional
  public void some() {
    boolean locked = isLocked();
    for (List<Row> rows : rows().values()) {
      Deciding now = Deciding.of(locked, outlets(rows));
      for (Row row : rows) {
        boolean overruled = now.overruled().contains(row.id());
        if (overruled != row.overruled()) {
          jdbc.sql("update link_calendar set overruled = ?, seen_no = 0 where id = ?")
              .param(overruled)
              .param(row.id())
              .update();
          copies.openAnew(row.id());
        }
      }
    }
  }
}
