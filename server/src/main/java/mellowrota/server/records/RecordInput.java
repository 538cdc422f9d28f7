package mellowrota.server.records;

import static mellowrota.server.platform.Words.say;

import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.OptionalLong;
import java.util.Set;
import java.util.TreeSet;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.change.RecordField;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.TeamId;
import mellowrota.core.rule.Places;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.DetailSort;
import mellowrota.core.work.DetailValue;
import mellowrota.core.work.Kind;
import mellowrota.core.work.NamedDate;
import mellowrota.core.work.Place;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.Repeat;
import mellowrota.core.work.Ruling;
import mellowrota.core.work.State;
import mellowrota.core.work.Visit;
import mellowrota.core.work.Wants;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.platform.Input;
import mellowrota.server.sight.World;
import tools.jackson.databind.JsonNode;

/**
 * A change to a record as it was sent: only fields that are named change, null clears (RFC 7396).
 */
final class RecordInput {

  /** What is settled when a record is made. */
  private static final Set<String> SETTLED = Set.of("kind", "source", "sourceId", "repeat");

  private static final DateTimeFormatter NOTED =
      DateTimeFormatter.ofPattern("d MMM HH:mm", Locale.ENGLISH);
  private static final int MOST_DATES = 20;

  private static final int MOST_EXCEPTIONS = 40;
  private static final int MOST_PEOPLE = 40;
  private static final int MOST_USED = 20;
  private static final int MOST_OCCURRENCES = 200;

  private final Input input;
  private final World world;
  private final Person asker;
  private final VisitsInput visits;

  private RecordInput(Input input, World world, Person asker) {
    this.input = input;
    this.world = world;
    this.asker = asker;
    visits = new VisitsInput(input, world);
  }

  static RecordInput of(JsonNode body, World world, Person asker) {
    return new RecordInput(Input.of(body, RecordSchemas.ChangeSchema.class), world, asker);
  }

  Input input() {
    return input;
  }

  String reason() {
    return input.text("reason", 300);
  }

  /** The fields named, as {@link Permits} calls them. */
  Set<String> named() {
    Set<String> names = new TreeSet<>(input.names());
    names.removeAll(Set.of("details", "reason", "kind", "source", "sourceId", "repeat"));
    input.open("details").ifPresent(details -> names.addAll(details.names()));
    if (visits.namesMargins()) {
      names.add("margins");
    }
    return names;
  }

  /** A change names none of what is settled when a record is made. */
  void refuseWhatIsSettled() {
    for (String name : SETTLED) {
      if (input.has(name)) {
        input.fault(name, say("records.can-only-be-set"));
      }
    }
  }

  Optional<Repeat> repeat() {
    Optional<Input> repeat = input.object("repeat", RecordSchemas.RepeatSchema.class);
    if (repeat.isEmpty()) {
      return Optional.empty();
    }
    Input r = repeat.get();
    long every = r.has("every") ? r.number("every").orElse(0) : 1;
    long times = r.number("times").orElse(0);
    Optional<Repeat.Unit> unit = r.requiredChoice("unit", Repeat.Unit.class);
    if (every < 1 || every > 366) {
      r.fault("every", say("records.must-be-a-number-from"));
    }
    if (times < 1 || times > MOST_OCCURRENCES) {
      r.fault("times", say("records.must-be-a-number", MOST_OCCURRENCES));
    }
    input.check();
    return unit.map(u -> new Repeat((int) every, u, (int) times));
  }

  Optional<String> source() {
    return Optional.of(input.text("source", 60)).filter(s -> !s.isEmpty());
  }

  Optional<String> sourceId() {
    return Optional.of(input.text("sourceId", 120)).filter(s -> !s.isEmpty());
  }

  /** A new record with what was sent; throws all faults at once. */
  WorkRecord make(PersonId author, Instant now) {
    return apply(blank(author, now), now);
  }

  /** The same of a record like another, but for what was sent. */
  WorkRecord makeLike(WorkRecord other, PersonId author, Instant now) {
    if (input.has("kind")) {
      input.fault("kind", say("records.is-taken-from-the"));
    }
    return apply(WorkRecord.like(other, RecordId.of(0), "new", author, now).build(), now);
  }

  /** The same of a record that somebody is still typing: it may yet lack what its kind wants. */
  WorkRecord makeUnfinished(PersonId author, Instant now) {
    WorkRecord blank = blank(author, now);
    WorkRecord made = read(blank, now);
    input.check();
    return made;
  }

