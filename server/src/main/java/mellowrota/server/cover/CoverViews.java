package mellowrota.server.cover;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lombok.RequiredArgsConstructor;
import mellowrota.core.cover.Cover;
import mellowrota.core.cover.Duty;
import mellowrota.core.cover.Fill;
import mellowrota.core.cover.Load;
import mellowrota.core.cover.Swaps;
import mellowrota.core.cover.WhenCould;
import mellowrota.core.cover.WhoCould;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.time.TimeSpan;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.Place;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.records.RecordAccess;
import mellowrota.server.records.RecordViews;
import mellowrota.server.records.store.RecordStore;
import mellowrota.server.sight.World;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Cover as one person may see it. */
@Component
@RequiredArgsConstructor
class CoverViews {

  private final ClashViews clashes;
  private final RecordStore store;
  private final RecordAccess access;

  @Schema(name = "CoverAsk", description = "A duty, or one visit of a record that needs people")
  record AskView(
      String key,
      @Nullable Long duty,
      @Nullable Long record,
      @Nullable Integer visit,
      @Schema(description = "Of the record, where the caller may see it") @Nullable String ref,
      String name,
      String place,
      @Schema(description = "Its time zone") String zone,
      @Schema(description = "The most people it needs") int most,
      @Schema(description = "Named once for each person who needs to have it") List<String> skills,
      @Schema(description = "Needs nobody yet, and is not a gap") boolean tentative) {}

  @Schema(name = "CoverStretch")
  record StretchView(
      String ask,
      Instant start,
      Instant end,
      int needed,
      int filled,
      @Schema(description = "How many more tentative work would fill") int maybe) {}

  @Schema(name = "CoverGap")
  record GapView(
      String ask,
      Instant start,
      Instant end,
      @Schema(description = "It began before that already") boolean beganBefore,
      @Schema(description = "It goes on after that") boolean goesOn,
      int shortBy,
      @Schema(description = "Needed by some of those missing") List<String> skills,
      @Schema(description = "What somebody can be given of it: each shift of a duty, else all")
          List<SpanView> spans,
      @Schema(
              description =
                  "People who are there and do not count, of those the caller coordinates")
          List<UncountedView> uncounted) {}

  @Schema(name = "CoverUncounted")
  record UncountedView(
      long person,
      String name,
      Uncounted.Why why,
      @Schema(description = "The role they have, where it is another") @Nullable String role) {}

  @Schema(name = "CoverSpan")
  record SpanView(Instant start, Instant end) {}

  @Schema(name = "Cover")
  record CoverView(
      LocalDate from,
      LocalDate until,
      String zone,
      List<AskView> asks,
      List<StretchView> stretches,
      @Schema(description = "Gaps to come by start, then past ones, latest first")
          List<GapView> gaps,
      long neededMinutes,
      long filledMinutes,
      @Schema(description = "Tenths of a per cent, rounded down; absent if nothing is required")
          @Nullable Long sharePerMille,
      @Schema(description = "Of people the caller coordinates, by start")
          List<ClashViews.ClashView> clashes,
      @Schema(description = "Days on which one person has too much due")
          List<ClashViews.ClashView> pileUps) {}

  CoverView of(World world, Person asker, LocalDate from, LocalDate until, Covers.Look look) {
    Cover cover = look.cover();
    Map<String, Duties.Kept> duties =
        look.duties().stream().collect(Collectors.toMap(Duties.Kept::key, one -> one));
    return new CoverView(
        from,
        until,
        world.house().zone().getId(),
        Stream.concat(
                look.duties().stream().map(one -> view(world, one)),
                look.works().stream().map(one -> view(world, one)))
            .toList(),
        Stream.concat(cover.stretches().stream(), look.apart().stretches().stream())
            .map(CoverViews::view)
            .toList(),
        gaps(world, asker, duties, look),
        cover.share().needed(),
        cover.share().filled(),
        cover.share().perMille().orElse(null),
        clashes.of(world, asker, look.around(), look.clashes()),
        clashes.of(world, asker, look.around(), look.pileUps()));
  }

  private static StretchView view(Cover.Stretch one) {
    return new StretchView(
        one.need().by(),
        one.span().start(),
        one.span().end(),
        one.needed(),
        one.filled(),
        one.maybe());
  }

  /** Who does not count is named where the asker may see who does the work they are there by. */
  private List<GapView> gaps(
      World world, Person asker, Map<String, Duties.Kept> duties, Covers.Look look) {
    Map<Cover.Gap, List<Uncounted.One>> there = new LinkedHashMap<>();
    for (Cover.Gap gap : look.gaps()) {
      Optional<Duties.Kept> duty = Optional.ofNullable(duties.get(gap.of()));
      there.put(gap, Uncounted.of(gap, duty, look.around(), look.watched()));
    }
    Set<WorkRecord> records =
        there.values().stream()
            .flatMap(List::stream)
            .map(Uncounted.One::record)
            .collect(Collectors.toSet());
    Set<RecordId> seen =
        access.standings(world, asker, records).stream()
            .filter(one -> one.opens() && one.sees(DetailKey.PEOPLE))
            .map(one -> one.record().id())
            .collect(Collectors.toSet());
    return look.gaps().stream()
        .map(
            gap ->
                view(
                    world,
                    duties,
                    gap,
                    look.goOn().get(gap),
                    there.get(gap).stream()
                        .filter(one -> seen.contains(one.record().id()))
                        .toList()))
        .toList();
  }

