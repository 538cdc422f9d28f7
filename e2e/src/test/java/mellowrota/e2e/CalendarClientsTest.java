package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Calendar programs nobody here wrote discover, list, read and sync. */
public class CalendarClientsTest extends OnDemo {

  @DataProvider
  Object[][] clients() {
    return new Object[][] {
      {"tsdav", List.of("node", "read.mjs"), "/", 1},
      {"python-caldav", List.of("/usr/bin/python3", "read.py"), "/dav/", 2},
    };
  }

  @Test(dataProvider = "clients")
  public void aClientDiscoversListsReadsAndSyncsTwice(
      String name, List<String> command, String begin, int no) throws IOException {
    List<String> all = new ArrayList<>(command);
    all.addAll(
        List.of(server.url(begin), "ines@quillwater.example", "still-water-ines", "Due times"));
    Process client =
        new ProcessBuilder(all)
            .directory(Path.of("clients").toFile())
            .redirectError(ProcessBuilder.Redirect.INHERIT)
            .start();
    try (BufferedReader out =
            new BufferedReader(
                new InputStreamReader(client.getInputStream(), StandardCharsets.UTF_8));
        OutputStream in = client.getOutputStream()) {
      JsonNode first = Api.JSON.readTree(line(out));
      assertThat(texts(first.get("calendars")))
          .contains("Due times", "Ines Okafor, own", "Thornmere crew, team")
          .doesNotContain("Master", "Tam Birtles, own", "Saltgate crew, team");
      JsonNode open =
          hana.get("/api/v1/records?limit=200&kind=TICKET&state=CONFIRMED,TENTATIVE")
              .json()
              .get("items");
      assertThat(first.get("titles")).hasSize(open.size());
      JsonNode one = open.get(no);
      assertThat(texts(first.get("titles")))
          .contains(one.get("ref").asString() + " " + one.get("title").asString());

      String address = "/api/v1/records/" + one.get("id").asLong();
      String tag = hana.get(address).header("ETag");
      hana.patch(address, "{\"due\": {\"at\": \"2026-12-0" + no + "T10:00\"}}", "If-Match", tag)
          .expect(200);
      in.write('\n');
      in.flush();
      JsonNode second = Api.JSON.readTree(line(out));
      JsonNode changed = second.has("changed") ? second.get("changed") : second.get("updated");
      assertThat(changed).as(name + " hears of exactly what changed: " + second).hasSize(1);
    } finally {
      client.destroy();
    }
  }

  private static String line(BufferedReader out) throws IOException {
    String line = out.readLine();
    if (line == null) {
      throw new AssertionError("the client ended; see its error above");
    }
    return line;
  }

  private static List<String> texts(JsonNode list) {
    return list.valueStream().map(JsonNode::asString).toList();
  }

  @Test
  public void everyObjectServedParsesInTheSecondLibraryAndFoldsByOctets() {
    int read = 0;
    for (String who : List.of("hana", "marguerite", "ines", "tam", "wren")) {
      Api api = Api.of(server, who);
      Calendars calendars = new Calendars(api);
      String home = api.dav("PROPFIND", "/dav/calendars/", null, "Depth", "1").expect(207).text();
      for (String part : home.split("<d:href>")) {
        if (part.startsWith("/dav/calendars/") && !part.startsWith("/dav/calendars/<")) {
          String href = part.substring(0, part.indexOf('<'));
          for (Map.Entry<String, String> object : calendars.sync(href, "").live().entrySet()) {
            Calendars.event(object.getValue());
            Api.Answer got = api.dav("GET", object.getKey(), null).expect(200);
            for (String line : got.text().split("\r\n")) {
              assertThat(line.getBytes(StandardCharsets.UTF_8).length).isLessThanOrEqualTo(75);
            }
            assertThat(got.text()).endsWith("END:VCALENDAR\r\n");
            read++;
          }
        }
      }
    }
    assertThat(read).isGreaterThan(100);
  }
}
