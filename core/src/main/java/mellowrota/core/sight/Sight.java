package mellowrota.core.sight;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.TreeSet;
import java.util.function.Predicate;
import mellowrota.core.calendar.Audience;
import mellowrota.core.calendar.Calendars;
import mellowrota.core.calendar.Level;
import mellowrota.core.entry.Entry;
import mellowrota.core.entry.EntryTimes;
import mellowrota.core.people.Capacities;
import mellowrota.core.people.Crew;
import mellowrota.core.people.ForSet;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.Team;
import mellowrota.core.rule.Places;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.Details;
import mellowrota.core.work.WorkRecord;

/** Chooses what an audience is shown of an entry (SIGHT 4 to 8, LANDING 16 to 25). */
public final class Sight {

  /** The title below level <i>all</i>, and where not even the ref may be shown. */
  public static final String BARE_TITLE = "Work";

  /** Stands for a value that whoever looks at somebody else's entry may not see. */
  public static final String COVERED = "••••";

  private final Crew crew;
  private final Calendars calendars;
  private final Places places;
  private final Details details;
  private final Wordings wordings;
  private final Permission permission;

  /** Decides whether somebody may see what a set is for; the control in tests allows all. */
  @FunctionalInterface
  public interface Permission {
    boolean allows(ForSet set, Capacities reader);
  }

  public Sight(Crew crew, Calendars calendars, Places places, Details details, Wordings wordings) {
    this(crew, calendars, places, details, wordings, ForSet::allows);
  }

  /** With another permission than the sets', for the control of the property. */
  public Sight(
      Crew crew,
      Calendars calendars,
      Places places,
      Details details,
      Wordings wordings,
      Permission permission) {
    this.crew = crew;
    this.calendars = calendars;
    this.places = places;
    this.details = details;
    this.wordings = wordings;
    this.permission = permission;
  }

  /** Why a detail is or is not shown: the first that holds. */
  public enum Status {
    SHOWN,
    NOT_ASKED,
    NOT_FOR_A_READER,
    DOES_NOT_APPLY,
    EMPTY
  }

  /**
   * One detail in one rendering.
   *
   * @param blocking a reader it is not for; empty where nobody by name is meant
   */
  public record Told(DetailKey detail, Status status, Optional<PersonId> blocking) {

    /** Whether it is asked for and allowed to the whole audience, filled or not (LANDING 20). */
    public boolean counts() {
      return status != Status.NOT_ASKED && status != Status.NOT_FOR_A_READER;
    }
  }

  /** Whether the reader may see the detail on this record. */
  public boolean allowed(Capacities reader, WorkRecord record, DetailKey detail) {
    return permission.allows(details.forWhom(record, detail), reader);
  }

  /** The face this audience gets; empty without readers or where times are not for all of them. */
  public Optional<Face> face(
      WorkRecord record, RecordReaders readers, Entry entry, Audience audience) {
    return face(record, readers, entry, audience, detail -> true);
  }

  /**
   * The same as somebody else may look at it: what this one may not see stands there covered,
   * filled or not.
   */
  public Optional<Face> faceBefore(
      Capacities asker, WorkRecord record, RecordReaders readers, Entry entry, Audience audience) {
    return face(record, readers, entry, audience, detail -> allowed(asker, record, detail));
  }

  private Optional<Face> face(
      WorkRecord record,
      RecordReaders readers,
      Entry entry,
      Audience audience,
      Predicate<DetailKey> uncovered) {
    if (audience.isEmpty()) {
      return Optional.empty();
    }
    List<Audience.Standing> standings = audience.on(readers);
    if (!allowedTo(standings, record, DetailKey.TIMES)) {
      return Optional.empty();
    }
    Level level = levelFor(standings, record);
    EntryTimes times =
        entry.bareTimes().isPresent() && !allowedTo(standings, record, DetailKey.MARGINS)
            ? entry.bareTimes().get()
            : entry.times();
    return Optional.of(
        level == Level.ALL
            ? worded(record, words(record, readers), entry, standings, times, uncovered)
            : bare(record, words(record, readers), entry, standings, times, level));
  }

  /** Whether both show the same to the same people, as far as wordings are the same. */
  public boolean readsAs(Sight other) {
    return details.all().equals(other.details.all())
        && places == other.places
        && permission == other.permission;
  }

  /** Whether both word an entry alike. */
  public boolean wordsAs(Sight other, WorkRecord record, Entry entry, Entry othersEntry) {
    return wordingOf(record, entry).readsAs(other.wordingOf(record, othersEntry));
  }

  private RecordWords words(WorkRecord record, RecordReaders readers) {
    return readers.words(() -> new RecordWords(record, crew, calendars, places, details));
  }

  /** The least of the readers' levels; without the right to open it, busy only (LANDING 16). */
  private static Level levelFor(List<Audience.Standing> standings, WorkRecord record) {
    Level least = Level.ALL;
    for (Audience.Standing standing : standings) {
      Capacities reader = standing.capacities();
      boolean opens = !record.isPrivate() || reader.isOffice() || reader.inARole();
      boolean full = standing.level() == Level.ALL;
      least = least.atMost(full && !opens ? Level.BUSY_ONLY : standing.level());
    }
    return least;
  }