  private static GapView view(
      World world,
      Map<String, Duties.Kept> duties,
      Cover.Gap gap,
      Covers.GoesOn goesOn,
      List<Uncounted.One> uncounted) {
    Duties.Kept duty = duties.get(gap.of());
    List<TimeSpan> spans = duty == null ? List.of(gap.span()) : Covers.own(world, duty, gap.span());
    return new GapView(
        gap.of(),
        gap.span().start(),
        gap.span().end(),
        goesOn.before(),
        goesOn.after(),
        gap.shortBy(),
        gap.open().stream().flatMap(Optional::stream).toList(),
        spans.stream().map(span -> new SpanView(span.start(), span.end())).toList(),
        uncounted.stream()
            .map(
                one ->
                    new UncountedView(
                        one.person().value(),
                        world.person(one.person()).name(),
                        one.why(),
                        one.role().map(role -> RecordViews.roleName(world, role)).orElse(null)))
            .toList());
  }

  private static AskView view(World world, Duties.Kept one) {
    Duty duty = one.in(world);
    List<Optional<String>> most =
        one.spans().stream()
            .map(span -> duty.places(span.hours()))
            .max(Comparator.comparingInt(List::size))
            .orElse(List.of());
    return new AskView(
        one.key(),
        one.id(),
        null,
        null,
        null,
        one.name(),
        place(world, Optional.of(one.place())),
        duty.zone().getId(),
        most.size(),
        most.stream().flatMap(Optional::stream).toList(),
        false);
  }

  private static AskView view(World world, Covers.Seen one) {
    Wanting wanting = one.wanting();
    RecordAccess.Standing standing = one.standing();
    return new AskView(
        one.key(),
        null,
        wanting.record().id().value(),
        wanting.visit().no(),
        standing.sees(DetailKey.REF) ? wanting.record().ref() : null,
        standing.sees(DetailKey.TITLE) ? wanting.record().text(DetailKey.TITLE).orElse("") : "",
        standing.sees(DetailKey.PLACE) ? place(world, wanting.record().place()) : "",
        wanting.zone().getId(),
        wanting.record().wants().people(),
        wanting.record().wants().skills(),
        wanting.isTentative());
  }

  private static String place(World world, Optional<PlaceId> place) {
    return place.flatMap(world.places()::find).map(Place::name).orElse("");
  }

  @Schema(name = "CoverSuggestion")
  record SuggestionView(
      String ask,
      Instant start,
      Instant end,
      @Schema(description = "Absent if nobody is available") @Nullable Long person,
      @Nullable String name,
      @Schema(description = "The best candidate, where nobody is available")
          @Nullable String nearest,
      @Schema(description = "Warnings about the person, or what rules out the best candidate")
          List<CandidateViews.ReasonView> reasons) {}

  private static @Nullable String name(World world, Optional<PersonId> person) {
    return person.map(id -> world.person(id).name()).orElse(null);
  }

  static List<SuggestionView> suggestions(World world, List<Fill.Suggestion> found) {
    return found.stream()
        .map(
            one ->
                new SuggestionView(
                    one.gap().of(),
                    one.gap().work().span().start(),
                    one.gap().work().span().end(),
                    one.person().map(PersonId::value).orElse(null),
                    name(world, one.person()),
                    name(world, one.nearest()),
                    CandidateViews.reasons(one.reasons())))
        .toList();
  }

  @Schema(name = "WhenCouldReason")
  record AgainstView(
      long person,
      String name,
      WhoCould.Why why,
      @Schema(description = "Rules the start out; otherwise a warning") boolean never) {}

  @Schema(
      name = "WhenCouldStarts",
      description = "Starts a quarter of an hour apart with the same reasons")
  record StartsView(
      Instant first,
      @Schema(description = "Included") Instant last,
      WhoCould.Verdict verdict,
      List<AgainstView> against) {}

  @Schema(name = "WhenCould")
  record WhenCouldView(
      @Schema(description = "The time zone of the place") String zone, List<StartsView> starts) {}

  static WhenCouldView starts(World world, CandidateFinder.Possible found) {
    return new WhenCouldView(
        found.zone().getId(), found.starts().stream().map(one -> view(world, one)).toList());
  }

