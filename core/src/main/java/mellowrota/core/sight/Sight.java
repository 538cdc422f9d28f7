package mellowrota.core.sight;

import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.stream.Stream;
import mellowrota.core.calendar.Audience;
import mellowrota.core.calendar.Calendar;
import mellowrota.core.calendar.Calendars;
import mellowrota.core.calendar.Level;
import mellowrota.core.entry.Attendees;
import mellowrota.core.entry.Entry;
import mellowrota.core.entry.EntryTimes;
import mellowrota.core.people.Capacities;
import mellowrota.core.people.Crew;
import mellowrota.core.people.ForSet;
import mellowrota.core.people.Holder;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.RoleId;
import mellowrota.core.people.Team;
import mellowrota.core.rule.Places;
import mellowrota.core.time.WorkingDays;
import mellowrota.core.work.Assignment;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.Details;
import mellowrota.core.work.Place;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.Position;
import mellowrota.core.work.WorkRecord;

/** Chooses what an audience is shown of an entry (SIGHT 4 to 8, LANDING 16 to 25). */
public final class Sight {

  /** The title below level <i>all</i>, and where not even the ref may be shown. */
  public static final String BARE_TITLE = "Work";

  /** Stands for a value that whoever looks at somebody else's entry may not see. */
  public static final String COVERED = "••••";

  /** Covers nothing: as the audience itself gets it. */
  public static final Predicate<DetailKey> UNCOVERED = detail -> true;

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

  /** The details that the record's kind has. */
  public Stream<DetailKey> details(WorkRecord record) {
    return details.of(record.kind()).stream().map(DetailDefinition::key);
  }

  /** The face this audience gets; empty without readers or where times are not for all of them. */
  public Optional<Face> face(
      WorkRecord record, RecordReaders readers, Entry entry, Audience audience) {
    return face(record, readers, entry, audience, UNCOVERED);
  }

  /** The same as somebody else looks at it: the details not named stand there covered. */
  public Optional<Face> face(
      WorkRecord record,
      RecordReaders readers,
      Entry entry,
      Audience audience,
      Predicate<DetailKey> uncovered) {
    return face(new Present(record, readers, entry), record, readers, audience, uncovered);
  }

  /**
   * The same as others may look at it: what one of them may not see stands there covered, filled or
   * not.
   */
  public Optional<Face> faceBefore(
      List<Capacities> askers,
      WorkRecord record,
      RecordReaders readers,
      Entry entry,
      Audience audience) {
    Present present = new Present(record, readers, entry);
    return face(present, record, readers, audience, detail -> isForAll(present, detail, askers));
  }

  /** The face this audience keeps until the next yes; what is not uncovered stands covered. */
  public Optional<Face> face(
      WorkRecord record,
      RecordReaders readers,
      Released released,
      Audience audience,
      Predicate<DetailKey> uncovered) {
    return face(new Past(record, released), record, readers, audience, uncovered);
  }

  /** The same as somebody else may look at it. */
  public Optional<Face> faceBefore(
      List<Capacities> askers,
      WorkRecord record,
      RecordReaders readers,
      Released released,
      Audience audience) {
    Past past = new Past(record, released);
    return face(past, record, readers, audience, detail -> isForAll(past, detail, askers));
  }

  private static boolean isForAll(Said said, DetailKey detail, List<Capacities> askers) {
    return askers.stream().allMatch(asker -> said.isFor(detail, asker));
  }

  private Optional<Face> face(
      Said said,
      WorkRecord record,
      RecordReaders readers,
      Audience audience,
      Predicate<DetailKey> uncovered) {
    if (audience.isEmpty()) {
      return Optional.empty();
    }
    List<Audience.Standing> standings = audience.on(readers);
    if (!allowedTo(standings, said, DetailKey.TIMES)) {
      return Optional.empty();
    }
    Level level = levelFor(standings, record);
    Entry entry = said.entry();
    EntryTimes times =
        entry.bareTimes().isPresent() && !allowedTo(standings, said, DetailKey.MARGINS)
            ? entry.bareTimes().get()
            : entry.times();
    return Optional.of(
        level == Level.ALL
            ? worded(said, standings, times, uncovered)
            : bare(said, standings, times, level));
  }

