package rovnik.server.config;

import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.info.Info;
import io.swagger.v3.oas.models.media.Schema;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.springdoc.core.customizers.OpenApiCustomizer;
import org.springdoc.core.customizers.PropertyCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.web.servlet.config.annotation.ViewControllerRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/** The page's own addresses, and how the interface is described. */
@Configuration
class WebConfig implements WebMvcConfigurer {
  @Override
  public void addViewControllers(ViewControllerRegistry registry) {
    for (String area : List.of("/bench", "/spectrum", "/network", "/runs", "/runs/**")) {
      registry.addViewController(area).setViewName("forward:/index.html");
    }
  }

  @Bean
  OpenAPI description() {
    return new OpenAPI()
        .info(new Info().title("Rovnik").version("1").description("RF measurements at the bench."));
  }

  /** Boxed numbers may be null; primitive ones never are. */
  @Bean
  PropertyCustomizer nullableNumbers() {
    return (property, type) -> {
      Schema<?> schema = property;
      String name = type.getType() == null ? "" : type.getType().toString();
      boolean boxed =
          name.contains("java.lang.Double")
              || name.contains("java.lang.Long")
              || name.contains("java.lang.Integer");
      if (boxed && schema.getItems() == null) {
        Set<String> types = new LinkedHashSet<>();
        types.add(name.contains("Double") ? "number" : "integer");
        types.add("null");
        schema.setTypes(types);
      }
      return schema;
    };
  }

  /** Every property is always there: it may be null, but it is not left out. */
  @Bean
  OpenApiCustomizer allRequired() {
    return api -> {
      for (Schema<?> schema : api.getComponents().getSchemas().values()) {
        if (schema.getProperties() != null) {
          schema.setRequired(new ArrayList<>(schema.getProperties().keySet()));
        }
      }
    };
  }
}
