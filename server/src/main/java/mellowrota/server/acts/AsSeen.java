package mellowrota.server.acts;

import java.util.List;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.function.Supplier;
import lombok.RequiredArgsConstructor;
import mellowrota.core.sight.Face;
import mellowrota.server.platform.IfMatch;
import mellowrota.server.platform.Problem;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import tools.jackson.databind.JsonNode;

/** Changes of what must still be as its changer saw it. */
@Component
@RequiredArgsConstructor
public class AsSeen {

  private final TransactionTemplate transaction;
  private final HouseLock house;

  /** A view that tells its own tag, by which it is changed. */
  public interface Tagged<V> {

    String tag();

    V withTag(String tag);
  }

  /** A view with its tag; it has had an empty one. */
  public static <V extends Tagged<V>> V tagged(V view) {
    return view.withTag(tag(view));
  }

  /** The tag of what somebody sees; it tells nothing of what they do not see (SIGHT 8). */
  public static String tag(Object seen) {
    return '"' + Face.digest(seen.toString()) + '"';
  }

  /**
   * The one of what somebody sees.
   *
   * @throws Problem 404 where they see none
   */
  public static <V> V only(List<V> seen, Predicate<V> which) {
    return seen.stream().filter(which).findFirst().orElseThrow(Problem::notFound);
  }

  /**
   * Does a change, where what is changed is still as its changer saw it; no other act runs from
   * there until it is done.
   *
   * @param now as the asker would see it now
   * @param mine what they sent
   * @throws Problem 412 with theirs and mine
   */
  public void change(
      IfMatch match, Supplier<? extends Tagged<?>> now, JsonNode mine, Runnable change) {
    change(match, now, Tagged::tag, mine, change);
  }

  /** The same of a part of what is seen, which has a tag of its own. */
  public <V> void change(
      IfMatch match, Supplier<V> now, Function<V, String> tag, JsonNode mine, Runnable change) {
    transaction.executeWithoutResult(
        status -> {
          house.lock(true);
          V theirs = now.get();
          match.require(tag.apply(theirs), theirs, mine);
          change.run();
        });
  }
}