  /** What an entry says now, to be kept when somebody says yes to it. */
  public Released released(WorkRecord record, RecordReaders readers, Entry entry) {
    Present present = new Present(record, readers, entry);
    List<Released.Value> values = new ArrayList<>();
    Pattern.Values keeping =
        (name, detail, format) -> {
          Optional<String> words = present.value(name, detail, format);
          Released.Value value = new Released.Value(name, detail, Released.called(format), words);
          if (!values.contains(value)) {
            values.add(value);
          }
          return words;
        };
    present.title().fill(keeping);
    present.place().fill(keeping);
    present.text().fill(keeping);
    Set<DetailKey> used = new HashSet<>(present.wording.asksFor());
    used.addAll(
        List.of(
            DetailKey.REF,
            DetailKey.PLACE,
            DetailKey.TIMES,
            DetailKey.MARGINS,
            DetailKey.PEOPLE,
            DetailKey.TEAM,
            DetailKey.TAGS));
    Map<DetailKey, ForSet> sets = new HashMap<>();
    used.forEach(detail -> sets.put(detail, details.forWhom(record, detail)));
    return new Released(
        entry,
        present.title().toString(),
        present.place().toString(),
        present.text().toString(),
        values,
        record.ref(),
        present.placeName(),
        present.categories(),
        present.attendees(),
        sets);
  }

  /** The details that the readers see of what was released; covered ones as if they were filled. */
  public Set<DetailKey> shown(
      WorkRecord record,
      RecordReaders readers,
      Released released,
      Audience audience,
      Predicate<DetailKey> uncovered) {
    List<Audience.Standing> standings = audience.on(readers);
    Level level = levelFor(standings, record);
    Past past = new Past(record, released);
    Set<DetailKey> found = new TreeSet<>(released.filled());
    released.sets().keySet().stream().filter(uncovered.negate()).forEach(found::add);
    if (level != Level.ALL) {
      found.clear();
      found.add(DetailKey.TIMES);
      if (level == Level.TIMES_AND_PLACE && released.placeName().isPresent()) {
        found.add(DetailKey.PLACE);
      }
    }
    found.removeIf(detail -> !allowedTo(standings, past, detail));
    return found;
  }

  /** As the record is. */
  private final class Present implements Said {
    private final WorkRecord record;
    private final RecordWords words;
    private final Entry entry;
    private final Wording wording;

    Present(WorkRecord record, RecordReaders readers, Entry entry) {
      this.record = record;
      this.words = readers.words(() -> new RecordWords(record, crew, calendars, places, details));
      this.entry = entry;
      wording = wordingOf(record, entry);
    }

    @Override
    public Entry entry() {
      return entry;
    }

    @Override
    public boolean isFor(DetailKey detail, Capacities reader) {
      return permission.allows(details.forWhom(record, detail), reader);
    }

    @Override
    public Pattern title() {
      return wording.title();
    }

    @Override
    public Pattern place() {
      return wording.place();
    }

    @Override
    public Pattern text() {
      return wording.text();
    }

    @Override
    public Optional<String> value(
        String name, DetailKey detail, Optional<DateTimeFormatter> format) {
      return details.applies(record, detail)
          ? words.value(entry, name, detail, format)
          : Optional.empty();
    }

    @Override
    public String ref() {
      return record.ref();
    }

    @Override
    public Optional<String> placeName() {
      return words.placeName();
    }

    @Override
    public Optional<PlaceId> site() {
      return record.place();
    }

