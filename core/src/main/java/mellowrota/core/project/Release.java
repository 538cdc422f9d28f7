package mellowrota.core.project;

import java.util.Objects;
import java.util.Optional;
import mellowrota.core.entry.EntryKey;
import mellowrota.core.sight.Released;

/** How it stands with the coordinator's yes to an entry whose rule asks for one. */
public sealed interface Release {

  /** Nobody has said yes yet: no reader gets it. */
  record Never() implements Release {}

  /** What it says now is what readers get: somebody says yes to it, or it never needed one. */
  record AsItStands() implements Release {}

  /** Readers keep this. */
  record Last(Released released) implements Release {
    public Last {
      Objects.requireNonNull(released, "released");
    }
  }

  /** It was taken off; it may come back without a yes if it reads as it did. */
  record IfTheSame(Released released) implements Release {
    public IfTheSame {
      Objects.requireNonNull(released, "released");
    }
  }

  /** Of each entry of some records; asked for none whose rule needs no yes. */
  @FunctionalInterface
  interface Known {
    Release of(EntryKey key);

    /** Where there is no store: every entry is as it stands. */
    Known NONE_WAITS = key -> new AsItStands();
  }

  /** What was released, as far as something was. */
  default Optional<Released> last() {
    return this instanceof Last last ? Optional.of(last.released()) : Optional.empty();
  }
}
