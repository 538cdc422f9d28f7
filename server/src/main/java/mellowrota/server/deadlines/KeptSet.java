package mellowrota.server.deadlines;

import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.function.Function;
import java.util.stream.Collectors;
import lombok.With;
import mellowrota.core.deadline.Name;
import mellowrota.core.work.Due;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.Visit;
import mellowrota.core.work.When;
import mellowrota.core.work.WorkRecord;

/**
 * The deadlines of a chain for one key date, as they are kept.
 *
 * @param no of its latest version
 */
public record KeptSet(long id, long chain, int no, @With Belongs to, State state) {

  /**
   * What its key date belongs to.
   *
   * @param record work that gives its people and place; empty: a place or a date alone
   * @param follows which date of that work it is; empty: it is typed
   * @param place that of the work, as it was when the set was made; see {@link Ground#present}
   * @param zone likewise
   */
  @With
  public record Belongs(
      Optional<RecordId> record, Optional<Follows> follows, Optional<PlaceId> place, ZoneId zone) {}

  /**
   * A date of the work.
   *
   * @param name of a named date, else empty
   */
  public record Follows(What what, String name) {

    /** Which sort of date. */
    public enum What {
      BEGINS,
      DUE,
      DATE
    }

    /** As the work says it now. */
    public Optional<Due> date(WorkRecord record) {
      return switch (what) {
        case BEGINS ->
            record.visits().stream()
                .map(Visit::when)
                .flatMap(Optional::stream)
                .findFirst()
                .map(Follows::begin);
        case DUE -> record.due();
        case DATE ->
            record.dates().stream()
                .filter(one -> one.name().equals(name))
                .findFirst()
                .map(one -> one.when());
      };
    }

    private static Due begin(When when) {
      return when instanceof When.Timed timed
          ? new Due.At(timed.start())
          : new Due.On(((When.AllDay) when).days().first());
    }
  }

  /**
   * What an act made of it.
   *
   * @param chainVersion the number of the text, not that of the version within its chain
   * @param method the number of the one chosen
   * @param isOff it was taken off, with all that was not done
   */
  @With
  public record State(
      long act,
      long chainVersion,
      Optional<Due> keyDate,
      OptionalLong method,
      Map<Name, Boolean> answers,
      List<Line> lines,
      boolean isOff) {

    /** Of a set by that text of which nothing is said yet. */
    static State of(long chainVersion) {
      return new State(
          0, chainVersion, Optional.empty(), OptionalLong.empty(), Map.of(), List.of(), false);
    }

    /** Its lines by their steps. */
    Map<Name, Line> byStep() {
      return lines.stream().collect(Collectors.toMap(Line::step, Function.identity()));
    }
  }

  /**
   * A step.
   *
   * @param record the deadline; empty: it never had a date
   * @param given the date that the act gave it
   * @param byHand the deadline's own date was set by hand
   */
  public record Line(
      Name step,
      @With Optional<RecordId> record,
      Optional<Due> given,
      boolean leftOut,
      boolean byHand) {}
}
