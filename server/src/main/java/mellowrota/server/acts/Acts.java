package mellowrota.server.acts;

import static mellowrota.server.platform.Words.say;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Clock;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.LongSupplier;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.PersonId;
import mellowrota.core.work.RecordId;
import mellowrota.server.acts.store.ActStore;
import mellowrota.server.platform.IdempotencyKey;
import mellowrota.server.platform.KeptSession;
import mellowrota.server.platform.Problem;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;

/** Does acts. */
@Service
@RequiredArgsConstructor
public class Acts {

  /** The actor of acts that nobody in particular did. */
  public static final long THE_HOUSE = 0;

  /** The channel of the notices that tell every server process what changed. */
  public static final String CHANNEL = "mellow_changes";

  private final TransactionTemplate transaction;
  private final KeptSession session;
  private final HouseLock house;
  private final ActStore store;
  private final Clock clock;
  private final ObjectProvider<Affected> affected;
  private final ObjectProvider<Leaving> leavings;
  private final ObjectProvider<ActWatcher> watchers;

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

    /** Under a key, by which it is done once. */
    public Wanted under(Optional<String> once) {
      return new Wanted(actor, kind, reason, once, body, undoes, changesWorld);
    }

    public Wanted because(String why) {
      return new Wanted(actor, kind, why, key, body, undoes, changesWorld);
    }

    private String bodyHash() {
      return hash(kind + '\n' + body);
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
    return transaction.execute(status -> once(asked, command));
  }

  private Done once(Wanted asked, Function<Act, String> command) {
    boolean looks = LookFirst.now();
    Wanted wanted = looks ? asked.under(Optional.empty()) : asked;
    String bodyHash = wanted.bodyHash();
    Instant at = clock.instant().truncatedTo(ChronoUnit.MICROS);
    long worldVersion = house.lock(wanted.changesWorld());
    Optional<Long> begun =
        store.begin(
            new ActStore.Beginning(
                at, wanted.actor(), wanted.kind(), wanted.key(), bodyHash, wanted.undoes()));
    if (begun.isEmpty()) {
      return firstAnswer(wanted, bodyHash);
    }
    Act act = new Act(begun.get(), at, wanted, worldVersion, looks);
    if (act.reason().isEmpty()) {
      act.because(ActHeader.reason());
    }
    if (wanted.changesWorld()) {
      affected.getObject().worldAboutToChange(act);
    }
    String answer = command.apply(act);
    // What is asked of the database from here on sees what the command changed.
    session.write();
    watchers.forEach(one -> one.watch(act));
    if (wanted.changesWorld()) {
      leavings.forEach(leaving -> leaving.end(act));
    }
    keepAnswerAndTell(act, answer);
    // Last, since it locks calendars that many acts touch until this one is committed.
    affected.getObject().bringUpToDate(act);
    session.write();
    boolean isOfRecords = !wanted.changesWorld() && !act.records().isEmpty();
    if (!isOfRecords && wanted.undoes().isEmpty() && store.settled(act.id())) {
      ActHeader.tellAfterCommit(act.id(), wanted.kind());
    }
    return new Done(act.id(), answer, false, act.entriesChanged(), act.calendarsChanged());
  }

  /**
   * Makes something by an act of its own, once under a key: under it again, the number of the first
   * is the answer.
   *
   * @param what what is made, as its act is called
   * @param body what was asked, so that the same key with something else is noticed
   * @param make answers the number of what it made
   */
  public long make(
      PersonId actor, IdempotencyKey key, String what, String body, LongSupplier make) {
    if (key.value().isEmpty() || LookFirst.now()) {
      return make.getAsLong();
    }
    Wanted wanted = Wanted.by(actor, what, key.value(), body);
    String bodyHash = wanted.bodyHash();
    return transaction.execute(
        status -> {
          // Nobody else does an act from here on, so that the last one is ours.
          house.lock(true);
          if (store.first(actor.value(), key.value().get()).isPresent()) {
            return Long.parseLong(firstAnswer(wanted, bodyHash).answer());
          }
          long made = make.getAsLong();
          session.write();
          store.keyLast(actor.value(), key.value().get(), bodyHash, String.valueOf(made));
          return made;
        });
  }

  /**
   * Goes on with an act that is too large for one transaction: another one under its number. The
   * house is locked as in every act, so that nothing changes the world meanwhile.
   */
  @Transactional
  public <T> T goOn(long act, Function<Act, T> step) {
    long version = house.lock(false);
    Instant at = clock.instant().truncatedTo(ChronoUnit.MICROS);
    Act going = new Act(act, at, Wanted.byTheHouse(""), version, false);
    T done = step.apply(going);
    session.write();
    return done;
  }

  /** Tells every process that the world is not what it was. */
  public void tellOfTheWorld() {
    store.tell(CHANNEL, List.of("world"));
  }

  private Done firstAnswer(Wanted wanted, String bodyHash) {
    Optional<ActStore.First> first = wanted.key().flatMap(key -> store.first(wanted.actor(), key));
    if (first.isEmpty()) {
      throw Problem.of(409, "already-undone", say("acts.this-was-already-undone"));
    }
    if (!first.get().bodyHash().equals(bodyHash)) {
      throw Problem.of(422, "key-reused", say("acts.this-idempotency-key-was"));
    }
    return new Done(first.get().id(), first.get().answer(), true, 0, 0);
  }

  private void keepAnswerAndTell(Act act, String answer) {
    List<String> notices = new ArrayList<>();
    for (RecordId record : act.records().keySet()) {
      notices.add(record.value() + ":" + act.changedBits(record));
    }
    if (act.worldChanged()) {
      notices.add("world");
    }
    store.answered(act.id(), answer, act.reason(), CHANNEL, notices);
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
