package mellowrota.server.rules;

import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonProperty;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.List;
import java.util.stream.Stream;
import mellowrota.core.calendar.Level;
import mellowrota.core.rule.LandingRule;
import mellowrota.core.rule.Shape;
import mellowrota.core.work.DetailSort;
import mellowrota.server.acts.Leaving;
import mellowrota.server.records.LandingView;
import mellowrota.server.records.RecordSchemas;
import mellowrota.server.records.SightViews;

/** Rules, wordings and details as they are told and sent. */
final class SetViews {

  private SetViews() {}

  /**
   * What a rule asks of a record: exactly one of these.
   *
   * @param startsBetween two times of day, half-open
   */
  @Schema(name = "Condition")
  @JsonInclude(JsonInclude.Include.NON_NULL)
  record ConditionView(
      List<ConditionView> all,
      List<ConditionView> any,
      List<ConditionView> none,
      List<String> kind,
      List<String> state,
      String tag,
      Long team,
      Long place,
      Integer role,
      String detail,
      @JsonProperty("private") Boolean isPrivate,
      Long madeBy,
      List<String> startsBetween,
      Boolean allDay) {}

  /**
   * Where a rule lands: exactly one of these.
   *
   * @param ownOf own calendars of who holds one of these roles
   * @param teamsOf calendars of the teams that the people in these roles are directly in
   * @param calendar a date list or a named calendar
   */
  @Schema(name = "Target")
  @JsonInclude(JsonInclude.Include.NON_NULL)
  record TargetView(
      List<Integer> ownOf,
      List<Integer> teamsOf,
      Boolean thePlaces,
      Boolean master,
      Long calendar) {}

