package mellowrota.server.links;

import java.time.Clock;
import java.time.ZoneOffset;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Ends links once nothing of ours stands there any more. */
@Component
class Endings {

  private final JdbcClient jdbc;
  private final Clock clock;

  Endings(JdbcClient jdbc, Clock clock) {
    this.jdbc = jdbc;
    this.clock = clock;
  }

  /** Its password goes with it. */
  @Transactional
  public void some() {
    jdbc.sql(
            """
            with ended as (
            update link k set ended_at = ?, sealed = ''::bytea where k.ends_at is not null
              and k.ended_at is null and not exists (
                select 1 from link_calendar l left join rendering r on r.id = l.rendering
                  left join calendar c on c.id = r.calendar where l.link = k.id
                  and (c.change_no > l.seen_no or exists (select 1 from copy p
                    where p.link_calendar = l.id and p.state <> 'OFF')))
              returning k.id)
            update link_calendar set open = false where link in (select id from ended)
            """)
        .param(clock.instant().atOffset(ZoneOffset.UTC))
        .update();
  }
}
