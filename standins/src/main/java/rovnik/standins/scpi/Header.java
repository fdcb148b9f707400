package rovnik.standins.scpi;

import java.util.regex.Pattern;

/** A command header such as {@code [SENSe:]FREQuency:CENTer}: capitals are the short form. */
final class Header {
  private final Pattern pattern;

  Header(String notation) {
    StringBuilder regex = new StringBuilder();
    StringBuilder shortForm = new StringBuilder();
    StringBuilder tail = new StringBuilder();
    for (int i = 0; i <= notation.length(); i++) {
      char c = i < notation.length() ? notation.charAt(i) : 0;
      if (Character.isLetterOrDigit(c) || c == '*') {
        (Character.isLowerCase(c) ? tail : shortForm).append(Character.toUpperCase(c));
        continue;
      }
      if (shortForm.length() > 0) {
        regex.append(Pattern.quote(shortForm.toString()));
        if (tail.length() > 0) {
          regex.append("(?:").append(tail).append(")?");
        }
        shortForm.setLength(0);
        tail.setLength(0);
      }
      switch (c) {
        case '[' -> regex.append("(?:");
        case ']' -> regex.append(")?");
        case ':' -> regex.append(':');
        default -> {
          // end of the notation
        }
      }
    }
    pattern = Pattern.compile(regex.toString());
  }

  boolean matches(String upperCaseHeader) {
    return pattern.matcher(upperCaseHeader).matches();
  }
}
