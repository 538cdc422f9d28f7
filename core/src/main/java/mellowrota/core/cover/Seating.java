package mellowrota.core.cover;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/**
 * Who takes which place: as many places as can be, those that want a skill before those that want
 * none (maximum bipartite matching by augmenting paths; places taken first stay taken).
 */
final class Seating {

  /** Somebody who stands there now. */
  record Sitter(boolean[] fits, boolean notAlone) {}

  private final List<Sitter> sitters;
  private final int[] sitterOf;
  private final int[] placeOf;

  private Seating(List<Sitter> sitters, int places) {
    this.sitters = sitters;
    sitterOf = new int[places];
    placeOf = new int[sitters.size()];
    Arrays.fill(sitterOf, -1);
    Arrays.fill(placeOf, -1);
  }

  /** The places that stay open, by the skills they want; all of them where nobody may be alone. */
  static List<Optional<String>> open(List<Optional<String>> places, List<Sitter> sitters) {
    Seating seating = new Seating(sitters, places.size());
    for (boolean skilled : new boolean[] {true, false}) {
      for (int place = 0; place < places.size(); place++) {
        if (places.get(place).isPresent() == skilled) {
          seating.seat(place, new boolean[sitters.size()]);
        }
      }
    }
    if (!seating.hasCompany()) {
      return places;
    }
    List<Optional<String>> open = new ArrayList<>();
    for (int place = 0; place < places.size(); place++) {
      if (seating.sitterOf[place] < 0) {
        open.add(places.get(place));
      }
    }
    return open;
  }

  private boolean seat(int place, boolean[] tried) {
    for (int sitter = 0; sitter < sitters.size(); sitter++) {
      if (tried[sitter] || !sitters.get(sitter).fits()[place]) {
        continue;
      }
      tried[sitter] = true;
      if (placeOf[sitter] < 0 || seat(placeOf[sitter], tried)) {
        placeOf[sitter] = place;
        sitterOf[place] = sitter;
        return true;
      }
    }
    return false;
  }

  /** Whether one of those who count may be alone; who sits there can be changed for one who may. */
  private boolean hasCompany() {
    for (int sitter = 0; sitter < sitters.size(); sitter++) {
      Sitter one = sitters.get(sitter);
      if (!one.notAlone()) {
        for (boolean fits : one.fits()) {
          if (fits) {
            return true;
          }
        }
      }
    }
    return false;
  }
}
