package mellowrota.core.change;

import java.time.Duration;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.BiConsumer;
import java.util.function.Function;
import mellowrota.core.people.ForSet;
import mellowrota.core.people.Role;
import mellowrota.core.people.TeamId;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.Details;
import mellowrota.core.work.Kind;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.State;
import mellowrota.core.work.Visit;
import mellowrota.core.work.WorkRecord;

/**
 * What every record may say of itself, typed details apart: each field once, with its form as text,
 * what people and the API call it, whose it is to see and to change. An absent one reads as empty
 * text, and is taken off by it.
 */
public enum RecordField {
  PLACE(
      "place",
      "Place",
      seenAs(DetailKey.PLACE),
      record -> record.place().map(id -> "" + id.value()).orElse(""),
      (builder, text) -> builder.place(number(text).map(PlaceId::of))),
  USES(
      "uses",
      "Also uses",
      seenAs(DetailKey.PLACE),
      record -> FieldTexts.lines(record.uses(), one -> "" + one.value()),
      (builder, text) ->
          builder.uses(
              FieldTexts.items(text).stream()
                  .map(one -> PlaceId.of(Long.parseLong(one)))
                  .toList())),
  TEAM(
      "team",
      "Team",
      seenAs(DetailKey.TEAM),
      record -> record.team().map(id -> "" + id.value()).orElse(""),
      (builder, text) -> builder.team(number(text).map(TeamId::of))),
  DUE(
      "due",
      "Due",
      seenAs(DetailKey.TIMES).changedBy(Role.Right.TIMES),
      record -> record.due().map(FieldTexts::print).orElse(""),
      (builder, text) -> builder.due(FieldTexts.due(text))),
  DATES(
      "dates",
      "Dates",
      seenAs(DetailKey.TIMES).changedBy(Role.Right.TIMES),
      record -> FieldTexts.lines(record.dates(), FieldTexts::print),
      (builder, text) -> builder.dates(FieldTexts.dates(text))),
  /** Without their margins, which stay where the visit does. */
  VISITS(
      "visits",
      "When",
      seenAs(DetailKey.TIMES).changedBy(Role.Right.TIMES),
      record -> FieldTexts.lines(record.visits(), FieldTexts::print),
      (builder, text) ->
          builder.visits(FieldTexts.visits(text, FieldTexts.margins(builder.build().visits())))),
  MARGINS(
      "margins",
      "Margins",
      seenAs(DetailKey.MARGINS).changedBy(Role.Right.TIMES),
      record -> FieldTexts.margins(record.visits()),
      (builder, text) ->
          builder.visits(
              FieldTexts.visits(
                  FieldTexts.lines(builder.build().visits(), FieldTexts::print), text))),
  ASSIGNMENTS(
      "assignments",
      "People",
      seenAs(DetailKey.PEOPLE).changedBy(Role.Right.PEOPLE).called("people"),
      record -> FieldTexts.lines(record.assignments(), FieldTexts::print),
      (builder, text) -> builder.assignments(FieldTexts.assignments(text))),
  STATE(
      "state",
      "State",
      seenAs(DetailKey.TIMES).changedBy(Role.Right.MARKS),
      record -> record.state() + "/" + record.stateBefore(),
      (builder, text) -> {
        String[] states = text.split("/");
        builder.states(State.valueOf(states[0]), State.valueOf(states[1]));
      }),
  STARTED(
      "started",
      "Started",
      seenAs(DetailKey.TIMES).changedBy(Role.Right.MARKS),
      record -> flag(record.started()),
      (builder, text) -> builder.started(!text.isEmpty())),
  CANT(
      "cant",
      "Can’t",
      seenAs(DetailKey.TIMES).changedBy(Role.Right.MARKS),
      record -> flag(record.cant()),
      (builder, text) -> builder.cant(!text.isEmpty())),
  PRIVATE(
      "private",
      "Private",
      seenBy(ForSet.EVERYONE),
      record -> flag(record.isPrivate()),
      (builder, text) -> builder.isPrivate(!text.isEmpty())),
  /** Whether it takes nobody's time. */
  FREE(
      "free",
      "Takes no time",
      seenAs(DetailKey.TIMES).changedBy(Role.Right.TIMES),
      record -> flag(record.free()),
      (builder, text) -> builder.free(!text.isEmpty())),
  TAGS(
      "tags",
      "Tags",
      seenAs(DetailKey.TAGS),
      record -> String.join("\n", new TreeSet<>(record.tags())),
      (builder, text) -> builder.tags(Set.copyOf(FieldTexts.items(text)))),
  HEAD_COUNT(
      "head count",
      "Minimum headcount",
      seenBy(ForSet.OFFICE).called("leastHeadCount").from(1).to(40).of(Kind.JOB),
      record -> record.leastHeadCount().isPresent() ? "" + record.leastHeadCount().getAsInt() : "",
      (builder, text) ->
          builder.leastHeadCount(
              text.isEmpty() ? OptionalInt.empty() : OptionalInt.of(Integer.parseInt(text)))),
  WANTS(
      "wants",
      "People needed",
      seenBy(ForSet.OFFICE),
      record -> FieldTexts.print(record.wants()),
      (builder, text) -> builder.wants(FieldTexts.wants(text))),
  /** In minutes; at most a thousand hours. */
  ESTIMATE(
      "estimate",
      "Estimate",
      seenBy(ForSet.OFFICE).called("estimateMinutes").from(0).to(60_000).minutes(),
      record -> record.estimate().map(length -> "" + length.toMinutes()).orElse(""),
      (builder, text) -> builder.estimate(number(text).map(Duration::ofMinutes))),
  /** Its own, beside those of the rules; an act on the deadlines that it belongs to sets them. */
  REMINDERS(
      "reminders",
      "Reminders",
      seenBy(ForSet.OFFICE),
      record -> FieldTexts.lines(record.reminders(), Duration::toString),
      (builder, text) ->
          builder.reminders(FieldTexts.items(text).stream().map(Duration::parse).toList())),
  RULINGS(
      "rulings",
      "Exceptions",
      seenBy(ForSet.OFFICE).called("exceptions"),
      record -> FieldTexts.lines(record.rulings(), FieldTexts::print),
      (builder, text) -> builder.rulings(FieldTexts.rulings(text)));