  /**
   * A landing rule.
   *
   * @param id absent for a new one
   * @param as SPAN, SPAN_WITH_MARGINS, WHOLE_DAY, AS_IT_COMES, GIVEN_DUE or DUE_MARK
   * @param busy absent: as the shape says
   * @param whenDone STAYS_WITH_TICK or COMES_OFF
   * @param attendees EVERYBODY or ONLY_ONESELF; absent: NOBODY
   * @param afterYes whether what it lands waits for a coordinator's yes
   * @param note why the rule exists
   */
  @Schema(name = "Rule")
  @JsonInclude(JsonInclude.Include.NON_NULL)
  record RuleView(
      Long id,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) boolean on,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) ConditionView when,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<TargetView> lands,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED, implementation = Shape.class) String as,
      Long wording,
      Boolean busy,
      @Schema(
              requiredMode = Schema.RequiredMode.REQUIRED,
              implementation = LandingRule.WhenDone.class)
          String whenDone,
      List<ReminderView> reminders,
      String attendees,
      Boolean afterYes,
      String note) {}

  /**
   * How long before its due time or start an entry rings.
   *
   * @param unit MINUTES, HOURS or WORKING_DAYS
   */
  @Schema(name = "Reminder")
  record ReminderView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) int amount,
      @Schema(
              requiredMode = Schema.RequiredMode.REQUIRED,
              allowableValues = {"MINUTES", "HOURS", "WORKING_DAYS"})
          String unit) {}

  /**
   * A wording.
   *
   * @param fresh for a new one, whose number is only for the rules of the same wish to name it by
   * @param fixed why nobody may put a title of their own in place of its title
   */
  @Schema(name = "Wording")
  @JsonInclude(JsonInclude.Include.NON_NULL)
  record WordingView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long id,
      Boolean fresh,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String name,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String title,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String place,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String text,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<String> categories,
      String fixed) {}

  /**
   * A detail of the house's records.
   *
   * @param key what wordings call it
   * @param sort TEXT, NOTES, NUMBER, MONEY, DATE, PHONE, ADDRESS, CHOICE, YES_NO or LINK
   * @param states in which it applies; none: in all
   * @param typed whether people type it, and it is not worked out from the record
   * @param own whether it is the house's own and can be taken out again
   */
  @Schema(name = "DetailDefinition")
  record DetailView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String key,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String label,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<String> kinds,
      @JsonProperty("for") @Schema(requiredMode = Schema.RequiredMode.REQUIRED)
          ForSets.ForView forWhom,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED, implementation = DetailSort.class)
          String sort,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<String> choices,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<String> states,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) boolean typed,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) boolean own) {}

  /** The wordings of kinds whose rule names none, by number. */
  @Schema(name = "UsualWordings")
  @JsonInclude(JsonInclude.Include.NON_NULL)
  record UsualView(
      @JsonProperty("JOB") Long job,
      @JsonProperty("TICKET") Long ticket,
      @JsonProperty("SHIFT") Long shift,
      @JsonProperty("DEADLINE") Long deadline) {}

  /** How many entries a rule lands now. */
  @Schema(name = "RuleCount")
  record CountView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long rule,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long entries,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) int calendars) {}

  /**
   * All rules in their order, all wordings and all details.
   *
   * @param usual the wording of each kind whose rule names none
   * @param fallback the wording of the other kinds
   * @param titlesFixed why nobody may call things their own way on their own calendar
   * @param tag of the set as it stands; a change of it names the tag it began with
   */
  @Schema(name = "RuleSet")
  @JsonInclude(JsonInclude.Include.NON_NULL)
  record SetView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String tag,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<RuleView> rules,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<WordingView> wordings,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<DetailView> details,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) UsualView usual,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long fallback,
      String titlesFixed,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<CountView> counts) {}

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
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String tag,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<RuleView> rules,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<WordingView> wordings,
      List<DetailView> details,
      UsualView usual,
      String titlesFixed,
      @Schema(format = "date") String from,
      String looked,
      Long record,
      RecordSchemas.ChangeSchema typed) {}

  /** What a set would make of one record. */
  @Schema(name = "Tried")
  record TriedView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) LandingView landings,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) SightViews.SightView sight) {}

  /** What would become of the entries of one calendar. */
  @Schema(name = "CalendarOutlook")
  record CalendarView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long calendar,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String name,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long added,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long changed,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long takenOff) {}

  /**
   * A detail that readers would newly see, or see no longer.
   *
   * @param readers who they are, in words
   * @param entries on how many entries
   */
  @Schema(name = "SightChange")
  record SightView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long calendar,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String name,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String readers,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String detail,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long entries) {}

  /**
   * A detail that would be for others than it is, on our screens too.
   *
   * @param before whom it is for, in words
   * @param records how many hold it
   */
  @Schema(name = "ForChange")
  record ForChangeView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String detail,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String before,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String after,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) boolean wider,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long records) {}

  /**
   * What ends with somebody who leaves.
   *
   * @param calendar of ours which a feed or share showed
   * @param reader whom a share was for
   */
  @Schema(name = "EndsWith")
  @JsonInclude(JsonInclude.Include.NON_NULL)
  record EndsView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) Leaving.Sort sort,
      String label,
      Long calendar,
      String calendarName,
      Long reader,
      String readerName,
      Level level,
      LocalDate until) {}

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
  @Schema(name = "SetOutlook")
  record OutlookView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String looked,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) boolean finished,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long records,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long total,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long added,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long changed,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long takenOff,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long waits,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<CalendarView> calendars,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<SightView> shown,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<SightView> hidden,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<ForChangeView> readers,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<String> warnings,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<EndsView> ends,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String digest) {

    /** With more that is newly shown, and hidden, and what ends with whoever leaves. */
    OutlookView with(List<SightView> moreShown, List<SightView> moreHidden, List<EndsView> ending) {
      return new OutlookView(
          looked,
          finished,
          records,
          total,
          added,
          changed,
          takenOff,
          waits,
          calendars,
          Stream.concat(moreShown.stream(), shown.stream()).toList(),
          Stream.concat(moreHidden.stream(), hidden.stream()).toList(),
          readers,
          warnings,
          ending,
          digest);
    }
  }

  /** What taking a set did, or does: where it is work, it goes on in the background. */
  @Schema(name = "SetTaken")
  record TakenView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long act,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long entries,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) int calendars,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) boolean work) {}

  /**
   * How far a change of the set has come through the records.
   *
   * @param state RUNNING or STOPPED
   * @param done records gone through, out of so many in all
   * @param entries changed so far
   */
  @Schema(name = "SetWork")
  record WorkView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long act,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String state,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long done,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long total,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long entries) {}
}
