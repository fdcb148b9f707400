package rovnik.server.live;

import io.swagger.v3.oas.models.media.StringSchema;
import io.swagger.v3.oas.models.parameters.HeaderParameter;
import java.util.Arrays;
import java.util.List;
import org.springdoc.core.customizers.OperationCustomizer;
import org.springdoc.core.utils.SpringDocUtils;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.MethodParameter;
import org.springframework.web.bind.support.WebDataBinderFactory;
import org.springframework.web.context.request.NativeWebRequest;
import org.springframework.web.method.support.HandlerMethodArgumentResolver;
import org.springframework.web.method.support.ModelAndViewContainer;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/** A {@link Client} among the arguments of a request is who asks, as its header says. */
@Configuration
class ClientConfig implements WebMvcConfigurer, HandlerMethodArgumentResolver {
  static {
    SpringDocUtils.getConfig().addRequestWrapperToIgnore(Client.class);
  }

  @Override
  public void addArgumentResolvers(List<HandlerMethodArgumentResolver> resolvers) {
    resolvers.add(this);
  }

  @Override
  public boolean supportsParameter(MethodParameter parameter) {
    return parameter.getParameterType().equals(Client.class);
  }

  @Override
  public Client resolveArgument(
      MethodParameter parameter,
      ModelAndViewContainer container,
      NativeWebRequest request,
      WebDataBinderFactory binders) {
    return Client.of(request.getHeader(Client.HEADER));
  }

  /** Names the header in the description of the interface. */
  @Bean
  OperationCustomizer clientHeader() {
    return (operation, method) -> {
      if (Arrays.stream(method.getMethodParameters()).anyMatch(this::supportsParameter)) {
        operation.addParametersItem(
            new HeaderParameter().name(Client.HEADER).required(false).schema(new StringSchema()));
      }
      return operation;
    };
  }
}
