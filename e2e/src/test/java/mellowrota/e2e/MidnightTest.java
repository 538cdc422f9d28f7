package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/**
 * The house turns its day while people save, all of it at once: nothing waits for each other in a
 * circle, and what is in the way is tried again. {@code -Dmidnights=1000} has as many of them.
 */
public class MidnightTest extends OnDemo {

  private static final int MIDNIGHTS = Integer.getInteger("midnights", 12);
  private static final LocalDate FIRST = LocalDate.parse("2026-11-26");

  @Override
  String[] options() {
    return new String[] {"--mellow.day.look-every=5ms"};
  }

  @Test
  public void itTurnsWhileAllSave() {
    long ines = hana.idOf("people", "Ines Okafor");
    String body = "{\"title\": \"Saved at night\", \"people\": [{\"role\": 0, \"person\": %d}]}";
    List<Long> records = new ArrayList<>();
    for (int i = 0; i < 3; i++) {
      records.add(hana.record(body.formatted(ines)));
    }
    Map<String, AtomicInteger> answers = new ConcurrentHashMap<>();
    for (int night = 0; night < MIDNIGHTS; night++) {
      LocalDate day = FIRST.plusDays(night);
      String settled = "{\"readingInterval\": %d}".formatted(600 + night % 2);
      server.setClock(day + "T00:00:01Z");
      List<CompletableFuture<Void>> all = new ArrayList<>();
      for (int i = 0; i < 3; i++) {
        long record = records.get(i);
        String change = "{\"title\": \"Saved at night %d\"}".formatted(night);
        all.add(
            untilItTurned(
                day,
                answers,
                who -> who.patch("/api/v1/records/" + record, change, "If-Match", "*")));
      }
      all.add(untilItTurned(day, answers, who -> who.patch("/api/v1/house", settled)));
      all.add(
          untilItTurned(day, answers, who -> who.post("/api/v1/records", body.formatted(ines))));
      all.forEach(CompletableFuture::join);
    }
    assertThat(answers.keySet()).as(answers.toString()).isSubsetOf("200", "201", "204");
    assertThat(answers.values().stream().mapToInt(AtomicInteger::get).sum())
        .isGreaterThanOrEqualTo(5 * MIDNIGHTS);
    JsonNode now = hana.get("/api/v1/records/" + records.get(0)).expect(200).json();
    assertThat(now.get("title").asString()).isEqualTo("Saved at night " + (MIDNIGHTS - 1));
  }

  private interface Save {
    Api.Answer by(Api who);
  }

  private CompletableFuture<Void> untilItTurned(
      LocalDate day, Map<String, AtomicInteger> answers, Save save) {
    return CompletableFuture.runAsync(
        () -> {
          String turned = "select 1::text from house_day where projected >= '" + day + "'";
          Await.until(
              "the day is " + day,
              Duration.ofSeconds(60),
              () -> {
                Api.Answer answer = save.by(hana);
                answers
                    .computeIfAbsent(
                        answer.status() < 300
                            ? String.valueOf(answer.status())
                            : answer.status() + answer.text(),
                        key -> new AtomicInteger())
                    .incrementAndGet();
                return !server.database().query(turned).isEmpty();
              });
        });
  }
}