  /** Those that are whole numbers, which are read and judged by their bounds alone. */
  public static final List<RecordField> NUMBERS =
      Arrays.stream(values()).filter(field -> field.traits.most > 0).toList();

  private final String kept;
  private final String label;
  private final Traits traits;
  private final Function<WorkRecord, String> print;
  private final BiConsumer<WorkRecord.Builder, String> read;

  RecordField(
      String kept,
      String label,
      Traits traits,
      Function<WorkRecord, String> print,
      BiConsumer<WorkRecord.Builder, String> read) {
    this.kept = kept;
    this.label = label;
    this.traits = traits;
    this.print = print;
    this.read = read;
  }

  /** The field that history keeps under this name; empty where it is a typed detail's. */
  public static Optional<RecordField> named(String kept) {
    return Arrays.stream(values()).filter(field -> field.kept.equals(kept)).findFirst();
  }

  /** What history calls it. */
  public String kept() {
    return kept;
  }

  /** What people call it. */
  public String label() {
    return label;
  }

  /** What the API calls it. */
  public String api() {
    return traits.api.orElse(kept);
  }

  /** Which right of a role lets its holder change it; empty where it is the office's alone. */
  public Optional<Role.Right> right() {
    return traits.right;
  }

  /** Whom its values are for on this record. */
  public ForSet forWhom(Details details, WorkRecord record) {
    return traits.detail.map(key -> details.forWhom(record, key)).orElse(traits.forWhom);
  }

  /** Whether records of this kind may have this number. */
  public boolean holds(Kind kind, long number) {
    return traits.kind.map(kind::equals).orElse(true)
        && number >= traits.least
        && number <= traits.most;
  }

  /** Whether the number is a length in minutes. */
  public boolean isMinutes() {
    return traits.minutes;
  }

  /** What {@link #holds} wants, in words. */
  public String bounds() {
    String range = "from " + traits.least + " to " + traits.most;
    return traits.kind.map(kind -> "for " + kind.name().toLowerCase(Locale.ROOT) + "s, ").orElse("")
        + range;
  }

  /** Its value as history keeps it. */
  public String print(WorkRecord record) {
    return print.apply(record);
  }

  /** Sets it to what such a text says; visits come before their margins. */
  public void set(WorkRecord.Builder builder, String text) {
    read.accept(builder, text);
  }

  /** Takes it off: the state goes back to its kind's first, and a visit stays without its times. */
  public void clear(WorkRecord.Builder builder) {
    WorkRecord record = builder.build();
    switch (this) {
      case STATE -> {
        State first = WorkRecord.firstState(record.kind());
        builder.states(first, first);
      }
      case VISITS ->
          builder.visits(record.visits().stream().map(visit -> Visit.bare(visit.no())).toList());
      default -> set(builder, "");
    }
  }

  private static String flag(boolean is) {
    return is ? "yes" : "";
  }

  private static Optional<Long> number(String text) {
    return text.isEmpty() ? Optional.empty() : Optional.of(Long.valueOf(text));
  }

  private static Traits seenAs(DetailKey detail) {
    return new Traits(Optional.of(detail), ForSet.OFFICE);
  }

  private static Traits seenBy(ForSet set) {
    return new Traits(Optional.empty(), set);
  }

  /** What is the same of many fields, so that each names only what is its own. */
  private static final class Traits {
    private final Optional<DetailKey> detail;
    private final ForSet forWhom;
    private Optional<Role.Right> right = Optional.empty();
    private Optional<String> api = Optional.empty();
    private Optional<Kind> kind = Optional.empty();
    private int least;
    private int most;
    private boolean minutes;

    Traits(Optional<DetailKey> detail, ForSet forWhom) {
      this.detail = detail;
      this.forWhom = forWhom;
    }

    Traits changedBy(Role.Right whose) {
      right = Optional.of(whose);
      return this;
    }

    Traits called(String name) {
      api = Optional.of(name);
      return this;
    }

    Traits from(int number) {
      least = number;
      return this;
    }

    Traits to(int number) {
      most = number;
      return this;
    }

    Traits minutes() {
      minutes = true;
      return this;
    }

    Traits of(Kind whose) {
      kind = Optional.of(whose);
      return this;
    }
  }
}
