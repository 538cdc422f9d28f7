package mellowrota.server.platform;

import com.fasterxml.jackson.databind.JavaType;
import io.swagger.v3.core.converter.AnnotatedType;
import io.swagger.v3.core.converter.ModelConverter;
import io.swagger.v3.core.converter.ModelConverterContext;
import io.swagger.v3.core.util.Json;
import io.swagger.v3.oas.models.media.Schema;
import java.lang.reflect.RecordComponent;
import java.util.Iterator;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** What a record always has is required in the document: all that is not {@link Nullable}. */
@Component
class RequiredParts implements ModelConverter {

  @Override
  public @Nullable Schema<?> resolve(
      AnnotatedType type, ModelConverterContext context, Iterator<ModelConverter> others) {
    if (!others.hasNext()) {
      return null;
    }
    Schema<?> resolved = others.next().resolve(type, context, others);
    JavaType java = Json.mapper().constructType(type.getType());
    if (resolved != null && java != null && java.getRawClass().isRecord()) {
      require(java.getRawClass().getRecordComponents(), model(resolved, context));
    }
    return resolved;
  }

  private static Schema<?> model(Schema<?> resolved, ModelConverterContext context) {
    String ref = resolved.get$ref();
    return ref == null
        ? resolved
        : context.getDefinedModels().get(ref.substring(ref.lastIndexOf('/') + 1));
  }

  private static void require(RecordComponent[] parts, @Nullable Schema<?> model) {
    for (RecordComponent part : parts) {
      String name = Input.name(part);
      boolean always =
          part.getType() != Optional.class
              && !part.getAnnotatedType().isAnnotationPresent(Nullable.class);
      if (always
          && model != null
          && model.getProperties() != null
          && model.getProperties().containsKey(name)
          && (model.getRequired() == null || !model.getRequired().contains(name))) {
        model.addRequiredItem(name);
      }
    }
  }
}
