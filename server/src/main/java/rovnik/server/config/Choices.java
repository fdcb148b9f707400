package rovnik.server.config;

import java.util.Arrays;
import java.util.Locale;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import rovnik.core.Refusal;

/** Names of fixed choices as they are sent. */
public final class Choices {
  private Choices() {}

  /** The value of a name, in whatever case and with whatever is between its parts. */
  public static <E extends Enum<E>> E named(
      E[] values, Function<E, String> label, String field, String text) {
    String wanted = bare(text);
    for (E v : values) {
      if (bare(v.name()).equals(wanted) || bare(label.apply(v)).equals(wanted)) {
        return v;
      }
    }
    throw new Refusal(
        field,
        "There is no "
            + field
            + " \""
            + text
            + "\"; use one of "
            + Arrays.stream(values).map(Choices::key).collect(Collectors.joining(", "))
            + ".");
  }

  public static String key(Enum<?> value) {
    return value.name().toLowerCase(Locale.ROOT).replace('_', '-');
  }

  private static String bare(@Nullable String text) {
    return text == null ? "" : text.toUpperCase(Locale.ROOT).replaceAll("[^A-Z0-9]", "");
  }
}
