package mellowrota.core.cover;

import java.time.Instant;
import java.util.Comparator;
import java.util.Objects;
import mellowrota.core.people.PersonId;
import mellowrota.core.time.TimeSpan;

/**
 * Somebody who stands what a need asks for.
 *
 * @param of what the need is {@link Need#by}
 * @param given when it was given to them; of several at once the earliest fills
 * @param order breaks ties
 * @param tentative it fills nothing yet
 * @param meanwhile what it is of lets other work be done meanwhile, so that neither is in the
 *     other's way
 */
public record Filling(
    PersonId person,
    String of,
    TimeSpan span,
    Instant given,
    long order,
    boolean tentative,
    boolean meanwhile) {

  /** Confirmed before tentative, then the earliest given. */
  static final Comparator<Filling> FIRST =
      Comparator.comparing(Filling::tentative)
          .thenComparing(Filling::given)
          .thenComparingLong(Filling::order);

  public Filling {
    Objects.requireNonNull(person, "person");
    Objects.requireNonNull(of, "of");
    Objects.requireNonNull(span, "span");
    Objects.requireNonNull(given, "given");
  }
}