  /** It gets its number and ref when it is kept. */
  private WorkRecord blank(PersonId author, Instant now) {
    Kind kind = input.choice("kind", Kind.class).orElse(Kind.TICKET);
    return WorkRecord.blank(RecordId.of(0), "new", kind, author, now).build();
  }

  /** The record with what was sent; throws all faults at once. */
  WorkRecord apply(WorkRecord record, Instant now) {
    WorkRecord after = read(record, now);
    wants(after);
    input.check();
    return after;
  }

  private void wants(WorkRecord record) {
    if (record.text(DetailKey.TITLE).isEmpty() && !input.namesFault("title")) {
      input.fault("title", say("records.is-missing-enter-what"));
    }
    if (record.kind() != Kind.JOB && record.visits().size() > 1) {
      input.fault("visits", say("records.are-too-many-only"));
    }
    boolean span = record.visits().stream().anyMatch(visit -> visit.when().isPresent());
    if (record.kind() == Kind.SHIFT && !span && !input.namesFault("visits")) {
      input.fault("visits", say("records.need-a-start-and"));
    }
    if (record.kind() == Kind.DEADLINE && record.due().isEmpty() && !input.namesFault("due")) {
      input.fault("due", say("records.is-missing-a-deadline"));
    }
    if (record.kind() == Kind.DEADLINE && span) {
      input.fault("visits", say("records.cannot-have-a-span"));
    }
  }

  private WorkRecord read(WorkRecord record, Instant now) {
    WorkRecord.Builder builder = record.with();
    if (input.has("title")) {
      builder.detail(DetailKey.TITLE, keepFor(record, DetailKey.TITLE, input.text("title", 200)));
    }
    if (input.has("place")) {
      builder.place(place());
    }
    if (input.has("uses")) {
      builder.uses(uses());
    }
    if (input.has("team")) {
      builder.team(team());
    }
    ZoneId siteZone = siteZone(builder.build());
    if (input.has("visits")) {
      List<Visit> sent = visits.visits(record, siteZone);
      builder.visits(sent).assignments(VisitsInput.carried(record, sent, now));
    }
    if (input.has("people")) {
      builder.assignments(visits.people(record, builder.build().visits(), now));
    }
    if (input.has("due")) {
      builder.due(
          input
              .object("due", RecordSchemas.DueSchema.class)
              .flatMap(due -> DueInput.read(due, siteZone)));
    }
    if (input.has("dates")) {
      builder.dates(dates(siteZone));
    }
    input.open("details").ifPresent(details -> details(record, details, builder));
    input.flag("private").ifPresent(builder::isPrivate);
    input.flag("free").ifPresent(builder::free);
    input.flag("started").ifPresent(builder::started);
    input.flag("cant").ifPresent(builder::cant);
    input.choice("state", State.class).ifPresent(builder::state);
    note(record, builder, now);
    if (input.has("tags")) {
      builder.tags(new HashSet<>(input.texts("tags", 20, 40)));
    }
    for (RecordField field : RecordField.NUMBERS) {
      if (input.has(field.api())) {
        field.set(builder, number(record.kind(), field));
      }
    }
    if (input.has("wants")) {
      builder.wants(wants());
    }
    if (input.has("exceptions")) {
      builder.rulings(exceptions(builder.build()));
    }
    return builder.build();
  }

  /** A note goes under what stands there, with who and when; nobody's words are written over. */
  private void note(WorkRecord record, WorkRecord.Builder builder, Instant now) {
    String note = input.lines("note", 1000);
    if (note.isEmpty()) {
      return;
    }
    String before = builder.build().text(DetailKey.NOTES).map(text -> text + "\n").orElse("");
    String at = NOTED.format(now.atZone(world.house().zone()));
    builder.detail(
        DetailKey.NOTES,
        keepFor(record, DetailKey.NOTES, before + asker.name() + ", " + at + ": " + note));
  }

  /** A number as {@link RecordField} reads it; zero takes it off where it cannot be zero. */
  private String number(Kind kind, RecordField field) {
    OptionalLong sent = input.number(field.api());
    if (sent.isEmpty() || sent.getAsLong() == 0 && !field.holds(kind, 0)) {
      return "";
    }
    if (!field.holds(kind, sent.getAsLong())) {
      input.fault(field.api(), "is " + field.bounds());
      return "";
    }
    return Long.toString(sent.getAsLong());
  }

