package mellowrota.server.rules;

import com.fasterxml.jackson.annotation.JsonProperty;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.List;
import java.util.stream.Stream;
import lombok.With;
import mellowrota.core.calendar.Level;
import mellowrota.core.entry.Attendees;
import mellowrota.core.entry.Reminder;
import mellowrota.core.rule.LandingRule;
import mellowrota.core.rule.Shape;
import mellowrota.core.sight.Wording;
import mellowrota.core.work.DetailSort;
import mellowrota.core.work.Kind;
import mellowrota.core.work.State;
import mellowrota.server.acts.Leaving;
import mellowrota.server.records.LandingView;
import mellowrota.server.records.RecordSchemas;
import mellowrota.server.records.SightViews;
import mellowrota.server.rules.store.ChangeStore;
import org.jspecify.annotations.Nullable;

/** Rules, wordings and details as they are told and sent. */
final class SetViews {

  private SetViews() {}

  /**
   * What a rule asks of a record: exactly one of these.
   *
   * @param over a detail of numbers, amounts or dates, and what its value is over
   * @param under the same, and what its value is under
   * @param is any detail, and what its value is
   * @param startsBetween two times of day, half-open
   */
  @Schema(name = "Condition")
  record ConditionView(
      @Nullable List<ConditionView> all,
      @Nullable List<ConditionView> any,
      @Nullable List<ConditionView> none,
      @Nullable List<Kind> kind,
      @Nullable List<State> state,
      @Nullable String tag,
      @Nullable Long team,
      @Nullable Long place,
      @Nullable Integer role,
      @Nullable String detail,
      @Nullable List<String> over,
      @Nullable List<String> under,
      @Nullable List<String> is,
      @JsonProperty("private") @Nullable Boolean isPrivate,
      @Nullable Long madeBy,
      @Nullable List<String> startsBetween,
      @Nullable Boolean allDay) {}

  /**
   * Where a rule lands: exactly one of these.
   *
   * @param ownOf own calendars of who holds one of these roles
   * @param teamsOf calendars of the teams that the people in these roles are directly in
   * @param calendar a date list or a named calendar
   */
  @Schema(name = "Target")
  record TargetView(
      @Nullable List<Integer> ownOf,
      @Nullable List<Integer> teamsOf,
      @Nullable Boolean thePlaces,
      @Nullable Boolean master,
      @Nullable Long calendar) {}

  /**
   * A landing rule.
   *
   * @param id absent for a new one
   * @param busy absent: as the shape says
   * @param attendees absent: NOBODY
   * @param afterYes whether what it lands waits for a coordinator's yes
   * @param note why the rule exists
   */
  @Schema(name = "Rule")
  record RuleView(
      @Nullable Long id,
      boolean on,
      ConditionView when,
      List<TargetView> lands,
      Shape as,
      @Nullable Long wording,
      @Nullable Boolean busy,
      LandingRule.WhenDone whenDone,
      @Nullable List<ReminderView> reminders,
      @Nullable Attendees attendees,
      @Nullable Boolean afterYes,
      @Nullable String note) {}

  /** How long before its due time or start an entry rings. */
  @Schema(name = "Reminder")
  record ReminderView(int amount, Reminder.Unit unit) {}

  /**
   * A wording.
   *
   * @param fresh for a new one, whose number is only for the rules of the same wish to name it by
   * @param fixed why nobody may put a title of their own in place of its title
   */
  @Schema(name = "Wording")
  record WordingView(
      long id,
      @Nullable Boolean fresh,
      String name,
      String title,
      String place,
      String text,
      List<Wording.Category> categories,
      @Nullable String fixed) {}

  /**
   * A detail of the house's records.
   *
   * @param key what wordings call it
   * @param states in which it applies; none: in all
   * @param unit what a number counts, or the currency of an amount (ISO 4217); absent: not said
   * @param typed whether people type it, and it is not worked out from the record
   * @param own whether it is the house's own and can be taken out again
   */
  @Schema(name = "DetailDefinition")
  record DetailView(
      String key,
      String label,
      List<Kind> kinds,
      @JsonProperty("for") ForSets.ForView forWhom,
      DetailSort sort,
      List<String> choices,
      List<State> states,
      @Nullable String unit,
      boolean typed,
      boolean own) {}

  /** The wordings of kinds whose rule names none, by number. */
  @Schema(name = "UsualWordings")
  record UsualView(
      @JsonProperty("JOB") @Nullable Long job,
      @JsonProperty("TICKET") @Nullable Long ticket,
      @JsonProperty("SHIFT") @Nullable Long shift,
      @JsonProperty("DEADLINE") @Nullable Long deadline) {}

