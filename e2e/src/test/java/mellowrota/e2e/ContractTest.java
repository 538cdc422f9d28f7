package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;

/**
 * The committed OpenAPI document is the one the server tells; the front end's types come from it.
 */
public class ContractTest {

  private static final Path COMMITTED = Path.of("..", "server", "openapi.json");

  /** The document, by which others call each operation. */
  static JsonNode committed() {
    return Api.JSON.readTree(COMMITTED.toFile());
  }

  @Test
  public void theCommittedDocumentIsTheServersOwn() throws IOException {
    String told = sorted(new Api(Server.shared()).get("/v3/api-docs").expect(200).text());
    if (Boolean.getBoolean("writeContract")) {
      Files.writeString(COMMITTED, told + "\n");
    }
    assertThat(told)
        .as("run ./test with -DwriteContract=true in MELLOW_TEST_OPTIONS, then npm run types")
        .isEqualTo(sorted(Files.readString(COMMITTED)));
  }

  private static String sorted(String json) {
    JsonMapper mapper =
        JsonMapper.builder()
            .enable(SerializationFeature.ORDER_MAP_ENTRIES_BY_KEYS)
            .enable(SerializationFeature.INDENT_OUTPUT)
            .build();
    return mapper.writeValueAsString(mapper.readValue(json, Object.class));
  }
}
