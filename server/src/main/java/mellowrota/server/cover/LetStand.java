package mellowrota.server.cover;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Clock;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.Map;
import java.util.Optional;
import mellowrota.core.cover.Clash;
import mellowrota.core.people.PersonId;
import mellowrota.server.acts.Acts;
import mellowrota.server.platform.Problem;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;

/** Clashes that a coordinator lets stand, with the reason; each as it was then. */
@Service
class LetStand {

  private final JdbcClient jdbc;
  private final Acts acts;
  private final Clock clock;

  LetStand(JdbcClient jdbc, Acts acts, Clock clock) {
    this.jdbc = jdbc;
    this.acts = acts;
    this.clock = clock;
  }

  /** Who let it stand, when and why. */
  record Stood(String reason, PersonId by, Instant at) {}

  /** The same as long as neither side changes; with other times it is another one. */
  static String key(Clash clash) {
    StringBuilder text = new StringBuilder(clash.kind().name());
    text.append(clash.person().map(PersonId::value).orElse(0L));
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

  Map<String, Stood> all() {
    Map<String, Stood> found = new HashMap<>();
    jdbc.sql("select clash, reason, by_person, at from let_stand")
        .query(
            row -> {
              found.put(
                  row.getString(1),
                  new Stood(
                      row.getString(2),
                      PersonId.of(row.getLong(3)),
                      row.getObject(4, OffsetDateTime.class).toInstant()));
            });
    return found;
  }

  void let(PersonId actor, Clash clash, String reason) {
    acts.run(
        Acts.Wanted.by(actor, "cover.let-stand", Optional.empty(), ""),
        act -> {
          jdbc.sql(
                  """
                  insert into let_stand (clash, person, kind, reason, by_person, act, at)
                  values (?, ?, ?, ?, ?, ?, ?) on conflict (clash) do update
                    set reason = excluded.reason, by_person = excluded.by_person,
                      act = excluded.act, at = excluded.at
                  """)
              .param(key(clash))
              .param(clash.person().map(PersonId::value).orElse(null))
              .param(clash.kind().name())
              .param(reason)
              .param(actor.value())
              .param(act.id())
              .param(clock.instant().atOffset(ZoneOffset.UTC))
              .update();
          return "";
        });
  }

  void openAgain(PersonId actor, String clash) {
    acts.run(
        Acts.Wanted.by(actor, "cover.open-again", Optional.empty(), ""),
        act -> {
          if (jdbc.sql("delete from let_stand where clash = ?").param(clash).update() == 0) {
            throw Problem.notFound();
          }
          return "";
        });
  }
}