  private static StartsView view(World world, WhenCould.Starts one) {
    return new StartsView(
        one.first(),
        one.last(),
        one.verdict(),
        one.against().stream()
            .map(
                why ->
                    new AgainstView(
                        why.person().value(),
                        world.person(why.person()).name(),
                        why.why(),
                        why.never()))
            .toList());
  }

  @Schema(name = "WorkLeft")
  record LeftView(
      @Schema(description = "Of work that the caller may open") @Nullable Long record,
      @Nullable Integer visit,
      @Nullable String ref,
      @Nullable String title,
      Instant start,
      Instant end,
      @Schema(description = "Who can take it; absent if nobody is available") @Nullable Long person,
      @Nullable String name,
      @Schema(description = "The best candidate, where nobody is available")
          @Nullable String nearest,
      @Schema(description = "Warnings about the person, or what rules out the best candidate")
          List<CandidateViews.ReasonView> reasons) {}

  List<LeftView> left(World world, Person asker, List<Fill.Suggestion> found) {
    List<LeftView> views = new ArrayList<>();
    for (Fill.Suggestion one : found) {
      Ask.OfVisit ask = (Ask.OfVisit) Ask.of(one.gap().of());
      Optional<RecordAccess.Standing> seen =
          store
              .find(RecordId.of(ask.record()), false)
              .map(record -> access.standing(world, asker, record))
              .filter(RecordAccess.Standing::opens);
      views.add(
          new LeftView(
              seen.map(standing -> ask.record()).orElse(null),
              seen.map(standing -> ask.visit()).orElse(null),
              seen.filter(standing -> standing.sees(DetailKey.REF))
                  .map(standing -> standing.record().ref())
                  .orElse(null),
              seen.filter(standing -> standing.sees(DetailKey.TITLE))
                  .flatMap(standing -> standing.record().text(DetailKey.TITLE))
                  .orElse(null),
              one.gap().work().span().start(),
              one.gap().work().span().end(),
              one.person().map(PersonId::value).orElse(null),
              name(world, one.person()),
              name(world, one.nearest()),
              CandidateViews.reasons(one.reasons())));
    }
    return views;
  }

  @Schema(name = "WorkSwap")
  record SwapView(
      long record,
      int visit,
      @Nullable String ref,
      @Nullable String title,
      Instant start,
      Instant end,
      @Schema(description = "Who has it") long person,
      String name,
      WhoCould.Verdict verdict,
      @Schema(description = "Why the other person should not have ours")
          List<CandidateViews.ReasonView> theirs,
      @Schema(description = "Why ours should not have the other person’s")
          List<CandidateViews.ReasonView> ours) {}

  static List<SwapView> swaps(List<CandidateFinder.Offer> found) {
    return found.stream()
        .map(
            one -> {
              RecordAccess.Standing seen = one.standing();
              Swaps.Side theirs = one.swap().theirs();
              return new SwapView(
                  seen.record().id().value(),
                  one.visit(),
                  seen.sees(DetailKey.REF) ? seen.record().ref() : null,
                  seen.sees(DetailKey.TITLE)
                      ? seen.record().text(DetailKey.TITLE).orElse(null)
                      : null,
                  theirs.work().span().start(),
                  theirs.work().span().end(),
                  theirs.holder().person().value(),
                  theirs.holder().name(),
                  one.swap().verdict(),
                  CandidateViews.reasons(one.swap().they().reasons()),
                  CandidateViews.reasons(one.swap().we().reasons()));
            })
        .toList();
  }

  @Schema(name = "CoverLoad", description = "Hours of a person; each list has one figure per day")
  record LoadView(
      long person,
      String name,
      @Schema(description = "A week; absent if not set") @Nullable Long contractMinutes,
      @Schema(description = "Minutes of scheduled work, overlaps counted once, by local day")
          List<Long> work,
      @Schema(description = "Minutes of tentative work only") List<Long> maybe,
      @Schema(description = "Estimated minutes of work by its due day") List<Long> given,
      List<Long> givenMaybe,
      @Schema(description = "Items that take a whole day and have no hours")
          List<Integer> wholeDays,
      @Schema(description = "Items by a due day without an estimate") int unestimated) {}

  static List<LoadView> loads(List<Loads.Laden> all) {
    return all.stream()
        .map(
            one -> {
              List<Load.Day> days = one.load().days();
              return new LoadView(
                  one.person().id().value(),
                  one.person().name(),
                  one.contract().map(Duration::toMinutes).orElse(null),
                  minutes(days, Load.Day::sure),
                  minutes(days, Load.Day::maybe),
                  minutes(days, Load.Day::given),
                  minutes(days, Load.Day::givenMaybe),
                  days.stream().map(day -> day.allDay() + day.allDayMaybe()).toList(),
                  one.load().unestimated().size());
            })
        .toList();
  }

  private static List<Long> minutes(List<Load.Day> days, Function<Load.Day, Duration> which) {
    return days.stream().map(day -> which.apply(day).toMinutes()).toList();
  }
}