    @Override
    public List<Released.Tag> categories() {
      Set<Wording.Category> asked = wording.categories();
      if (asked.isEmpty()) {
        return List.of();
      }
      List<Released.Tag> found = new ArrayList<>(2);
      if (asked.contains(Wording.Category.KIND)) {
        found.add(new Released.Tag(Optional.empty(), record.kind().word()));
      }
      if (asked.contains(Wording.Category.TEAM)) {
        record
            .team()
            .flatMap(crew::team)
            .map(Team::name)
            .ifPresent(name -> found.add(new Released.Tag(Optional.of(DetailKey.TEAM), name)));
      }
      if (asked.contains(Wording.Category.TAGS)) {
        new TreeSet<>(record.tags())
            .forEach(tag -> found.add(new Released.Tag(Optional.of(DetailKey.TAGS), tag)));
      }
      return found;
    }

    @Override
    public List<Attendee> attendees() {
      Attendees asked = entry.with().attendees();
      if (asked == Attendees.NOBODY) {
        return List.of();
      }
      Optional<PersonId> oneself =
          calendars
              .find(entry.key().calendar())
              .filter(calendar -> calendar.owner() instanceof Calendar.Owner.Own)
              .map(calendar -> ((Calendar.Owner.Own) calendar.owner()).person());
      Map<PersonId, Attendee> found = new TreeMap<>();
      for (Assignment assignment : record.on(entry.key().visit())) {
        if (assignment.holder() instanceof Holder.OnePerson one
            && (asked == Attendees.EVERYBODY || oneself.equals(Optional.of(one.person())))) {
          boolean informed = assignment.role().equals(RoleId.INFORMED);
          crew.person(one.person())
              .ifPresent(
                  person ->
                      found.merge(
                          person.id(),
                          new Attendee(
                              Attendee.id(calendars.house().seed(), person.id()),
                              person.name(),
                              informed),
                          (first, other) -> first.informed() ? other : first));
        }
      }
      return List.copyOf(found.values());
    }
  }

  /** As it was at the last yes, each value for those it was for then and is for now. */
  private final class Past implements Said {
    private final WorkRecord record;
    private final Released released;

    Past(WorkRecord record, Released released) {
      this.record = record;
      this.released = released;
    }

    @Override
    public Entry entry() {
      return released.entry();
    }

    @Override
    public boolean isFor(DetailKey detail, Capacities reader) {
      ForSet then = released.sets().get(detail);
      return then != null
          && permission.allows(then, reader)
          && permission.allows(details.forWhom(record, detail), reader);
    }

    @Override
    public Pattern title() {
      return Pattern.of(released.title(), released.sets().keySet());
    }

    @Override
    public Pattern place() {
      return Pattern.of(released.place(), released.sets().keySet());
    }

    @Override
    public Pattern text() {
      return Pattern.of(released.text(), released.sets().keySet());
    }

    @Override
    public Optional<String> value(
        String name, DetailKey detail, Optional<DateTimeFormatter> format) {
      return released.value(name, detail, format);
    }

    @Override
    public String ref() {
      return released.ref();
    }

    @Override
    public Optional<String> placeName() {
      return released.placeName();
    }

    /** Empty where the work has moved elsewhere since. */
    @Override
    public Optional<PlaceId> site() {
      return record
          .place()
          .filter(id -> places.find(id).map(Place::name).equals(released.placeName()));
    }

    @Override
    public List<Released.Tag> categories() {
      return released.categories();
    }

    @Override
    public List<Attendee> attendees() {
      return released.attendees();
    }
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

  private static boolean allowedTo(List<Audience.Standing> standings, Said said, DetailKey detail) {
    for (Audience.Standing standing : standings) {
      if (!said.isFor(detail, standing.capacities())) {
        return false;
      }
    }
    return true;
  }

  private static Face bare(
      Said said, List<Audience.Standing> standings, EntryTimes times, Level level) {
    boolean place = level == Level.TIMES_AND_PLACE && allowedTo(standings, said, DetailKey.PLACE);
    return Face.bare(
        BARE_TITLE, place ? said.placeName().orElse("") : "", times, said.entry().marks());
  }

