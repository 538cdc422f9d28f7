package mellowrota.server.feeds;

import static mellowrota.server.platform.Words.say;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.security.SecureRandom;
import java.time.Clock;
import java.time.LocalDate;
import java.util.Base64;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import lombok.RequiredArgsConstructor;
import mellowrota.core.calendar.Calendar;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.calendar.Level;
import mellowrota.core.calendar.Rendering;
import mellowrota.core.calendar.RenderingId;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.server.acts.Act;
import mellowrota.server.acts.Acts;
import mellowrota.server.acts.Leaving;
import mellowrota.server.crew.store.Persons;
import mellowrota.server.feeds.store.FeedStore;
import mellowrota.server.platform.IdempotencyKey;
import mellowrota.server.platform.Problem;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import mellowrota.server.sight.store.CalendarStore;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Makes and withdraws feeds. Anybody may pass an address on, so a feed is read by outside; a
 * person's feed of their own calendar is theirs alone where the house trusts that (SIGHT 1).
 */
@Service
@RequiredArgsConstructor
class Feeds implements Leaving {

  private static final int MOST_OF_A_PERSON = 100;
  private static final int TOKEN_BYTES = 24;

  private final FeedStore store;
  private final CalendarStore calendars;
  private final Persons persons;
  private final Worlds worlds;
  private final Acts acts;
  private final Clock clock;
  private final SecureRandom random = new SecureRandom();

  /** The feeds a person may know of: their own, a coordinator all. */
  List<FeedStore.Feed> of(Person asker) {
    return store.open(asker.isCoordinator() ? Optional.empty() : Optional.of(asker.id()));
  }

  /** Makes one and gives its token, which is not kept. */
  String make(
      PersonId maker,
      IdempotencyKey key,
      CalendarId calendar,
      Level level,
      String label,
      Optional<LocalDate> until) {
    String token = token();
    String asked = String.join("\n", calendar.toString(), level.name(), label, until.toString());
    Acts.Done done =
        acts.run(
            Acts.Wanted.by(maker, "feed.make", key.value(), asked).changingTheWorld(),
            act -> {
              World world = worlds.now();
              Person person = world.person(maker);
              Calendar of = world.calendars().find(calendar).orElseThrow(Problem::notFound);
              boolean own = of.owner() instanceof Calendar.Owner.Own o && o.person().equals(maker);
              if (!own && !person.isCoordinator()) {
                throw Problem.forbidden(say("feeds.you-can-create-secret"));
              }
              if (of(person).size() >= MOST_OF_A_PERSON && !person.isCoordinator()) {
                throw Problem.of(429, "too-many-feeds", say("feeds.delete-some-of-your"));
              }
              Rendering.Way way =
                  own ? new Rendering.Way.OwnFeed(maker, level) : new Rendering.Way.Feed(level);
              store.add(hash(token), calendars.let(calendar, way, until), label, maker, act.at());
              return "";
            });
    if (done.again()) {
      throw Problem.of(409, "told-once", say("feeds.this-secret-address-was"));
    }
    return token;
  }

  /** Withdraws one; from then on its address answers as one that never was. */
  void withdraw(PersonId asker, long feed) {
    acts.run(
        Acts.Wanted.by(asker, "feed.withdraw", Optional.empty(), "").changingTheWorld(),
        act -> {
          Person person = worlds.now().person(asker);
          FeedStore.Feed known =
              of(person).stream()
                  .filter(one -> one.id() == feed)
                  .findFirst()
                  .orElseThrow(Problem::notFound);
          withdraw(act, known);
          return "";
        });
  }

  private void withdraw(Act act, FeedStore.Feed feed) {
    store.withdraw(feed.id(), act.at());
    calendars.withdraw(feed.rendering());
  }

  @Override
  public void end(Act act) {
    Set<PersonId> left = persons.left();
    for (FeedStore.Feed one : store.open(Optional.empty())) {
      if (left.contains(one.madeBy())) {
        withdraw(act, one);
        act.ends(
            new Ended(
                Sort.FEED,
                one.label(),
                Optional.of(one.calendar()),
                Optional.empty(),
                Optional.of(one.level()),
                one.until()));
      }
    }
  }

  /** The rendering behind an address; its use is noted, to the minute. */
  @Transactional
  Optional<RenderingId> open(String token) {
    String hash = hash(token);
    Optional<RenderingId> found =
        store.find(hash).filter(one -> worlds.now().calendars().rendering(one).isPresent());
    found.ifPresent(one -> store.used(hash, clock.instant()));
    return found;
  }

  private String token() {
    byte[] bytes = new byte[TOKEN_BYTES];
    random.nextBytes(bytes);
    return Base64.getUrlEncoder().withoutPadding().encodeToString(bytes);
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