  private boolean allowedTo(
      List<Audience.Standing> standings, WorkRecord record, DetailKey detail) {
    ForSet set = details.forWhom(record, detail);
    for (Audience.Standing standing : standings) {
      if (!permission.allows(set, standing.capacities())) {
        return false;
      }
    }
    return true;
  }

  private Face bare(
      WorkRecord record,
      RecordWords words,
      Entry entry,
      List<Audience.Standing> standings,
      EntryTimes times,
      Level level) {
    boolean place = level == Level.TIMES_AND_PLACE && allowedTo(standings, record, DetailKey.PLACE);
    return new Face(
        BARE_TITLE, place ? words.placeName().orElse("") : "", "", times, entry.marks(), List.of());
  }

  private Face worded(
      WorkRecord record,
      RecordWords words,
      Entry entry,
      List<Audience.Standing> standings,
      EntryTimes times,
      Predicate<DetailKey> uncovered) {
    Wording wording = wordingOf(record, entry);
    Pattern.Values values =
        (name, detail, format) -> {
          if (!allowedTo(standings, record, detail) || !details.applies(record, detail)) {
            return Optional.empty();
          }
          return uncovered.test(detail)
              ? words.value(entry, name, detail, format)
              : Optional.of(COVERED);
        };
    String title = wording.title().fill(values).replace('\n', ' ');
    if (title.isEmpty()) {
      title = allowedTo(standings, record, DetailKey.REF) ? record.ref() : BARE_TITLE;
    }
    return new Face(
        title,
        wording.place().fill(values).replace('\n', ' '),
        wording.text().fill(values),
        times,
        entry.marks(),
        categories(wording, record, standings));
  }

  private Wording wordingOf(WorkRecord record, Entry entry) {
    return calendars
        .find(entry.key().calendar())
        .map(calendar -> wordings.on(calendar.owner(), entry.wording(), record.kind()))
        .orElseGet(() -> wordings.of(entry.wording(), record.kind()));
  }

  /** Times need no asking; margins are asked for by the rule's shape. */
  private static boolean asksFor(Wording wording, Entry entry, DetailKey key) {
    if (key.equals(DetailKey.TIMES)) {
      return true;
    }
    if (key.equals(DetailKey.MARGINS)) {
      return entry.bareTimes().isPresent();
    }
    return wording.title().asksFor().contains(key)
        || wording.place().asksFor().contains(key)
        || wording.text().asksFor().contains(key);
  }

  private List<String> categories(
      Wording wording, WorkRecord record, List<Audience.Standing> standings) {
    List<String> found = new ArrayList<>(2);
    if (wording.categories().contains(Wording.Category.KIND)) {
      found.add(record.kind().word());
    }
    if (wording.categories().contains(Wording.Category.TEAM)
        && allowedTo(standings, record, DetailKey.TEAM)) {
      record.team().flatMap(crew::team).map(Team::name).ifPresent(found::add);
    }
    if (wording.categories().contains(Wording.Category.TAGS)
        && allowedTo(standings, record, DetailKey.TAGS)) {
      found.addAll(new TreeSet<>(record.tags()));
    }
    return found;
  }

  /** Every detail of the kind in this rendering, with why it is not shown. */
  public List<Told> explain(
      WorkRecord record, RecordReaders readers, Entry entry, Audience audience) {
    List<Audience.Standing> standings = audience.on(readers);
    Level level = levelFor(standings, record);
    Wording wording = wordingOf(record, entry);
    List<Told> told = new ArrayList<>();
    for (DetailDefinition definition : details.of(record.kind())) {
      DetailKey key = definition.key();
      boolean asked =
          level == Level.ALL
              ? asksFor(wording, entry, key)
              : key.equals(DetailKey.TIMES) || key.equals(DetailKey.PLACE);
      if (!asked) {
        told.add(new Told(key, Status.NOT_ASKED, Optional.empty()));
      } else if (!allowedTo(standings, record, key)
          || level == Level.BUSY_ONLY && key.equals(DetailKey.PLACE)) {
        told.add(new Told(key, Status.NOT_FOR_A_READER, blocking(record, readers, audience, key)));
      } else if (!definition.appliesTo(record)) {
        told.add(new Told(key, Status.DOES_NOT_APPLY, Optional.empty()));
      } else {
        boolean filled = isFilled(record, entry, key);
        told.add(new Told(key, filled ? Status.SHOWN : Status.EMPTY, Optional.empty()));
      }
    }
    return told;
  }

  private Optional<PersonId> blocking(
      WorkRecord record, RecordReaders readers, Audience audience, DetailKey key) {
    return audience.people().stream()
        .map(crew::person)
        .flatMap(Optional::stream)
        .filter(person -> !allowed(readers.of(person), record, key))
        .map(Person::id)
        .findFirst();
  }

  private boolean isFilled(WorkRecord record, Entry entry, DetailKey key) {
    if (key.equals(DetailKey.REF) || key.equals(DetailKey.TIMES)) {
      return true;
    }
    if (key.equals(DetailKey.PLACE)) {
      return record.place().isPresent();
    }
    if (key.equals(DetailKey.PEOPLE)) {
      return !record.on(entry.key().visit()).isEmpty();
    }
    if (key.equals(DetailKey.MARGINS)) {
      return entry.bareTimes().isPresent();
    }
    return record.text(key).isPresent();
  }
}