  private Face worded(
      Said said,
      List<Audience.Standing> standings,
      EntryTimes times,
      Predicate<DetailKey> uncovered) {
    Pattern.Values values =
        (name, detail, format) -> {
          if (!allowedTo(standings, said, detail)) {
            return Optional.empty();
          }
          return uncovered.test(detail) ? said.value(name, detail, format) : Optional.of(COVERED);
        };
    String title = said.title().fill(values).replace('\n', ' ');
    if (title.isEmpty()) {
      title = allowedTo(standings, said, DetailKey.REF) ? said.ref() : BARE_TITLE;
    }
    List<String> categories = new ArrayList<>(2);
    for (Released.Tag one : said.categories()) {
      if (one.detail().isEmpty() || allowedTo(standings, said, one.detail().get())) {
        categories.add(one.word());
      }
    }
    List<Attendee> attendees = said.attendees();
    boolean seen =
        attendees.isEmpty()
            || allowedTo(standings, said, DetailKey.PEOPLE) && uncovered.test(DetailKey.PEOPLE);
    return new Face(
        title,
        said.place().fill(values).replace('\n', ' '),
        said.text().fill(values),
        times,
        said.entry().marks(),
        categories,
        Alarm.of(said.entry(), times, days(said, standings, uncovered)),
        seen ? attendees : List.of(),
        position(said, standings, uncovered),
        own(said.entry(), times),
        false);
  }

  /** The work's own times, where margins are part of those that are shown (LANDING 19). */
  private static Optional<EntryTimes.Timed> own(Entry entry, EntryTimes shown) {
    return entry
        .bareTimes()
        .filter(bare -> !bare.equals(shown))
        .filter(EntryTimes.Timed.class::isInstance)
        .map(EntryTimes.Timed.class::cast);
  }

  /** Where its place is, where the wording asks for the place and it is for all of them. */
  private Optional<Position> position(
      Said said, List<Audience.Standing> standings, Predicate<DetailKey> uncovered) {
    boolean asked =
        Stream.of(said.title(), said.place(), said.text())
            .anyMatch(pattern -> pattern.asksFor().contains(DetailKey.PLACE));
    return asked && allowedTo(standings, said, DetailKey.PLACE) && uncovered.test(DetailKey.PLACE)
        ? said.site().flatMap(places::find).flatMap(Place::position)
        : Optional.empty();
  }

  /**
   * Those of its place, as far as the place is for all of them: a holiday would tell where it is.
   */
  private WorkingDays days(
      Said said, List<Audience.Standing> standings, Predicate<DetailKey> uncovered) {
    boolean seen = allowedTo(standings, said, DetailKey.PLACE) && uncovered.test(DetailKey.PLACE);
    return places.workDays(seen ? said.site() : Optional.empty());
  }

  private Wording wordingOf(WorkRecord record, Entry entry) {
    return calendars
        .find(entry.key().calendar())
        .map(calendar -> wordings.on(calendar.owner(), entry.wording(), record.kind()))
        .orElseGet(() -> wordings.of(entry.wording(), record.kind()));
  }

  /** What one pattern of an entry's wording asks for. */
  public Set<DetailKey> asked(WorkRecord record, Entry entry, Function<Wording, Pattern> pattern) {
    return pattern.apply(wordingOf(record, entry)).asksFor();
  }

  /** Times need no asking; margins are asked for by the rule's shape. */
  private static boolean asksFor(Wording wording, Entry entry, DetailKey key) {
    if (key.equals(DetailKey.TIMES)) {
      return true;
    }
    if (key.equals(DetailKey.MARGINS)) {
      return entry.bareTimes().isPresent();
    }
    if (key.equals(DetailKey.PEOPLE) && entry.with().attendees() != Attendees.NOBODY) {
      return true;
    }
    return wording.title().asksFor().contains(key)
        || wording.place().asksFor().contains(key)
        || wording.text().asksFor().contains(key);
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
