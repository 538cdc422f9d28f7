package mellowrota.server.feeds;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.security.SecureRandom;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.Base64;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import mellowrota.core.calendar.Calendar;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.calendar.Level;
import mellowrota.core.calendar.RenderingId;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.server.acts.Act;
import mellowrota.server.acts.Acts;
import mellowrota.server.acts.Leaving;
import mellowrota.server.platform.Problem;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Makes and withdraws feeds. Anybody may pass an address on, so a feed is read by outside; a
 * person's feed of their own calendar is theirs alone where the house trusts that (SIGHT 1).
 */
@Service
class Feeds implements Leaving {

  private static final int MOST_OF_A_PERSON = 100;
  private static final int TOKEN_BYTES = 24;

  private final JdbcClient jdbc;
  private final Worlds worlds;
  private final Acts acts;
  private final Clock clock;
  private final SecureRandom random = new SecureRandom();

  Feeds(JdbcClient jdbc, Worlds worlds, Acts acts, Clock clock) {
    this.jdbc = jdbc;
    this.worlds = worlds;
    this.acts = acts;
    this.clock = clock;
  }

  /** A feed that was not withdrawn. Its address is known only to whoever was told it. */
  record Feed(
      long id,
      long calendar,
      String label,
      Level level,
      PersonId madeBy,
      Instant madeAt,
      Optional<LocalDate> until,
      Optional<Instant> lastUsedAt) {}

  /** The feeds a person may know of: their own, a coordinator all. */
  List<Feed> of(Person asker) {
    return jdbc.sql(
            """
            select f.id, r.calendar, f.label, r.level, f.made_by, f.made_at, f.until_day,
              f.last_used_at
            from feed f join rendering r on r.id = f.rendering
            where f.withdrawn_at is null and (:all or f.made_by = :me) order by f.id
            """)
        .param("all", asker.isCoordinator())
        .param("me", asker.id().value())
        .query(
            (row, n) ->
                new Feed(
                    row.getLong(1),
                    row.getLong(2),
                    row.getString(3),
                    Level.valueOf(row.getString(4)),
                    PersonId.of(row.getLong(5)),
                    row.getObject(6, OffsetDateTime.class).toInstant(),
                    Optional.ofNullable(row.getObject(7, LocalDate.class)),
                    Optional.ofNullable(row.getObject(8, OffsetDateTime.class))
                        .map(OffsetDateTime::toInstant)))
        .list();
  }

  /** Makes one and gives its token, which is not kept. */
  String make(
      PersonId maker, CalendarId calendar, Level level, String label, Optional<LocalDate> until) {
    byte[] bytes = new byte[TOKEN_BYTES];
    random.nextBytes(bytes);
    String token = Base64.getUrlEncoder().withoutPadding().encodeToString(bytes);
    acts.run(
        Acts.Wanted.by(maker, "feed.make", Optional.empty(), "").changingTheWorld(),
        act -> {
          World world = worlds.now();
          Person person = world.person(maker);
          Calendar of = world.calendars().find(calendar).orElseThrow(Problem::notFound);
          boolean own = of.owner() instanceof Calendar.Owner.Own o && o.person().equals(maker);
          if (!own && !person.isCoordinator()) {
            throw Problem.forbidden(
                "You may make feeds of your own calendar; others are made by coordinators.");
          }
          if (of(person).size() >= MOST_OF_A_PERSON && !person.isCoordinator()) {
            throw Problem.of(429, "too-many-feeds", "Withdraw some of your other feeds first.");
          }
          long rendering =
              jdbc.sql(
                      "insert into rendering (calendar, way, reader, level) values (?, ?, ?, ?) returning id")
                  .param(calendar.value())
                  .param(own ? "OWN_FEED" : "FEED")
                  .param(own ? maker.value() : null)
                  .param(level.name())
                  .query(Long.class)
                  .single();
          jdbc.sql(
                  """
                  insert into feed (token_hash, rendering, label, made_by, made_at, until_day)
                  values (?, ?, ?, ?, ?, ?)
                  """)
              .param(hash(token))
              .param(rendering)
              .param(label)
              .param(maker.value())
              .param(act.at().atOffset(ZoneOffset.UTC))
              .param(until.orElse(null))
              .update();
          return "";
        });
    return token;
  }

  /** Withdraws one; from then on its address answers as one that never was. */
  void withdraw(PersonId asker, long feed) {
    acts.run(
        Acts.Wanted.by(asker, "feed.withdraw", Optional.empty(), "").changingTheWorld(),
        act -> {
          Person person = worlds.now().person(asker);
          if (of(person).stream().noneMatch(one -> one.id() == feed)) {
            throw Problem.notFound();
          }
          jdbc.sql("update feed set withdrawn_at = ? where id = ?")
              .param(act.at().atOffset(ZoneOffset.UTC))
              .param(feed)
              .update();
          jdbc.sql(
                  """
                  update rendering set way = 'WITHDRAWN'
                  where id = (select rendering from feed where id = ?)
                  """)
              .param(feed)
              .update();
          return "";
        });
  }

  @Override
  public void end(Act act) {
    jdbc.sql(
            """
            with gone as (
              update feed set withdrawn_at = ? where withdrawn_at is null
                and made_by in (select id from person where standing = 'LEFT')
              returning rendering, label, until_day)
            update rendering r set way = 'WITHDRAWN' from gone where r.id = gone.rendering
            returning gone.label, r.calendar, r.level, gone.until_day
            """)
        .param(act.at().atOffset(ZoneOffset.UTC))
        .query(
            (row, n) ->
                new Ended(
                    Sort.FEED,
                    row.getString(1),
                    Optional.of(CalendarId.of(row.getLong(2))),
                    Optional.empty(),
                    Optional.of(Level.valueOf(row.getString(3))),
                    Optional.ofNullable(row.getObject(4, LocalDate.class))))
        .list()
        .forEach(act::ends);
  }

  /** The rendering behind an address; its use is noted, to the minute. */
  @Transactional
  Optional<RenderingId> open(String token) {
    Instant now = clock.instant();
    String hash = hash(token);
    Optional<RenderingId> found =
        jdbc.sql(
                """
                select rendering from feed where token_hash = ? and withdrawn_at is null
                  and (until_day is null or until_day > ?)
                """)
            .param(hash)
            .param(worlds.now().day())
            .query((row, n) -> RenderingId.of(row.getLong(1)))
            .optional();
    if (found.isPresent()) {
      jdbc.sql(
              """
              update feed set last_used_at = :now where token_hash = :hash
                and (last_used_at is null or last_used_at < :before)
              """)
          .param("now", now.atOffset(ZoneOffset.UTC))
          .param("hash", hash)
          .param("before", now.minusSeconds(60).atOffset(ZoneOffset.UTC))
          .update();
    }
    return found;
  }

  private static String hash(String token) {
    try {
      return HexFormat.of()
          .formatHex(
              MessageDigest.getInstance("SHA-256").digest(token.getBytes(StandardCharsets.UTF_8)));
    } catch (NoSuchAlgorithmException impossible) {
      throw new IllegalStateException("every Java platform has SHA-256", impossible);
    }
  }
}
