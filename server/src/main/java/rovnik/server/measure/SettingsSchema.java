package rovnik.server.measure;

import io.swagger.v3.core.converter.AnnotatedType;
import io.swagger.v3.core.converter.ModelConverters;
import io.swagger.v3.core.converter.ResolvedSchema;
import io.swagger.v3.core.util.Json31;
import org.springframework.stereotype.Component;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** JSON schemas (draft 2020-12) of settings, made from their records, with defaults. */
@Component
class SettingsSchema {
  private final JsonMapper json;

  SettingsSchema(JsonMapper json) {
    this.json = json;
  }

  JsonNode of(Class<?> type, Object defaults) {
    ResolvedSchema resolved =
        ModelConverters.getInstance(true)
            .resolveAsResolvedSchema(new AnnotatedType(type).resolveAsRef(false));
    try {
      ObjectNode schema =
          (ObjectNode) json.readTree(Json31.mapper().writeValueAsString(resolved.schema));
      ObjectNode definitions =
          (ObjectNode)
              json.readTree(Json31.mapper().writeValueAsString(resolved.referencedSchemas));
      schema.put("$schema", "https://json-schema.org/draft/2020-12/schema");
      if (!definitions.isEmpty()) {
        schema.set("$defs", definitions);
      }
      relink(schema);
      JsonNode values = json.valueToTree(defaults);
      schema.set("default", values);
      if (schema.path("properties") instanceof ObjectNode properties) {
        properties.forEachEntry(
            (name, property) -> {
              if (property instanceof ObjectNode p && values.has(name)) {
                p.set("default", values.get(name));
              }
            });
      }
      return schema;
    } catch (com.fasterxml.jackson.core.JsonProcessingException e) {
      throw new IllegalStateException(e);
    }
  }

  /** References point into the schema itself. */
  private static void relink(JsonNode node) {
    if (node instanceof ObjectNode object) {
      if (object.path("$ref").isString()) {
        object.put(
            "$ref", object.get("$ref").asString().replace("#/components/schemas/", "#/$defs/"));
      }
      object.forEachEntry((name, child) -> relink(child));
    } else if (node instanceof ArrayNode array) {
      array.forEach(SettingsSchema::relink);
    }
  }
}
