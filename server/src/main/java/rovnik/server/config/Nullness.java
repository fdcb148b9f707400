package rovnik.server.config;

import com.fasterxml.jackson.databind.JavaType;
import io.swagger.v3.core.converter.AnnotatedType;
import io.swagger.v3.core.converter.ModelConverter;
import io.swagger.v3.core.converter.ModelConverterContext;
import io.swagger.v3.core.util.Json31;
import io.swagger.v3.oas.models.media.Schema;
import java.lang.reflect.RecordComponent;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/**
 * Describes records as they are: every property is always there, and may be null only where its
 * type says so (JSpecify). Names that end in a unit carry it in the description as well.
 */
@Component
class Nullness implements ModelConverter {
  private static final Map<String, String> UNITS =
      Map.ofEntries(
          Map.entry("Hz", "Hz"),
          Map.entry("hertz", "Hz"),
          Map.entry("Dbm", "dBm"),
          Map.entry("Dbc", "dBc"),
          Map.entry("Db", "dB"),
          Map.entry("Seconds", "s"),
          Map.entry("seconds", "s"),
          Map.entry("Millis", "ms"),
          Map.entry("Ppm", "ppm"),
          Map.entry("Ohm", "ohm"),
          Map.entry("ohm", "ohm"),
          Map.entry("Metres", "m"),
          Map.entry("metres", "m"),
          Map.entry("Kelvin", "K"));

  @Override
  @SuppressWarnings({"rawtypes", "unchecked"})
  public Schema resolve(
      AnnotatedType type, ModelConverterContext context, Iterator<ModelConverter> chain) {
    Schema<?> resolved = chain.hasNext() ? chain.next().resolve(type, context, chain) : null;
    JavaType java = type.getType() == null ? null : Json31.mapper().constructType(type.getType());
    if (resolved == null || java == null || !java.getRawClass().isRecord()) {
      return resolved;
    }
    Schema<?> model = resolved;
    if (resolved.get$ref() != null) {
      String name = resolved.get$ref().replaceFirst(".*/", "");
      model = context.getDefinedModels().get(name);
    }
    if (model != null && model.getProperties() != null) {
      describe(model, java.getRawClass());
    }
    return resolved;
  }

  @SuppressWarnings("rawtypes")
  private static void describe(Schema<?> model, Class<?> record) {
    Map<String, Schema> properties = model.getProperties();
    model.setRequired(new ArrayList<>(properties.keySet()));
    for (RecordComponent c : record.getRecordComponents()) {
      Schema<?> property = properties.get(c.getName());
      if (property == null) {
        continue;
      }
      unit(property, c.getName());
      if (c.getAnnotatedType().isAnnotationPresent(Nullable.class)) {
        properties.put(c.getName(), orNull(property));
      }
      if (property.getItems() != null
          && c.getAnnotatedType() instanceof java.lang.reflect.AnnotatedParameterizedType p
          && p.getAnnotatedActualTypeArguments()[p.getAnnotatedActualTypeArguments().length - 1]
              .isAnnotationPresent(Nullable.class)) {
        property.setItems(orNull(property.getItems()));
      }
      if (property.getItems() != null
          && c.getAnnotatedType() instanceof java.lang.reflect.AnnotatedArrayType a
          && a.getAnnotatedGenericComponentType().isAnnotationPresent(Nullable.class)) {
        property.setItems(orNull(property.getItems()));
      }
    }
  }

  private static void unit(Schema<?> property, String name) {
    UNITS.entrySet().stream()
        .filter(u -> name.endsWith(u.getKey()))
        .max((a, b) -> Integer.compare(a.getKey().length(), b.getKey().length()))
        .ifPresent(
            u -> {
              if (property.get$ref() == null) {
                property.addExtension("x-unit", u.getValue());
              }
            });
  }

  private static Schema<?> orNull(Schema<?> property) {
    if (property.getAnyOf() != null) {
      return property; // said before
    }
    if (property.get$ref() != null || property.getTypes() == null) {
      Schema<?> none = new Schema<>();
      none.setTypes(Set.of("null"));
      Schema<Object> either = new Schema<>();
      either.setAnyOf(new ArrayList<>(List.of(property, none)));
      return either;
    }
    Set<String> types = new LinkedHashSet<>(property.getTypes());
    types.add("null");
    property.setTypes(types);
    return property;
  }
}
