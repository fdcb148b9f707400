package rovnik.core.formats;

import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import rovnik.core.Refusal;
import rovnik.core.network.NetworkConversion.Kind;
import rovnik.core.network.NetworkData;

/**
 * Reads Touchstone 1.0, 1.1 and 2.0 (IBIS Open Forum, Touchstone File Format Specification) from a
 * stream without holding its text. All kinds of parameters become S-parameters.
 *
 * <p>White space and line breaks are taken as they come, but no pair of numbers may be split by a
 * line break and every frequency begins a line: a number too few or too many is so noticed at its
 * line and never shifts what follows.
 */
public final class TouchstoneReader {
  private static final int MOST_COMMENTS = 100;
  private static final Pattern EXTENSION =
      Pattern.compile(".*\\.s(\\d{1,3})p", Pattern.CASE_INSENSITIVE);
  private static final Pattern KEYWORD = Pattern.compile("\\[([^\\]]*)\\](.*)");

  private final TouchstoneLines lines;
  private final int room;
  private final List<String> comments = new ArrayList<>();
  private final List<String> portModes = new ArrayList<>();
  private TouchstoneOptions options;
  private String version = "1";
  private int ports;
  private boolean portsSaid;
  private double[] reference = new double[0];
  private int referenceCount;
  private boolean readingReference;
  private boolean swapped = true; // 1.x: a two-port's columns are S11 S21 S12 S22
  private boolean orderSaid;
  private TouchstoneMatrix.Shape shape = TouchstoneMatrix.Shape.FULL;
  private long wantedPoints = -1;
  private long wantedNoise = -1;
  private boolean inNetwork = true;
  private boolean information;
  private boolean ended;
  private TouchstoneMatrix matrix;
  private TouchstoneNoise noise;

  private TouchstoneReader(InputStream in, int ports, int room) {
    this.lines = new TouchstoneLines(in);
    this.room = room;
    this.ports = ports;
    this.portsSaid = ports > 0;
  }

  /**
   * Reads a file.
   *
   * @param fileName its extension (.s2p) says the number of ports of a 1.x file; without one the
   *     first point's numbers say it
   * @throws Refusal naming the line
   */
  public static TouchstoneFile read(InputStream in, String fileName) throws IOException {
    return read(in, fileName, 0);
  }

  /**
   * Reads a file whose number of points is known from {@link #points}: its numbers are then held
   * once and no more, which matters if there are hundreds of megabytes.
   */
  public static TouchstoneFile read(InputStream in, String fileName, int points)
      throws IOException {
    TouchstoneReader reader = new TouchstoneReader(in, portsOf(fileName), points);
    reader.readLines();
    return reader.finish();
  }

  /** How many points a file has; nothing of it is kept. */
  public static int points(InputStream in, String fileName) throws IOException {
    TouchstoneReader reader = new TouchstoneReader(in, portsOf(fileName), TouchstoneMatrix.COUNT);
    reader.readLines();
    reader.end();
    return reader.matrix.points();
  }

  private static int portsOf(String fileName) {
    Matcher m = EXTENSION.matcher(fileName == null ? "" : fileName.strip());
    int ports = m.matches() ? Integer.parseInt(m.group(1)) : 0;
    if (m.matches() && (ports < 1 || ports > NetworkData.MOST_PORTS)) {
      throw new Refusal("file", "A file of " + ports + " ports cannot be read; 1 to 32 ports can.");
    }
    return ports;
  }

  static Refusal refuse(long line, String what) {
    return new Refusal("file", "Touchstone file, line " + line + ": " + what + ".");
  }

  private void readLines() throws IOException {
    while (lines.next()) {
      String comment = lines.cutComment();
      if (comment != null && !comment.isEmpty() && comments.size() < MOST_COMMENTS) {
        comments.add(comment);
      }
      byte first = lines.first();
      if (first == 0) {
        continue;
      }
      if (ended) {
        throw refuse(lines.number(), "there is more after [End]");
      }
      if (first == '[') {
        keyword(lines.text());
      } else if (!information && readingReference) {
        references(lines.text());
      } else if (!information && first == '#') {
        optionLine();
      } else if (!information) {
        data();
      }
    }
  }

  private void optionLine() {
    if (options == null) { // later ones are passed over, as the specification says
      options = TouchstoneOptions.parse(lines.text(), lines.number());
    }
  }

  private void data() {
    if (options == null) {
      throw refuse(
          lines.number(), "an option line such as \"# GHz S MA R 50\" must come before the data");
    }
    if (!inNetwork) {
      throw refuse(lines.number(), "data outside [Network Data] and [Noise Data]");
    }
    int count = lines.readNumbers();
    if (noise != null) {
      noise.line(lines, count);
      return;
    }
    if (matrix == null) {
      matrix = new TouchstoneMatrix(options, ports, shape, room);
    }
    if (version.equals("1") && matrix.beginsNoise(lines)) {
      noise = new TouchstoneNoise(options.unitHz());
      noise.line(lines, count);
    } else {
      matrix.line(lines, count);
    }
  }

