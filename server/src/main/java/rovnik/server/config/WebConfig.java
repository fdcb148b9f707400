package rovnik.server.config;

import com.fasterxml.jackson.annotation.JsonSetter;
import com.fasterxml.jackson.annotation.Nulls;
import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.info.Info;
import java.time.Duration;
import java.util.List;
import org.springframework.boot.jackson.autoconfigure.JsonMapperBuilderCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.http.CacheControl;
import org.springframework.web.servlet.config.annotation.ResourceHandlerRegistry;
import org.springframework.web.servlet.config.annotation.ViewControllerRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;
import org.springframework.web.servlet.resource.EncodedResourceResolver;

/** The page's own addresses, and how the interface is described. */
@Configuration
class WebConfig implements WebMvcConfigurer {
  @Override
  public void addViewControllers(ViewControllerRegistry registry) {
    for (String area :
        List.of(
            "/bench",
            "/spectrum",
            "/modulation",
            "/time",
            "/receiver",
            "/network",
            "/runs",
            "/runs/**")) {
      registry.addViewController(area).setViewName("forward:/index.html");
    }
  }

  /** Files with a hash of their content in their name never change: a browser keeps them. */
  @Override
  public void addResourceHandlers(ResourceHandlerRegistry registry) {
    registry
        .addResourceHandler("/assets/**")
        .addResourceLocations("classpath:/static/assets/")
        .setCacheControl(CacheControl.maxAge(Duration.ofDays(365)).cachePublic().immutable())
        .resourceChain(true)
        .addResolver(new EncodedResourceResolver());
  }

  /** A null in a list is refused by the list's name; no code looks for one. */
  @Bean
  JsonMapperBuilderCustomizer noNullInLists() {
    return builder ->
        builder.withConfigOverride(
            List.class, o -> o.setNullHandling(JsonSetter.Value.forContentNulls(Nulls.FAIL)));
  }

  @Bean
  OpenAPI description() {
    return new OpenAPI()
        .info(new Info().title("Rovnik").version("1").description("RF measurements at the bench."));
  }
}
