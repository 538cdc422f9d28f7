package mellowrota.server.crew.store;

import jakarta.persistence.EntityManager;
import java.time.Clock;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import lombok.RequiredArgsConstructor;
import mellowrota.core.calendar.House;
import mellowrota.core.calendar.Level;
import mellowrota.core.people.Membership;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.Role;
import mellowrota.core.people.Team;
import mellowrota.core.time.WorkingWeek;
import mellowrota.core.work.Place;
import mellowrota.server.acts.HouseLock;
import mellowrota.server.crew.Weeks;
import org.hibernate.Session;
import org.springframework.stereotype.Repository;

/** The house as it is kept, with its crew as the core's own types. */
@Repository
@RequiredArgsConstructor
public class HouseStore implements HouseLock {

  private final EntityManager kept;
  private final Persons persons;
  private final Teams teams;
  private final Places places;
  private final Clock clock;

  /** Who decides where people's work is copied. */
  public enum DecidedBy {
    PEOPLE,
    HOUSE
  }

  /** What a new house is laid with. */
  public record Beginning(
      String seed, String name, ZoneId zone, String incarnation, boolean demo) {}

  /**
   * How copies go out and outside calendars are read.
   *
   * @param held since a restore nothing goes out until somebody lets it
   * @param waits from the last change, in seconds
   * @param readingInterval in seconds
   */
  public record Copying(boolean held, int waits, int readingInterval, DecidedBy decidedBy) {}

  /**
   * How cover reckons.
   *
   * @param periodWeeks over how many weeks hours are counted together; 0: not
   * @param travelSpeed in kilometres an hour, as the crow flies
   */
  public record Reckoning(DayOfWeek weekBegins, int periodWeeks, double travelSpeed) {}

  /** What coordinators settle; what is empty stays. */
  public record Change(
      Optional<String> name,
      Optional<WorkingWeek> week,
      Optional<Level> outsideLimit,
      Optional<String> outsideReason,
      Optional<Boolean> trustsOwnFeeds,
      Optional<Integer> copiesWait,
      Optional<Integer> readingInterval,
      Optional<DecidedBy> decidedBy) {}

  /** Native: HQL locks rows and no single columns, and every act begins with it. */
  @Override
  public long lock(boolean alone) {
    return kept.unwrap(Session.class)
        .createNativeQuery(
            alone
                ? "select world_version from house for no key update"
                : "select world_version from house for share",
            Long.class)
        .getSingleResult();
  }

  private HouseEntity entity() {
    return kept.find(HouseEntity.class, true);
  }

  public House house() {
    return entity().house();
  }

  public boolean exists() {
    return entity() != null;
  }

  public boolean isDemo() {
    return exists() && entity().demo;
  }

  public String incarnation() {
    return entity().incarnation;
  }

  /** Lays it, with the day for which nothing has to be projected. */
  public void lay(Beginning beginning, LocalDate today) {
    kept.persist(new HouseEntity(beginning));
    kept.persist(new HouseDayEntity(today));
    kept.flush();
  }

  /** The version of the world, and today in the house's zone. */
  public record Present(long worldVersion, LocalDate today) {}

  /** Both in one reading of what stands there now, since every request asks. */
  public Present present() {
    record Row(long worldVersion, String zone) {}
    Row row =
        kept.createQuery("select worldVersion, zone from HouseEntity", Row.class).getSingleResult();
    return new Present(row.worldVersion(), todayIn(ZoneId.of(row.zone())));
  }

  public long raiseWorldVersion() {
    kept.createQuery("update HouseEntity set worldVersion = worldVersion + 1").executeUpdate();
    return present().worldVersion();
  }

  /** The day for which entries were last projected. */
  public LocalDate projectedDay() {
    return kept.createQuery("select projected from HouseDayEntity", LocalDate.class)
        .getSingleResult();
  }

  public void setProjectedDay(LocalDate day) {
    kept.find(HouseDayEntity.class, true).projected = day;
  }

