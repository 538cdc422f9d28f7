package mellowrota.server.calendars;

import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;

/** Sees to it that everybody, every team and every place has a calendar, named after them. */
@Service
public class CalendarKeeper {

  private final JdbcClient jdbc;

  CalendarKeeper(JdbcClient jdbc) {
    this.jdbc = jdbc;
  }

  /** Makes what is missing and follows new names; names are unique, so equal ones get a number. */
  public void keep() {
    jdbc.sql(
            """
            insert into calendar (sort, person, name)
            select 'OWN', p.id, p.name || ', own' || case when exists (
                select 1 from person q where q.name = p.name and q.id <> p.id)
              then ' (' || p.id || ')' else '' end
            from person p where not exists (select 1 from calendar c where c.person = p.id)
            """)
        .update();
    jdbc.sql(
            """
            insert into calendar (sort, team, name)
            select 'TEAM', t.id, t.name || ', team' from team t
            where not exists (select 1 from calendar c where c.team = t.id)
            """)
        .update();
    jdbc.sql(
            """
            insert into calendar (sort, place, name)
            select 'PLACE', p.id, p.name || ', place' from place p
            where not exists (select 1 from calendar c where c.place = p.id)
            """)
        .update();
    jdbc.sql(
            """
            update calendar c set name = w.name from (
              select c.id, p.name || ', own' || case when exists (
                  select 1 from person q where q.name = p.name and q.id <> p.id)
                then ' (' || p.id || ')' else '' end as name
              from calendar c join person p on p.id = c.person
              union all select c.id, t.name || ', team' from calendar c join team t on t.id = c.team
              union all select c.id, p.name || ', place' from calendar c join place p on p.id = c.place
            ) w where w.id = c.id and w.name <> c.name
            """)
        .update();
    jdbc.sql(
            """
            insert into rendering (calendar, way)
            select c.id, 'MEMBERS' from calendar c
            where not exists (select 1 from rendering r where r.calendar = c.id and r.way = 'MEMBERS')
            """)
        .update();
  }

  /** Makes a calendar that belongs to the house. */
  public long insert(String sort, String name) {
    return jdbc.sql("insert into calendar (sort, name) values (?, ?) returning id")
        .param(sort)
        .param(name)
        .query(Long.class)
        .single();
  }
}