  private void keyword(String text) {
    Matcher m = KEYWORD.matcher(text);
    if (!m.matches()) {
      throw refuse(lines.number(), "a keyword ends with ]");
    }
    String word = m.group(1).strip().toLowerCase(Locale.ROOT).replaceAll("[\\s-]+", " ");
    String argument = m.group(2).strip();
    if (information && !word.equals("end information")) {
      return;
    }
    if (version.equals("1") && !word.equals("version")) {
      throw refuse(lines.number(), "a file with keywords must begin with [Version] 2.0");
    }
    readingReference = false;
    switch (word) {
      case "version" -> version(argument);
      case "number of ports" -> portCount(whole(argument, word, 1, NetworkData.MOST_PORTS));
      case "two port data order", "two port order" -> order(argument);
      case "number of frequencies" -> wantedPoints = whole(argument, word, 1, 100_000_000);
      case "number of noise frequencies" -> wantedNoise = whole(argument, word, 1, 100_000_000);
      case "reference" -> {
        needPorts(word);
        reference = new double[ports];
        referenceCount = 0;
        readingReference = true;
        references(argument);
      }
      case "matrix format" -> shape = TouchstoneMatrix.Shape.parse(argument, lines.number());
      case "mixed mode order" -> {
        needPorts(word);
        portModes.addAll(List.of(argument.split("\\s+")));
        if (portModes.size() != ports) {
          throw refuse(lines.number(), "[Mixed-Mode Order] must name all " + ports + " ports");
        }
      }
      case "begin information" -> information = true;
      case "end information" -> information = false;
      case "network data" -> beginNetwork();
      case "noise data" -> beginNoise();
      case "end" -> ended = true;
      default -> throw refuse(lines.number(), "[" + m.group(1).strip() + "] is not known");
    }
  }

  private void version(String argument) {
    if (!argument.equals("2.0") || matrix != null || options != null) {
      throw refuse(
          lines.number(),
          argument.equals("2.0")
              ? "[Version] must come first"
              : "version \""
                  + argument
                  + "\" cannot be read; 2.0 and the older form without [Version] can");
    }
    version = "2.0";
    inNetwork = false;
    portsSaid = false;
  }

  private void portCount(int said) {
    if (ports > 0 && ports != said) {
      throw refuse(lines.number(), "the file says " + said + " ports but its name says " + ports);
    }
    ports = said;
    portsSaid = true;
  }

  private void order(String argument) {
    if (!argument.equals("21_12") && !argument.equals("12_21")) {
      throw refuse(lines.number(), "the order of a two-port is 21_12 or 12_21");
    }
    swapped = argument.equals("21_12");
    orderSaid = true;
  }

  private void references(String text) {
    for (String word : text.isEmpty() ? new String[0] : text.split("\\s+")) {
      double ohm;
      try {
        ohm = Double.parseDouble(word);
      } catch (NumberFormatException e) {
        throw refuse(lines.number(), "\"" + word + "\" is not a reference impedance in ohm");
      }
      if (!(ohm > 0) || Double.isInfinite(ohm) || referenceCount == ports) {
        throw refuse(
            lines.number(), "[Reference] needs " + ports + " positive impedances, one a port");
      }
      reference[referenceCount++] = ohm;
    }
  }

  private void needPorts(String word) {
    if (!portsSaid) {
      throw refuse(lines.number(), "[Number of Ports] must come before [" + word + "]");
    }
  }

  private void beginNetwork() {
    if (options == null || !portsSaid || wantedPoints < 0 || (ports == 2 && !orderSaid)) {
      throw refuse(
          lines.number(),
          "before [Network Data] must come the option line, [Number of Ports], [Number of"
              + " Frequencies]"
              + (ports == 2 ? " and [Two-Port Data Order]" : ""));
    }
    if (matrix != null) {
      throw refuse(lines.number(), "[Network Data] comes twice");
    }
    inNetwork = true;
    matrix = new TouchstoneMatrix(options, ports, shape, room);
  }

  private void beginNoise() {
    if (matrix == null || ports != 2) {
      throw refuse(lines.number(), "[Noise Data] belongs to a two-port, after its [Network Data]");
    }
    noise = new TouchstoneNoise(options.unitHz());
  }

  private int whole(String text, String word, int least, int most) {
    try {
      int n = Integer.parseInt(text);
      if (n >= least && n <= most) {
        return n;
      }
    } catch (NumberFormatException e) {
      // refused below
    }
    throw refuse(
        lines.number(), "[" + word + "] needs a whole number from " + least + " to " + most);
  }

  /** Refuses a file that ends before it should. */
  private void end() {
    long last = lines.number();
    if (information) {
      throw refuse(last, "the file ends inside [Begin Information]");
    }
    if (matrix == null) {
      throw refuse(last, "the file has no data");
    }
    matrix.finish(last);
    if (wantedPoints >= 0 && matrix.points() != wantedPoints) {
      throw refuse(
          last,
          "the file says "
              + wantedPoints
              + " frequencies and has "
              + matrix.points()
              + ": it may be cut off");
    }
    if (noise != null && wantedNoise >= 0 && noise.points() != wantedNoise) {
      throw refuse(last, "the noise data has " + noise.points() + " of " + wantedNoise + " lines");
    }
    ports = matrix.ports();
  }

  private TouchstoneFile finish() {
    end();
    long last = lines.number();
    if (reference.length > 0 && referenceCount < ports) {
      throw refuse(
          last, "[Reference] has " + referenceCount + " impedances for " + ports + " ports");
    }
    double[] ohm = reference;
    if (ohm.length == 0) {
      ohm = new double[ports];
      Arrays.fill(ohm, options.resistanceOhm());
    }
    boolean normalised = version.equals("1") && options.kind() != Kind.S;
    return new TouchstoneFile(
        matrix.toNetwork(ohm, ports == 2 && swapped, normalised ? options.resistanceOhm() : 1),
        noise == null ? null : noise.toParameters(),
        version,
        List.copyOf(comments),
        List.copyOf(portModes));
  }
}
