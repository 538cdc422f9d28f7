package mellowrota.server.sight.store;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.Set;
import java.util.stream.Collectors;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.calendar.Level;
import mellowrota.core.calendar.Rendering;
import mellowrota.core.calendar.RenderingId;
import mellowrota.core.people.PersonId;

/** A way of reading a calendar. */
@Entity
@Table(name = "rendering")
final class RenderingEntity {

  enum Way {
    MEMBERS,
    FEED,
    OWN_FEED,
    SHARE,
    COPY,
    WITHDRAWN
  }

  @Id
  @GeneratedValue(strategy = GenerationType.IDENTITY)
  Long id;

  long calendar;

  @Enumerated(EnumType.STRING)
  Way way;

  Long reader;

  @Enumerated(EnumType.STRING)
  Level level = Level.ALL;

  /** Rises when what is shown is cut otherwise, so that clients read afresh. */
  long accessNo = 1;

  /** The first day on which it is over. */
  LocalDate untilDay;

  /** Who reads a copy beside its owner, by their numbers; null: others may. */
  String alsoReadBy;

  protected RenderingEntity() {}

  RenderingEntity(CalendarId calendar, Rendering.Way way) {
    this.calendar = calendar.value();
    become(way);
  }

  final void become(Rendering.Way of) {
    if (of instanceof Rendering.Way.Members) {
      way = Way.MEMBERS;
    } else if (of instanceof Rendering.Way.Feed feed) {
      way = Way.FEED;
      level = feed.level();
    } else if (of instanceof Rendering.Way.OwnFeed feed) {
      way = Way.OWN_FEED;
      reader = feed.person().value();
      level = feed.level();
    } else if (of instanceof Rendering.Way.Share share) {
      way = Way.SHARE;
      reader = share.reader().value();
      level = share.level();
    } else if (of instanceof Rendering.Way.Copy copy) {
      way = Way.COPY;
      alsoReadBy = copy.others() ? null : numbers(copy.alsoRead());
    }
  }

  private static String numbers(Set<PersonId> people) {
    return people.stream()
        .map(PersonId::value)
        .sorted()
        .map(String::valueOf)
        .collect(Collectors.joining(","));
  }

  Rendering rendering() {
    return new Rendering(RenderingId.of(id), CalendarId.of(calendar), way());
  }

  private Rendering.Way way() {
    return switch (way) {
      case MEMBERS -> new Rendering.Way.Members();
      case FEED -> new Rendering.Way.Feed(level);
      case OWN_FEED -> new Rendering.Way.OwnFeed(PersonId.of(reader), level);
      case SHARE -> new Rendering.Way.Share(PersonId.of(reader), level);
      case COPY -> new Rendering.Way.Copy(alsoRead(), alsoReadBy == null);
      case WITHDRAWN -> throw new IllegalStateException("nobody reads by what is withdrawn: " + id);
    };
  }

  private Set<PersonId> alsoRead() {
    return alsoReadBy == null || alsoReadBy.isEmpty()
        ? Set.of()
        : Arrays.stream(alsoReadBy.split(","))
            .map(id -> PersonId.of(Long.parseLong(id)))
            .collect(Collectors.toSet());
  }
}