  /** Today in a zone that is known. */
  public LocalDate todayIn(ZoneId zone) {
    return LocalDate.ofInstant(clock.instant(), zone);
  }

  /** Today in the house's zone. */
  public LocalDate today() {
    return present().today();
  }

  /** Why readers who are neither crew nor office see no more than the limit. */
  public String outsideReason() {
    return entity().outsideReason;
  }

  public void change(Change change) {
    HouseEntity house = entity();
    change.name().ifPresent(name -> house.name = name);
    change.week().ifPresent(week -> house.week = Weeks.kept(week));
    change.outsideLimit().ifPresent(limit -> house.outsideLimit = limit);
    change.outsideReason().ifPresent(reason -> house.outsideReason = reason);
    change.trustsOwnFeeds().ifPresent(trusts -> house.trustsOwnFeeds = trusts);
    change.copiesWait().ifPresent(wait -> house.copiesWait = wait);
    change.readingInterval().ifPresent(interval -> house.readingInterval = interval);
    change.decidedBy().ifPresent(by -> house.linksDecidedBy = by);
  }

  public Copying copying() {
    return kept
        .createQuery(
            """
            select copiesHeld, copiesWait, readingInterval, linksDecidedBy from HouseEntity
            """,
            Copying.class)
        .getResultList()
        .stream()
        .findFirst()
        // Nothing goes out of a house that is not laid yet.
        .orElse(new Copying(true, 0, 0, DecidedBy.PEOPLE));
  }

  /** Lets copies go out again. */
  public void letCopiesGo() {
    entity().copiesHeld = false;
  }

  /** Why nobody words titles of their own; empty: they do. */
  public Optional<String> titlesFixed() {
    return Optional.ofNullable(entity().titlesFixed);
  }

  public void fixTitles(Optional<String> why) {
    entity().titlesFixed = why.orElse(null);
  }

  /** The wording of what no rule words. */
  public Optional<Long> fallbackWording() {
    return Optional.ofNullable(entity().fallbackWording);
  }

  public void fallBackOn(long wording) {
    entity().fallbackWording = wording;
  }

  public Reckoning reckoning() {
    HouseEntity house = entity();
    return new Reckoning(house.weekBegins, house.periodWeeks, house.travelSpeed);
  }

  /** What is empty stays. */
  public void reckon(
      Optional<DayOfWeek> weekBegins, Optional<Integer> periodWeeks, Optional<Double> travelSpeed) {
    HouseEntity house = entity();
    travelSpeed.ifPresent(speed -> house.travelSpeed = speed);
    weekBegins.ifPresent(day -> house.weekBegins = day);
    periodWeeks.ifPresent(weeks -> house.periodWeeks = weeks);
  }

  /** In which region its office lies. */
  public Optional<Long> region() {
    return Optional.ofNullable(entity().region);
  }

  public void setRegion(Optional<Long> region) {
    entity().region = region.orElse(null);
  }

  /** What was done until this act counts as seen by everybody. */
  public long seenUntil() {
    return entity().seenUntil;
  }

  public void setSeenUntil(long act) {
    entity().seenUntil = act;
  }

  /** Whether an account of this person may be used: they are there and have not left. */
  public boolean mayEnter(PersonId person) {
    return persons.find(person).filter(HouseStore::mayEnter).isPresent();
  }

  /** Whether an account of somebody may be used. */
  public static boolean mayEnter(Person person) {
    return !person.hasLeft() && person.right() != Person.AccountRight.NONE;
  }

  public List<Person> people() {
    return persons.all();
  }

  public List<Team> teams() {
    return teams.all().stream().map(Teams.Coloured::team).toList();
  }

  public List<Membership> memberships() {
    return teams.members().stream().map(Teams.Member::in).toList();
  }

  public List<Place> places() {
    return places.all();
  }

  public List<Role> roles() {
    return persons.roles();
  }
}
