package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.TreeSet;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;

/**
 * The committed OpenAPI document is the one the server tells; the front end's types come from it.
 */
public class ContractTest {

  private static final Path COMMITTED = Path.of("..", "server", "openapi.json");

  /** What people type as they like. */
  private static final Set<String> TYPED = Set.of("code", "categories");

  /** An operation of the document, with all that is said of it. */
  record Operation(String method, String path, JsonNode said) {

    /** At an address that may not be there. */
    String address() {
      return path.replace("{day}", "2026-12-01").replaceAll("\\{[a-z]+\\}", "1");
    }

    boolean isRefusedBy(int status) {
      return said.get("responses").has(String.valueOf(status));
    }

    @Override
    public String toString() {
      return method + " " + path;
    }
  }

  private static final JsonNode DOCUMENT = committed();

  /** The document, by which others call each operation. */
  static JsonNode committed() {
    return Api.JSON.readTree(COMMITTED.toFile());
  }

  static List<Operation> operations() {
    List<Operation> found = new ArrayList<>();
    committed()
        .get("paths")
        .propertyStream()
        .forEach(
            path ->
                path.getValue()
                    .propertyStream()
                    .forEach(
                        one ->
                            found.add(
                                new Operation(
                                    one.getKey().toUpperCase(Locale.ROOT),
                                    path.getKey(),
                                    one.getValue()))));
    assertThat(found).hasSizeGreaterThan(100);
    return found;
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

  @Test
  public void everyChangeWantsToKnowWhatItsChangerSaw() {
    Api hana = Api.of(Server.shared(), "hana");
    List<Operation> changes =
        operations().stream().filter(one -> Set.of("PUT", "PATCH").contains(one.method)).toList();
    assertThat(changes).hasSizeGreaterThan(16);
    for (Operation one : changes) {
      assertThat(one.isRefusedBy(412) && one.isRefusedBy(428)).as(one.toString()).isTrue();
      hana.send(one.method, one.address(), "{}", "If-Match", Api.LEFT_OUT).expect(428);
    }
  }

  @Test
  public void everyMakerTakesAKey() {
    List<Operation> makers =
        operations().stream()
            .filter(one -> one.said.at("/responses/200/content").toString().contains("Made\""))
            .toList();
    assertThat(makers).hasSizeGreaterThan(6);
    for (Operation one : makers) {
      assertThat(one.said.path("parameters").valueStream().map(p -> p.get("name").asString()))
          .as(one.toString())
          .contains("Idempotency-Key");
    }
  }

  @Test
  public void everyOperationTellsHowItIsRefused() {
    for (Operation one : operations()) {
      assertThat(List.of(400, 401, 403, 503)).as(one.toString()).allMatch(one::isRefusedBy);
      assertThat(one.isRefusedBy(404)).as(one.toString()).isEqualTo(one.path.contains("{"));
      assertThat(one.isRefusedBy(413)).as(one.toString()).isEqualTo(one.said.has("requestBody"));
      assertThat(one.isRefusedBy(409)).as(one.toString()).isEqualTo(!one.method.equals("GET"));
    }
  }

  /** What a coordinator reads names no word of a closed set that the document does not list. */
  @Test
  public void everyClosedSetIsAnEnum() {
    Api hana = Api.of(Server.shared(), "hana");
    Set<String> open = new TreeSet<>();
    for (Operation one : operations()) {
      boolean plain =
          one.method.equals("GET")
              && !one.path.contains("{")
              && one.said
                  .path("parameters")
                  .valueStream()
                  .noneMatch(p -> p.path("required").asBoolean());
      JsonNode schema =
          one.said
              .at("/responses/200/content")
              .valueStream()
              .findFirst()
              .map(c -> c.get("schema"))
              .orElse(null);
      if (plain && schema != null && !one.path.endsWith("/events")) {
        Api.Answer answer = hana.get(one.path);
        if (answer.status() == 200 && answer.header("Content-Type").contains("json")) {
          words(one.path, schema, answer.json(), open);
        }
      }
    }
    assertThat(open).isEmpty();
  }

  private static void words(String at, JsonNode schema, JsonNode value, Set<String> open) {
    JsonNode said = resolved(schema);
    if (value.isArray()) {
      value.forEach(one -> words(at, said.path("items"), one, open));
    } else if (value.isObject()) {
      value
          .propertyStream()
          .filter(one -> !TYPED.contains(one.getKey()))
          .forEach(
              one ->
                  words(
                      at + "/" + one.getKey(),
                      said.path("properties").path(one.getKey()),
                      one.getValue(),
                      open));
    } else if (value.isString()
        && value.asString().matches("[A-Z]{3,}(_[A-Z]+)*")
        && !said.has("enum")) {
      open.add(at + " " + value.asString());
    }
  }

  private static JsonNode resolved(JsonNode schema) {
    String ref = schema.path("$ref").asString("");
    return ref.isEmpty() ? schema : DOCUMENT.at(ref.substring(1));
  }
}
