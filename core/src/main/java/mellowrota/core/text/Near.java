package mellowrota.core.text;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/** The known name that somebody most likely meant. */
public final class Near {

  private static final List<String> ARTICLES = List.of("the ", "a ", "an ");

  private Near() {}

  /**
   * That with the fewest edits, at most one for each four characters begun; of equals the first.
   */
  public static Optional<String> of(String typed, Collection<String> known) {
    return all(typed, known).stream().findFirst();
  }

  /** All with the fewest edits, in the order of those that are known. */
  public static List<String> all(String typed, Collection<String> known) {
    List<String> nearest = new ArrayList<>();
    int fewest = Integer.MAX_VALUE;
    for (String tried : tries(typed.toLowerCase(Locale.ROOT))) {
      int most = (tried.codePointCount(0, tried.length()) + 3) / 4;
      int[] chars = tried.codePoints().toArray();
      for (String one : known) {
        int[] other = one.toLowerCase(Locale.ROOT).codePoints().toArray();
        boolean may = Math.abs(chars.length - other.length) <= Math.min(most, fewest);
        int edits = may ? edits(chars, other, most) : Integer.MAX_VALUE;
        if (edits <= most && edits <= fewest) {
          if (edits < fewest) {
            nearest.clear();
          }
          fewest = edits;
          nearest.add(one);
        }
      }
    }
    return nearest;
  }

  private static List<String> tries(String typed) {
    return ARTICLES.stream()
        .filter(one -> typed.startsWith(one) && typed.length() > one.length())
        .findFirst()
        .map(one -> List.of(typed, typed.substring(one.length())))
        .orElse(List.of(typed));
  }

  /** Characters put in, taken out, changed, and neighbours swapped (optimal string alignment). */
  private static int edits(int[] one, int[] other, int most) {
    int[] beforeLast = new int[other.length + 1];
    int[] last = new int[other.length + 1];
    int[] now = new int[other.length + 1];
    for (int j = 0; j <= other.length; j++) {
      last[j] = j;
    }
    for (int i = 1; i <= one.length; i++) {
      now[0] = i;
      int least = i;
      for (int j = 1; j <= other.length; j++) {
        int changed = last[j - 1] + (one[i - 1] == other[j - 1] ? 0 : 1);
        now[j] = Math.min(changed, Math.min(last[j], now[j - 1]) + 1);
        boolean swapped =
            i > 1 && j > 1 && one[i - 1] == other[j - 2] && one[i - 2] == other[j - 1];
        if (swapped) {
          now[j] = Math.min(now[j], beforeLast[j - 2] + 1);
        }
        least = Math.min(least, now[j]);
      }
      if (least > most + 1) {
        return Integer.MAX_VALUE;
      }
      int[] free = beforeLast;
      beforeLast = last;
      last = now;
      now = free;
    }
    return last[other.length];
  }
}
