package mellowrota.server.rules;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import lombok.RequiredArgsConstructor;
import mellowrota.core.work.DetailSort;
import mellowrota.core.work.Kind;
import mellowrota.server.sight.store.SetStore;
import org.jspecify.annotations.Nullable;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;

/** What details there are, over HTTP. */
@RestController
@RequiredArgsConstructor
class DetailsController {

  private final SetStore store;

  @Schema(name = "Detail")
  record DetailView(
      String key,
      String label,
      List<Kind> kinds,
      boolean typed,
      DetailSort sort,
      List<String> choices,
      @Schema(description = "What a number counts, or the currency of an amount")
          @Nullable String unit) {}

  @GetMapping("/api/v1/details")
  @Operation(summary = "List the details that records can have")
  @Transactional(readOnly = true)
  List<DetailView> details() {
    return store.details().stream()
        .map(
            one ->
                new DetailView(
                    one.key().name(),
                    one.label(),
                    one.kinds().stream().sorted().toList(),
                    one.typed(),
                    one.sort(),
                    one.choices(),
                    one.unit().isEmpty() ? null : one.unit()))
        .toList();
  }
}
