package rovnik.server.live;

import io.swagger.v3.core.converter.AnnotatedType;
import io.swagger.v3.core.converter.ModelConverters;
import io.swagger.v3.core.converter.ResolvedSchema;
import java.util.List;
import org.springdoc.core.customizers.OpenApiCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** Describes what no single request names: settings and views of each kind, and frames. */
@Configuration
class LiveDescription {
  @Bean
  OpenApiCustomizer describedKinds(List<LiveKind> kinds) {
    return api -> {
      kinds.forEach(k -> k.described().forEach(type -> add(api, type)));
      add(api, Showing.Frame.class);
    };
  }

  private static void add(io.swagger.v3.oas.models.OpenAPI api, Class<?> type) {
    ResolvedSchema resolved =
        ModelConverters.getInstance(true)
            .resolveAsResolvedSchema(new AnnotatedType(type).resolveAsRef(true));
    resolved.referencedSchemas.forEach(api.getComponents()::addSchemas);
  }
}