  private Wants wants() {
    Optional<Input> wants = input.object("wants", RecordView.WantsView.class);
    if (wants.isEmpty()) {
      return Wants.NONE;
    }
    long people = wants.get().number("people").orElse(0);
    List<String> skills = wants.get().texts("skills", MOST_PEOPLE, 40);
    if (people < 0 || people > MOST_PEOPLE) {
      wants.get().fault("people", say("common.must-be-from-1", MOST_PEOPLE));
      return Wants.NONE;
    }
    if (people < skills.size()) {
      wants.get().fault("skills", say("records.are-more-than-the"));
      return Wants.NONE;
    }
    return new Wants((int) people, skills);
  }

  private List<NamedDate> dates(ZoneId siteZone) {
    List<NamedDate> found = new ArrayList<>();
    for (Input item : input.objects("dates", MOST_DATES, RecordSchemas.NamedDateSchema.class)) {
      String name = item.required("name", 60);
      if (found.stream().anyMatch(date -> date.name().equals(name))) {
        item.fault("name", say("common.is-listed-twice"));
      }
      DueInput.read(item, siteZone).ifPresent(when -> found.add(new NamedDate(name, when)));
    }
    return found;
  }

  private List<Ruling> exceptions(WorkRecord record) {
    List<Ruling> found = new ArrayList<>();
    for (Input item :
        input.objects("exceptions", MOST_EXCEPTIONS, RecordSchemas.ExceptionSchema.class)) {
      Optional<Ruling.Sort> sort = item.choice("sort", Ruling.Sort.class);
      OptionalLong calendar = item.number("calendar");
      OptionalLong visit = item.number("visit");
      String reason = item.required("reason", 200);
      boolean named = sort.isPresent() && sort.get() != Ruling.Sort.NOT_SENT;
      boolean known =
          calendar.isPresent()
              && world.calendars().find(CalendarId.of(calendar.getAsLong())).isPresent();
      if (sort.isEmpty() && !item.has("sort")) {
        item.fault("sort", say("records.is-missing-one-of"));
      }
      if (named && !known) {
        item.fault("calendar", say("records.is-not-a-calendar"));
      }
      if (visit.isPresent() && record.visit((int) visit.getAsLong()).isEmpty()) {
        item.fault("visit", say("records.is-not-a-visit"));
      }
      sort.ifPresent(
          s ->
              found.add(
                  new Ruling(
                      s,
                      named ? calendar.orElse(0) : 0,
                      visit.isPresent()
                          ? OptionalInt.of((int) visit.getAsLong())
                          : OptionalInt.empty(),
                      reason)));
    }
    return found;
  }

  private static DetailValue keepFor(WorkRecord record, DetailKey key, String text) {
    DetailValue before = record.details().get(key);
    return new DetailValue(text, before == null ? Optional.empty() : before.forWhom());
  }

  private Optional<PlaceId> place() {
    OptionalLong id = input.number("place");
    if (id.isPresent() && world.places().find(PlaceId.of(id.getAsLong())).isEmpty()) {
      input.fault("place", say("common.is-not-a-place"));
      return Optional.empty();
    }
    return id.isPresent() ? Optional.of(PlaceId.of(id.getAsLong())) : Optional.empty();
  }

  private List<PlaceId> uses() {
    List<PlaceId> found = input.numbers("uses", MOST_USED).stream().map(PlaceId::of).toList();
    if (!found.stream().allMatch(one -> world.places().find(one).isPresent())) {
      input.fault("uses", say("common.is-not-a-place"));
    }
    return found;
  }

  private Optional<TeamId> team() {
    OptionalLong id = input.number("team");
    if (id.isPresent() && world.crew().team(TeamId.of(id.getAsLong())).isEmpty()) {
      input.fault("team", say("records.is-not-a-team"));
      return Optional.empty();
    }
    return id.isPresent() ? Optional.of(TeamId.of(id.getAsLong())) : Optional.empty();
  }

  private ZoneId siteZone(WorkRecord record) {
    Places places = world.places();
    return record.place().flatMap(places::find).flatMap(Place::zone).orElse(places.houseZone());
  }

  private void details(WorkRecord record, Input details, WorkRecord.Builder builder) {
    for (String name : details.names()) {
      DetailKey key = new DetailKey(name);
      Optional<DetailDefinition> definition =
          world.details().find(key).filter(d -> d.isWritten() && d.kinds().contains(record.kind()));
      if (definition.isEmpty()) {
        details.fault("", say("records.names-a-detail-that"));
        continue;
      }
      DetailSort sort = definition.get().sort();
      String typed = sort.hasLines() ? details.lines(name, 4000) : details.text(name, 200);
      DetailSort.Reading reading = definition.get().read(typed);
      if (reading.value().isEmpty()) {
        details.fault(name, reading.remedy());
      }
      builder.detail(key, keepFor(record, key, reading.value().orElse("")));
    }
  }
}
