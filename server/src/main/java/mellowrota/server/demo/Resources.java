package mellowrota.server.demo;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import org.springframework.core.io.ClassPathResource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Data that ships with the server. */
final class Resources {

  private Resources() {}

  static JsonNode read(JsonMapper json, String name) {
    try (InputStream in = new ClassPathResource(name).getInputStream()) {
      return json.readTree(in);
    } catch (IOException missing) {
      throw new UncheckedIOException(missing);
    }
  }
}
