package mellowrota.server.acts;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.ThreadLocalRandom;
import java.util.concurrent.locks.LockSupport;
import java.util.function.Function;
import mellowrota.core.people.PersonId;
import mellowrota.core.work.RecordId;
import mellowrota.server.platform.KeptSession;
import mellowrota.server.platform.Problem;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.dao.ConcurrencyFailureException;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import org.springframework.transaction.support.TransactionTemplate;

/** Does acts. */
@Service
public class Acts {

  /** The actor of acts that nobody in particular did. */
  public static final long THE_HOUSE = 0;

  /** The channel of the notices that tell every server process what changed. */
  public static final String CHANNEL = "mellow_changes";

  private static final Logger LOG = LoggerFactory.getLogger(Acts.class);
  private static final int MOST_TRIES = 6;
  private static final long LONGEST_PAUSE = 20_000_000;

  private final TransactionTemplate transaction;
  private final KeptSession session;
  private final JdbcClient jdbc;
  private final JdbcTemplate template;
  private final Clock clock;
  private final ObjectProvider<Affected> affected;
  private final ObjectProvider<Leaving> leavings;

  Acts(
      JdbcClient jdbc,
      JdbcTemplate template,
      Clock clock,
      ObjectProvider<Affected> affected,
      ObjectProvider<Leaving> leavings,
      KeptSession session,
      PlatformTransactionManager transactions) {
    this.session = session;
    transaction = new TransactionTemplate(transactions);
    this.leavings = leavings;
    this.jdbc = jdbc;
    this.template = template;
    this.clock = clock;
    this.affected = affected;
  }

  /**
   * What is asked for.
   *
   * @param key the caller's key (an Idempotency-Key); with the same key it is done once
   * @param body what was asked, so that the same key with something else is noticed
   */
  public record Wanted(
      long actor,
      String kind,
      String reason,
      Optional<String> key,
      String body,
      Optional<Long> undoes,
      boolean changesWorld) {

    public static Wanted by(PersonId actor, String kind, Optional<String> key, String body) {
      return new Wanted(actor.value(), kind, "", key, body, Optional.empty(), false);
    }

    /** An act that nobody in particular does. */
    public static Wanted byTheHouse(String kind) {
      return new Wanted(THE_HOUSE, kind, "", Optional.empty(), "", Optional.empty(), false);
    }

    /** It changes people, teams, places, rules or wordings; no other act runs meanwhile. */
    public Wanted changingTheWorld() {
      return new Wanted(actor, kind, reason, key, body, undoes, true);
    }

    Wanted withoutKey() {
      return new Wanted(actor, kind, reason, Optional.empty(), body, undoes, changesWorld);
    }

    public Wanted because(String why) {
      return new Wanted(actor, kind, why, key, body, undoes, changesWorld);
    }

    public Wanted undoing(long act) {
      return new Wanted(actor, kind, reason, key, body, Optional.of(act), changesWorld);
    }
  }

  /**
   * What was done.
   *
   * @param answer what the command answered the first time
   * @param again whether it had been done before under the same key
   */
  public record Done(long act, String answer, boolean again, long entries, int calendars) {}

  /**
   * Does it in one transaction: act, change, history, projection, entries; then tells the others.
   * The answer is short (ids, not values), since it is kept. Where others were in the way in the
   * database it is done anew from the beginning, the command too.
   */
  public Done run(Wanted asked, Function<Act, String> command) {
    for (int tried = 1; ; tried++) {
      try {
        return transaction.execute(status -> once(asked, command));
      } catch (ConcurrencyFailureException inTheWay) {
        if (tried == MOST_TRIES || TransactionSynchronizationManager.isActualTransactionActive()) {
          throw inTheWay;
        }
        LOG.info("an act is done anew kind={} tried={}", asked.kind(), tried);
        LockSupport.parkNanos(ThreadLocalRandom.current().nextLong(LONGEST_PAUSE) * tried);
      }
    }
  }

  private Done once(Wanted asked, Function<Act, String> command) {
    boolean looks = LookFirst.now();
    Wanted wanted = looks ? asked.withoutKey() : asked;
    String bodyHash = hash(wanted.kind() + '\n' + wanted.body());
    Instant at = clock.instant().truncatedTo(ChronoUnit.MICROS);
    Begun begun = begin(wanted, bodyHash, at);
    if (begun.id().isEmpty()) {
      return firstAnswer(wanted, bodyHash);
    }
    long id = begun.id().get();
    Act act = new Act(id, at, wanted, begun.worldVersion(), looks);
    if (wanted.changesWorld()) {
      affected.getObject().worldAboutToChange(act);
    }
    String answer = command.apply(act);
    // What is asked of the database from here on sees what the command changed.
    session.write();
    if (wanted.changesWorld()) {
      act.later().send(template);
      leavings.forEach(leaving -> leaving.end(act));
    }
    keepAnswerAndTell(act, answer);
    // Last, since it locks calendars that many acts touch until this one is committed.
    affected.getObject().bringUpToDate(act);
    act.later().send(template);
    if (act.records().isEmpty() && wanted.undoes().isEmpty() && settled(id)) {
      ActHeader.tellAfterCommit(id, wanted.kind());
    }
    return new Done(act.id(), answer, false, act.entriesChanged(), act.calendarsChanged());
  }

