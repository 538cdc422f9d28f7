package mellowrota.server.boot;

import org.apache.tomcat.util.buf.EncodedSolidusHandling;
import org.springframework.boot.tomcat.servlet.TomcatServletWebServerFactory;
import org.springframework.boot.web.server.WebServerFactoryCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** Lets odd addresses come as far as our own firewall, which refuses them as problem documents. */
@Configuration
class Connector {

  @Bean
  WebServerFactoryCustomizer<TomcatServletWebServerFactory> oddAddresses() {
    return factory ->
        factory.addConnectorCustomizers(
            connector ->
                connector.setEncodedSolidusHandling(
                    EncodedSolidusHandling.PASS_THROUGH.getValue()));
  }
}
