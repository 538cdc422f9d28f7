package mellowrota.server.boot;

import io.swagger.v3.oas.annotations.Hidden;
import java.time.Duration;
import lombok.RequiredArgsConstructor;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.io.Resource;
import org.springframework.core.io.ResourceLoader;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.config.annotation.ResourceHandlerRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/** Serves the front end: its parts for ever, its one page fresh for every address of a page. */
@Configuration
@RequiredArgsConstructor
class Pages implements WebMvcConfigurer {

  @Value("${mellow.web}")
  private final String folder;

  /** Where the built front end lies: a location that Spring's resources know, ending in a slash. */
  @Override
  public void addResourceHandlers(ResourceHandlerRegistry registry) {
    registry
        .addResourceHandler("/assets/**")
        .addResourceLocations(folder + "assets/")
        .setCacheControl(CacheControl.maxAge(Duration.ofDays(365)).cachePublic().immutable());
    registry.addResourceHandler("/icon.svg").addResourceLocations(folder);
    registry
        .addResourceHandler("/sw.js")
        .addResourceLocations(folder)
        .setCacheControl(CacheControl.noCache());
  }

  @RestController
  @Hidden
  static class Page {
    private final Resource page;

    Page(@Value("${mellow.web}") String folder, ResourceLoader loader) {
      page = loader.getResource(folder + "index.html");
    }

    /** Addresses of pages have no dot and are no part of the API. */
    @GetMapping({
      "/",
      "/today",
      "/my-day",
      "/board/**",
      "/calendars",
      "/records/**",
      "/crew/**",
      "/files",
      "/rules",
      "/who-sees-what",
      "/account/**",
      "/copies",
      "/cover/**",
      "/deadlines/**",
      "/sign-in",
      "/open/{entry}",
      "/welcome/{token}"
    })
    ResponseEntity<Resource> page() {
      return ResponseEntity.ok()
          .contentType(MediaType.TEXT_HTML)
          .cacheControl(CacheControl.noStore())
          .body(page);
    }
  }
}
