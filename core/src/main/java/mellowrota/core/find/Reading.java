package mellowrota.core.find;

import java.util.List;

/**
 * What was understood of a line.
 *
 * @param pieces in the order of the line
 * @param offers where more than one reading fits, and none was taken
 */
public record Reading(List<Understood> pieces, List<Offer> offers) {

  /**
   * What some of the line asks for.
   *
   * @param from where it begins, in UTF-16 units, as is
   * @param until where it ends
   */
  public record Understood(int from, int until, Piece piece) {}

  /** Names that some of the line may mean; it finds by its words. */
  public record Offer(int from, int until, List<Names.Named> names) {
    public Offer {
      names = List.copyOf(names);
    }
  }

  public Reading {
    pieces = List.copyOf(pieces);
    offers = List.copyOf(offers);
  }
}
