package mellowrota.server.cover;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Clock;
import java.util.HexFormat;
import java.util.Map;
import java.util.Optional;
import lombok.RequiredArgsConstructor;
import mellowrota.core.cover.Clash;
import mellowrota.core.people.PersonId;
import mellowrota.server.acts.Acts;
import mellowrota.server.cover.store.LimitStore;
import mellowrota.server.platform.Problem;
import org.springframework.stereotype.Service;

/** Clashes that a coordinator lets stand, with the reason; each as it was then. */
@Service
@RequiredArgsConstructor
class ClashAcceptance {

  private final LimitStore store;
  private final Acts acts;
  private final Clock clock;

  /** The same as long as neither side changes; with other times it is another one. */
  static String key(Clash clash) {
    StringBuilder text = new StringBuilder(clash.kind().name());
    text.append(clash.person().map(PersonId::value).orElse(0L));
    clash.place().ifPresent(place -> text.append('@').append(place.value()));
    for (Clash.Item item : clash.items()) {
      text.append('|').append(item.sort()).append(item.id());
      text.append(item.span().start()).append(item.span().end());
    }
    try {
      byte[] hash =
          MessageDigest.getInstance("SHA-256")
              .digest(text.toString().getBytes(StandardCharsets.UTF_8));
      return HexFormat.of().formatHex(hash, 0, 16);
    } catch (NoSuchAlgorithmException never) {
      throw new IllegalStateException(never);
    }
  }

  Map<String, LimitStore.Stood> all() {
    return store.stood();
  }

  void let(PersonId actor, Clash clash, String reason) {
    acts.run(
        Acts.Wanted.by(actor, "cover.let-stand", Optional.empty(), ""),
        act -> {
          store.letStand(
              key(clash), clash, new LimitStore.Stood(reason, actor, clock.instant()), act.id());
          return "";
        });
  }

  void openAgain(PersonId actor, String clash) {
    acts.run(
        Acts.Wanted.by(actor, "cover.open-again", Optional.empty(), ""),
        act -> {
          if (!store.openAgain(clash)) {
            throw Problem.notFound();
          }
          return "";
        });
  }
}
