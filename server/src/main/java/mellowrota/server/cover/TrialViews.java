package mellowrota.server.cover;

import static mellowrota.server.platform.Words.say;

import java.time.Duration;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import lombok.RequiredArgsConstructor;
import mellowrota.core.cover.Clash;
import mellowrota.core.cover.WhoCould;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.work.Place;
import mellowrota.server.crew.WorkTimes;
import mellowrota.server.platform.Lengths;
import mellowrota.server.platform.SpanWords;
import mellowrota.server.sight.World;
import org.springframework.stereotype.Component;

/** What a change makes wrong, as one person may be told of it. */
@Component
@RequiredArgsConstructor
class TrialViews {

  private final WorkTimes times;
  private final ClashViews views;

  /**
   * What somebody is told.
   *
   * @param says what is wrong, each with its remedy, each once
   * @param clashes those of whom the asker answers for
   */
  record Told(List<String> says, List<ClashViews.ClashView> clashes) {}

  /** Those of whom the asker answers for, and for the coordinator those of places. */
  List<Clash> known(Person asker, List<Clash> clashes) {
    Set<PersonId> answered =
        times.answeredForBy(
            asker, clashes.stream().flatMap(one -> one.person().stream()).distinct().toList());
    return clashes.stream()
        .filter(one -> one.person().map(answered::contains).orElseGet(asker::isCoordinator))
        .toList();
  }

  /** Of whom the asker does not answer for they are told only that it cannot be. */
  Told of(World world, Person asker, SaveTrial.Found found, List<Clash> clashes) {
    List<Clash> told = known(asker, clashes);
    Set<String> says = new TreeSet<>();
    told.forEach(one -> says.add(why(world, one, found)));
    clashes.stream()
        .filter(one -> !told.contains(one))
        .map(
            one ->
                one.person()
                    .map(person -> say("cover.breaks-unavailable", world.person(person).name()))
                    .orElseGet(() -> say("cover.breaks-full")))
        .forEach(says::add);
    return new Told(List.copyOf(says), views.of(world, asker, found.around(), told));
  }

  /** What is wrong, by how much, and how to mend it. */
  private static String why(World world, Clash clash, SaveTrial.Found found) {
    if (clash.person().isEmpty()) {
      Optional<Place> place = clash.place().flatMap(world.places()::find);
      ZoneId zone = place.flatMap(Place::zone).orElse(world.house().zone());
      String where = place.map(Place::name).orElse("");
      String when = SpanWords.said(clash.span(), zone);
      return clash.kind() == Clash.Kind.SHUT
          ? say("cover.breaks-shut", where, when)
          : say("cover.breaks-capacity", where, when);
    }
    PersonId person = clash.person().get();
    String who = world.person(person).name();
    String when = SpanWords.said(clash.span(), found.around().zone(person));
    Optional<WhoCould.Figure> figure =
        WhoCould.Figure.of(clash, found.around().commitments(person), found.limits());
    String is = figure.map(one -> amount(clash.kind(), one.is())).orElse("");
    String most = figure.map(one -> amount(clash.kind(), one.limit())).orElse("");
    return switch (clash.kind()) {
      case DOUBLE -> say("cover.breaks-double", who, when);
      case LEAVE -> say("cover.breaks-leave", who, when);
      case BUSY -> say("cover.breaks-busy", who, when);
      case TRAVEL -> say("cover.breaks-travel", who, when);
      case REST -> say("cover.breaks-rest", who, is, most, when);
      case MARGIN -> say("cover.breaks-margin", who, when);
      case HOURS -> say("cover.breaks-hours", who, when);
      case LONGEST -> say("cover.breaks-longest", who, is, most, when);
      case WEEK -> say("cover.breaks-week", who, is, most, when);
      case PERIOD -> say("cover.breaks-period", who, when);
      case DAYS -> say("cover.breaks-days", who, is, most, when);
      case NIGHTS -> say("cover.breaks-nights", who, is, most, when);
      case SKILL -> say("cover.breaks-skill", who, when);
      case LEFT -> say("cover.breaks-left", who, when);
      // Of a place alone, and of due times alone, which no visit is part of.
      case CAPACITY, SHUT, DUE -> throw new IllegalStateException(clash.toString());
    };
  }

  /** Minutes of a time, else a count. */
  private static String amount(Clash.Kind kind, long amount) {
    return switch (kind) {
      case REST, LONGEST, WEEK, PERIOD -> Lengths.said(Duration.ofMinutes(amount));
      default -> Long.toString(amount);
    };
  }
}