  /** How many entries a rule lands now. */
  @Schema(name = "RuleCount")
  record CountView(long rule, long entries, int calendars) {}

  /**
   * All rules in their order, all wordings and all details.
   *
   * @param usual the wording of each kind whose rule names none
   * @param fallback the wording of the other kinds
   * @param titlesFixed why nobody may call things their own way on their own calendar
   * @param tag of the set as it stands; a change of it names the tag it began with
   */
  @Schema(name = "RuleSet")
  record SetView(
      String tag,
      List<RuleView> rules,
      List<WordingView> wordings,
      List<DetailView> details,
      UsualView usual,
      long fallback,
      @Nullable String titlesFixed,
      List<CountView> counts) {}

  /**
   * A set as somebody wants it.
   *
   * @param tag of the set it was made from
   * @param details absent, as usual and titlesFixed may be: as they are
   * @param from work that ended before this day stays as it is, but for what is hidden
   * @param looked what the look at this very set was called; needed to take it
   * @param record a record to try the set on
   * @param typed a record to try it on that is only typed, as a new one is sent
   */
  @Schema(name = "RuleSetWish")
  record WishView(
      String tag,
      List<RuleView> rules,
      List<WordingView> wordings,
      @Nullable List<DetailView> details,
      @Nullable UsualView usual,
      @Nullable String titlesFixed,
      @Schema(format = "date") @Nullable String from,
      @Nullable String looked,
      @Nullable Long record,
      RecordSchemas.@Nullable ChangeSchema typed) {}

  /** What a set would make of one record. */
  @Schema(name = "Tried")
  record TriedView(LandingView landings, SightViews.SightView sight) {}

  /** What would become of the entries of one calendar. */
  @Schema(name = "CalendarPreview")
  record CalendarView(long calendar, String name, long added, long changed, long takenOff) {}

  /**
   * A detail that readers would newly see, or see no longer.
   *
   * @param readers who they are, in words
   * @param entries on how many entries
   */
  @Schema(name = "SightChange")
  record SightView(long calendar, String name, String readers, String detail, long entries) {}

  /**
   * A detail that would be for others than it is, on our screens too.
   *
   * @param before whom it is for, in words
   * @param records how many hold it
   */
  @Schema(name = "ForChange")
  record ForChangeView(String detail, String before, String after, boolean wider, long records) {}

  /**
   * What ends with somebody who leaves.
   *
   * @param calendar of ours which a feed or share showed
   * @param reader whom a share was for
   */
  @Schema(name = "EndsWith")
  record EndsView(
      Leaving.Sort sort,
      @Nullable String label,
      @Nullable Long calendar,
      @Nullable String calendarName,
      @Nullable Long reader,
      @Nullable String readerName,
      @Nullable Level level,
      @Nullable LocalDate until) {}

  /**
   * What a set would do.
   *
   * @param readers details that would be for others
   * @param warnings rules that test what readers of their calendars may not see
   * @param digest of all rows: the same where the same would happen
   * @param waits entries that would wait for a yes; nothing of them counts as added or changed
   * @param looked to be sent with the set when it is taken; asks for the count until it is finished
   * @param finished whether all records were looked at; until then the counts rise
   * @param records looked at so far, out of so many in all
   */
  @Schema(name = "SetPreview")
  record PreviewView(
      String looked,
      boolean finished,
      long records,
      long total,
      long added,
      long changed,
      long takenOff,
      long waits,
      List<CalendarView> calendars,
      @With List<SightView> shown,
      @With List<SightView> hidden,
      List<ForChangeView> readers,
      List<String> warnings,
      @With List<EndsView> ends,
      String digest) {

    /** With more that is newly shown, and hidden, and what ends with whoever leaves. */
    PreviewView with(List<SightView> moreShown, List<SightView> moreHidden, List<EndsView> ending) {
      return withShown(Stream.concat(moreShown.stream(), shown.stream()).toList())
          .withHidden(Stream.concat(moreHidden.stream(), hidden.stream()).toList())
          .withEnds(ending);
    }
  }

  /** What taking a set did, or does: where it is work, it goes on in the background. */
  @Schema(name = "SetTaken")
  record TakenView(long act, long entries, int calendars, boolean work) {}

  /**
   * How far a change of the set has come through the records.
   *
   * @param done records gone through, out of so many in all
   * @param entries changed so far
   */
  @Schema(name = "SetWork")
  record WorkView(long act, ChangeStore.State state, long done, long total, long entries) {}
}
