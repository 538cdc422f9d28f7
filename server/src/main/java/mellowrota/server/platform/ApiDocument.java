package mellowrota.server.platform;

import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.info.Info;
import io.swagger.v3.oas.models.servers.Server;
import java.util.List;
import org.springdoc.core.customizers.OpenApiCustomizer;
import org.springdoc.core.utils.SpringDocUtils;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** The OpenAPI document: the contract that the front end's types are made from. */
@Configuration
class ApiDocument {

  static {
    SpringDocUtils.getConfig()
        .addRequestWrapperToIgnore(Asker.class, IfMatch.class, IdempotencyKey.class);
  }

  @Bean
  OpenAPI openApi() {
    return new OpenAPI()
        .info(
            new Info()
                .title("Mellow Rota")
                .version("1")
                .description(
                    """
                    Changes take an Idempotency-Key; errors are problem documents (RFC 9457). \
                    Changes of people, teams, places, shares, secret addresses, records and the \
                    organisation also take Look-First: true; then they change nothing and answer \
                    with a preview of all entries (SetPreview). A change of crew or organisation \
                    is named in the header Act of its answer (375;kind=crew.hours, an item of RFC \
                    9651), by which it can be undone; other answers name it in the body. \
                    Coordinators can read pages as another person gets them with As-Seen-By: the \
                    person's number."""))
        .servers(List.of(new Server().url("/")));
  }

  /** The same whatever address the document was asked for at. */
  @Bean
  OpenApiCustomizer oneServer() {
    return document -> document.setServers(List.of(new Server().url("/")));
  }
}