  /** Whether something was settled by it that can be taken back. */
  public boolean settled(long act) {
    return jdbc.sql("select exists (select 1 from act_row where act = ?)")
        .param(act)
        .query(Boolean.class)
        .single();
  }

  /**
   * Goes on with an act that is too large for one transaction: another one under its number. The
   * house is locked as in every act, so that nothing changes the world meanwhile.
   */
  @Transactional
  public <T> T goOn(long act, Function<Act, T> step) {
    long version = jdbc.sql("select world_version from house for share").query(Long.class).single();
    Instant at = clock.instant().truncatedTo(ChronoUnit.MICROS);
    Act going = new Act(act, at, Wanted.byTheHouse(""), version, false);
    T done = step.apply(going);
    session.write();
    going.later().send(template);
    return done;
  }

  /** Tells every process that the world is not what it was. */
  public void tellOfTheWorld() {
    jdbc.sql("select pg_notify(?, 'world')").param(CHANNEL).query().singleRow();
  }

  /** The act's number; none where its key was used before. */
  private record Begun(long worldVersion, Optional<Long> id) {}

  /**
   * Locks the house first (one lock order for all: the house, then records, then calendars), and
   * says which act is being done to what keeps its rows.
   */
  private Begun begin(Wanted wanted, String bodyHash, Instant at) {
    return jdbc.sql(
            """
            with house_now as (select world_version from house for %s),
              begun as (
                insert into act (at, actor, kind, idem_key, body_hash, undoes)
                select ?::timestamptz, ?::bigint, ?, ?, ?, ?::bigint from house_now
                on conflict do nothing returning id)
            select begun.id, world_version, set_config('mellow.act', begun.id::text, true)
            from house_now left join begun on true
            """
                .formatted(wanted.changesWorld() ? "update" : "share"))
        .param(at.atOffset(ZoneOffset.UTC))
        .param(wanted.actor())
        .param(wanted.kind())
        .param(wanted.key().orElse(null))
        .param(bodyHash)
        .param(wanted.undoes().orElse(null))
        .query(
            (row, n) ->
                new Begun(
                    row.getLong("world_version"),
                    Optional.ofNullable(row.getObject("id", Long.class))))
        .single();
  }

  private Done firstAnswer(Wanted wanted, String bodyHash) {
    record Row(long id, String bodyHash, String answer) {}
    Optional<Row> row =
        wanted
            .key()
            .flatMap(
                key ->
                    jdbc.sql(
                            "select id, body_hash, answer from act where actor = ? and idem_key = ?")
                        .param(wanted.actor())
                        .param(key)
                        .query(Row.class)
                        .optional());
    if (row.isEmpty()) {
      throw Problem.of(409, "already-undone", "This was undone already.");
    }
    if (!row.get().bodyHash().equals(bodyHash)) {
      throw Problem.of(
          422,
          "key-reused",
          "This Idempotency-Key was sent before with something else; use a new one.");
    }
    return new Done(row.get().id(), row.get().answer(), true, 0, 0);
  }

  private void keepAnswerAndTell(Act act, String answer) {
    List<String> notices = new ArrayList<>();
    for (RecordId record : act.records().keySet()) {
      notices.add(record.value() + ":" + act.changedBits(record));
    }
    if (act.worldChanged()) {
      notices.add("world");
    }
    act.later()
        .add(
            """
            update act set answer = ?, reason = ?
            from (select count(pg_notify(?, notice)) from unnest(?::text[]) notice) told
            where id = ?
            """,
            answer,
            act.reason(),
            CHANNEL,
            notices.toArray(String[]::new),
            act.id());
  }

  private static String hash(String text) {
    try {
      MessageDigest sha = MessageDigest.getInstance("SHA-256");
      return HexFormat.of().formatHex(sha.digest(text.getBytes(StandardCharsets.UTF_8)));
    } catch (NoSuchAlgorithmException impossible) {
      throw new IllegalStateException("every Java platform has SHA-256", impossible);
    }
  }
}
