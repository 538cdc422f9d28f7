package mellowrota.server.links;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import mellowrota.core.people.Person;
import mellowrota.core.work.RecordId;
import mellowrota.server.ical.CopyText;
import mellowrota.server.records.RecordAccess;
import mellowrota.server.records.RecordStore;
import mellowrota.server.sight.World;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;

/**
 * What of ours stands in a link's calendars, as it was last seen, told as its asker may know it
 * now.
 */
@Component
class StandsThere {

  private final JdbcClient jdbc;
  private final RecordStore records;
  private final RecordAccess access;

  StandsThere(JdbcClient jdbc, RecordStore records, RecordAccess access) {
    this.jdbc = jdbc;
    this.records = records;
    this.access = access;
  }

  @Schema(name = "LinkStanding")
  record StandingView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String title,
      @Schema(
              requiredMode = Schema.RequiredMode.REQUIRED,
              description = "As it stands there; empty where that is not for the asker")
          String when) {}

  private record Kept(RecordId record, String uid, String stands) {}

  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  List<StandingView> of(World world, Person asker, LinkStore.Link link) {
    List<Kept> kept =
        jdbc.sql(
                """
                select e.record, e.uid, coalesce(c.stands, c.attempt) from copy c
                  join entry e on e.id = c.entry join link_calendar l on l.id = c.link_calendar
                where l.link = ? and coalesce(c.stands, c.attempt, '') <> '' order by e.starts, e.id
                """)
            .param(link.id())
            .query(
                (row, n) ->
                    new Kept(RecordId.of(row.getLong(1)), row.getString(2), row.getString(3)))
            .list();
    Map<RecordId, RecordAccess.Standing> towards = new LinkedHashMap<>();
    access
        .standings(
            world, asker, records.load(kept.stream().map(Kept::record).distinct().toList(), false))
        .forEach(one -> towards.put(one.record().id(), one));
    boolean own = link.person().filter(asker.id()::equals).isPresent();
    List<StandingView> told = new ArrayList<>();
    for (Kept one : kept) {
      RecordAccess.Standing standing = towards.get(one.record());
      String when =
          CopyText.read(one.stands(), one.uid(), world.house().zone())
              .filter(read -> own && standing.opens())
              .map(read -> Changes.words(read.content().times()))
              .orElse("");
      told.add(new StandingView(CopiesController.title(standing), when));
    }
    return told;
  }
}
