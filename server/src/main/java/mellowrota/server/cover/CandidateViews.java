package mellowrota.server.cover;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import lombok.RequiredArgsConstructor;
import mellowrota.core.cover.Clash;
import mellowrota.core.cover.Commitments;
import mellowrota.core.cover.Eligibility;
import mellowrota.core.cover.WhoCould;
import mellowrota.core.cover.Work;
import mellowrota.core.people.Person;
import mellowrota.core.time.TimeSpan;
import mellowrota.core.time.Validity;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.records.RecordAccess;
import mellowrota.server.sight.World;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Who could do something, and what speaks against each, as one person may be told of it. */
@Component
@RequiredArgsConstructor
class CandidateViews {

  /** What is of two works, of which the other is told. */
  private static final Set<WhoCould.Why> TOLD_WITH =
      EnumSet.of(WhoCould.Why.DOUBLE, WhoCould.Why.TRAVEL, WhoCould.Why.REST, WhoCould.Why.MARGIN);

  private final RecordAccess access;

  @Schema(name = "WhoCouldLack")
  record LackView(
      String skill,
      @Schema(description = "The first day on which they have it, where that is set")
          @Nullable LocalDate begins,
      @Schema(description = "The last day on which they have it, where that is set")
          @Nullable LocalDate ends) {

    static LackView of(String skill, Eligibility able) {
      Optional<Validity> days = Optional.ofNullable(able.skills().get(skill));
      return new LackView(
          skill,
          days.flatMap(Validity::first).orElse(null),
          days.flatMap(Validity::last).orElse(null));
    }
  }

  @Schema(name = "WhoCouldReason")
  record ReasonView(
      WhoCould.Why why,
      @Schema(description = "Rules the person out; otherwise a warning") boolean never,
      Instant start,
      Instant end,
      @Schema(description = "How much it would be: minutes of a time, else a count")
          @Nullable Long is,
      @Schema(description = "What the limits allow, in the same unit") @Nullable Long limit,
      @Schema(description = "Ref and title of the work in its way, as far as the caller may see it")
          List<String> with,
      @Schema(description = "The skills that are missing") List<LackView> lacks) {}

  @Schema(name = "WhoCouldTime")
  record TimeView(Clash.Sort sort, Instant start, Instant end, boolean tentative) {}

  @Schema(name = "WhoCould")
  record AnswerView(
      long person,
      String name,
      WhoCould.Verdict verdict,
      List<ReasonView> reasons,
      @Schema(description = "Of work in that week") long weekMinutes,
      @Schema(description = "No working hours are entered") boolean hoursUnsaid,
      @Schema(description = "What takes the person’s time from a day before to a day after")
          List<TimeView> around,
      @Schema(
              description =
                  "To it from the nearest of what they do within a day; not there: nobody knows")
          @Nullable Long wayMinutes) {}

  /** As it is told where nothing more is known of it. */
  static List<ReasonView> reasons(List<WhoCould.Reason> reasons) {
    return reasons.stream().map(one -> view(one, List.of(), List.of())).toList();
  }

  private static ReasonView view(WhoCould.Reason one, List<String> with, List<LackView> lacks) {
    return new ReasonView(
        one.why(),
        one.never(),
        one.span().start(),
        one.span().end(),
        one.figure().map(WhoCould.Figure::is).orElse(null),
        one.figure().map(WhoCould.Figure::limit).orElse(null),
        with,
        lacks);
  }

  /** With the work that is in their way by name, where the asker may see that. */
  List<AnswerView> answers(World world, Person asker, CandidateFinder.Asked asked) {
    Map<Long, String> names =
        names(
            world,
            asker,
            asked.around(),
            asked.answers().stream()
                .flatMap(one -> one.reasons().stream())
                .flatMap(one -> one.with().stream())
                .filter(item -> item.sort() == Clash.Sort.WORK)
                .map(ClashViews::record)
                .collect(Collectors.toSet()));
    return asked.answers().stream()
        .map(
            one ->
                new AnswerView(
                    one.candidate().person().value(),
                    one.candidate().name(),
                    one.verdict(),
                    one.reasons().stream()
                        .map(why -> view(why, with(why, names), lacks(why, one, asked.work())))
                        .toList(),
                    one.candidate().load().toMinutes(),
                    one.candidate().of().hours().isUnsaid(),
                    around(asked.work().span(), one.candidate().of()),
                    one.way().map(Duration::toMinutes).orElse(null)))
        .toList();
  }

  private Map<Long, String> names(
      World world, Person asker, CrewTimes.Around around, Collection<Long> ids) {
    List<WorkRecord> records = ids.stream().flatMap(id -> around.record(id).stream()).toList();
    Map<Long, String> found = new HashMap<>();
    for (RecordAccess.Standing one : access.standings(world, asker, records)) {
      if (one.opens()) {
        List<String> parts = new ArrayList<>();
        if (one.sees(DetailKey.REF)) {
          parts.add(one.record().ref());
        }
        if (one.sees(DetailKey.TITLE)) {
          one.record().text(DetailKey.TITLE).ifPresent(parts::add);
        }
        found.put(one.record().id().value(), String.join(" ", parts));
      }
    }
    return found;
  }

  private static List<String> with(WhoCould.Reason why, Map<Long, String> names) {
    return !TOLD_WITH.contains(why.why())
        ? List.of()
        : why.with().stream()
            .filter(item -> item.sort() == Clash.Sort.WORK)
            .map(item -> names.getOrDefault(ClashViews.record(item), ""))
            .filter(name -> !name.isEmpty())
            .distinct()
            .toList();
  }

  private static List<LackView> lacks(WhoCould.Reason why, WhoCould.Answer answer, Work work) {
    if (why.why() != WhoCould.Why.SKILL) {
      return List.of();
    }
    Eligibility able = answer.candidate().of().able();
    return work.asks().places().stream()
        .flatMap(Optional::stream)
        .distinct()
        .sorted()
        .map(skill -> LackView.of(skill, able))
        .toList();
  }

  private static List<TimeView> around(TimeSpan asked, Commitments of) {
    TimeSpan days =
        TimeSpan.of(asked.start().minus(Duration.ofDays(1)), asked.end().plus(Duration.ofDays(1)));
    List<TimeView> found = new ArrayList<>();
    of.work().forEach(one -> add(found, days, Clash.Sort.WORK, one.span(), one.tentative()));
    of.leave().forEach(one -> add(found, days, Clash.Sort.LEAVE, one.span(), false));
    of.busy().forEach(one -> add(found, days, Clash.Sort.BUSY, one.span(), one.tentative()));
    return found;
  }

  private static void add(
      List<TimeView> found, TimeSpan days, Clash.Sort sort, TimeSpan span, boolean tentative) {
    days.intersection(span)
        .ifPresent(part -> found.add(new TimeView(sort, part.start(), part.end(), tentative)));
  }
}
