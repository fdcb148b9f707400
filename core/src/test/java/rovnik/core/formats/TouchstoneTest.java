package rovnik.core.formats;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertNull;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.network.NetworkData;

/**
 * Examples marked "specification" are those of the IBIS Open Forum, Touchstone File Format
 * Specification 1.1 and 2.0, from memory.
 */
public class TouchstoneTest {
  private static InputStream stream(String text) {
    return new ByteArrayInputStream(text.getBytes(StandardCharsets.UTF_8));
  }

  private static TouchstoneFile read(String text, String name) {
    try {
      return TouchstoneReader.read(stream(text), name);
    } catch (IOException e) {
      throw new AssertionError(e);
    }
  }

  private static void polar(NetworkData n, int point, int r, int c, double mag, double degrees) {
    assertEquals(n.re(point, r, c), mag * Math.cos(Math.toRadians(degrees)), 1e-12);
    assertEquals(n.im(point, r, c), mag * Math.sin(Math.toRadians(degrees)), 1e-12);
  }

  @Test
  public void onePortOfTheSpecification() {
    TouchstoneFile f =
        read(
            """
            !1-port S-parameter file, single frequency point
            # MHz S MA R 50
            !freq magS11 angS11
            2.000 0.894 -12.136
            """,
            "a.s1p");
    assertEquals(f.network().ports(), 1);
    assertEquals(f.network().frequencyHz(), new double[] {2e6});
    polar(f.network(), 0, 1, 1, 0.894, -12.136);
    assertEquals(f.comments().get(0), "1-port S-parameter file, single frequency point");
  }

  /** Z divided by R in version 1: 75 ohm times the value, against 75 ohm (specification). */
  /** Some programs put a byte order mark before UTF-8 text. */
  @Test
  public void aByteOrderMarkIsNoText() {
    TouchstoneFile f = read("\uFEFF# MHz S MA R 50\n100 0.5 -4\n", "b.s1p");
    assertEquals(f.network().points(), 1);
    TouchstoneFile alone = read("\uFEFF\n# MHz S MA R 50\n100 0.5 -4\n", "b.s1p");
    assertEquals(alone.network().frequencyHz()[0], 100e6, 1);
  }

  @Test
  public void normalisedImpedanceOfTheSpecification() {
    TouchstoneFile f = read("# MHz Z MA R 75\n100 0.99 -4\n200 0.80 -22\n", "z.s1p");
    double re = 0.99 * Math.cos(Math.toRadians(-4));
    double im = 0.99 * Math.sin(Math.toRadians(-4));
    // (z - 1) / (z + 1)
    double below = (re + 1) * (re + 1) + im * im;
    assertEquals(f.network().re(0, 1, 1), (re * re + im * im - 1) / below, 1e-14);
    assertEquals(f.network().im(0, 1, 1), 2 * im / below, 1e-14);
    assertEquals(f.network().referenceOhm(), new double[] {75});
  }

  private static final String NOISY =
      """
      ! 2-port network, S-parameter and noise data
      # GHZ S MA R 50
      2  .95 -26  3.57 157  .04 76  .66 -14
      22 .60 -144 1.30 40   .14 40  .56 -85
      ! NOISE PARAMETERS
      4  .7   .64 69  .38
      18 2.7  .46 -33 .40
      """;

  @Test
  public void twoPortWithNoiseOfTheSpecification() {
    TouchstoneFile f = read(NOISY, "n.s2p");
    NetworkData n = f.network();
    assertEquals(n.points(), 2);
    polar(n, 0, 1, 1, .95, -26);
    polar(n, 0, 2, 1, 3.57, 157); // the second pair is S21, not S12
    polar(n, 0, 1, 2, .04, 76);
    polar(n, 1, 2, 2, .56, -85);
    assertEquals(f.noise().frequencyHz(), new double[] {4e9, 18e9});
    assertEquals(f.noise().minimumFigureDb(), new double[] {.7, 2.7});
    assertEquals(f.noise().sourceReflection()[0], .64 * Math.cos(Math.toRadians(69)), 1e-12);
    assertEquals(f.noise().resistance(), new double[] {.38, .40});
  }

  private static final String FOUR_ROWS =
      """
      5.00000 0.60 161.24 0.40 -42.20 0.42 -66.58 0.53 -79.34 !row 1
              0.40 -42.20 0.60 161.20 0.53 -79.34 0.42 -66.58 !row 2
              0.42 -66.58 0.53 -79.34 0.60 161.24 0.40 -42.20 !row 3
              0.53 -79.34 0.42 -66.58 0.40 -42.20 0.60 161.24 !row 4
      """;

  @Test
  public void fourPortOfTheSpecificationInBothVersions() {
    TouchstoneFile one = read("# GHZ S MA R 50\n" + FOUR_ROWS, "four.s4p");
    TouchstoneFile two =
        read(
            "[Version] 2.0\n# GHz S MA R 50\n[Number of Ports] 4\n[Reference] 50 75\n0.01 0.01\n"
                + "[Number of Frequencies] 1\n[Matrix Format] Full\n[Network Data]\n"
                + FOUR_ROWS
                + "[End]\n",
            "four.ts");
    assertEquals(two.network().s(), one.network().s());
    assertEquals(two.network().referenceOhm(), new double[] {50, 75, 0.01, 0.01});
    polar(one.network(), 0, 2, 3, 0.53, -79.34);
    polar(one.network(), 0, 2, 2, 0.60, 161.20);
  }

  /** Half a matrix stands for a symmetric one; the words are those of the specification, 2.0. */
  @Test
  public void lowerAndUpperMatrices() {
    String head =
        "[Version] 2.0\n# GHz S RI R 50\n[Number of Ports] 3\n[Number of Frequencies] 1\n";
    double[] lower =
        read(
                head
                    + "[Matrix Format] Lower\n[Network Data]\n1 11 0\n 21 0 22 0\n 31 0 32 0 33 0\n[End]",
                "x")
            .network()
            .s();
    double[] upper =
        read(
                head + "[Matrix Format] Upper\n[Network Data]\n1 11 0 21 0 31 0\n22 0 32 0\n33 0\n",
                "x")
            .network()
            .s();
    assertEquals(lower, upper);
    double[] real = new double[9];
    for (int i = 0; i < 9; i++) {
      real[i] = lower[2 * i];
    }
    assertEquals(real, new double[] {11, 21, 31, 21, 22, 32, 31, 32, 33});
  }

  @DataProvider
  public Object[][] orders() {
    return new Object[][] {{"12_21", 2.0, 3.0}, {"21_12", 3.0, 2.0}};
  }

  @Test(dataProvider = "orders")
  public void bothOrdersOfATwoPort(String order, double s12, double s21) {
    NetworkData n =
        read(
                "[Version] 2.0\n# Hz S RI\n[Number of Ports] 2\n[Two-Port Data Order] "
                    + order
                    + "\n[Number of Frequencies] 1\n[Network Data]\n7 1 0 2 0 3 0 4 0\n[End]\n",
                "x.s2p")
            .network();
    assertEquals(n.re(0, 1, 2), s12);
    assertEquals(n.re(0, 2, 1), s21);
    assertEquals(n.frequencyHz()[0], 7.0);
  }

  @Test
  public void informationAndMixedModeAreRead() {
    TouchstoneFile f =
        read(
            "! head\n[Version] 2.0\n# MHz S DB\n[Number of Ports] 3\n[Mixed-Mode Order] D2,3 C2,3 S1\n"
                + "[Number of Frequencies] 1\n[Begin Information]\nmade by hand # [ 1 2\n"
                + "[Manufacturer] nobody\n[End Information]\n[Network Data]\n1 -20 0 -20 90 -20 180\n"
                + "-20 0 -20 90 -20 180\n-20 0 -20 90 -20 180\n[End]\n",
            "x");
    assertEquals(f.portModes().toString(), "[D2,3, C2,3, S1]");
    assertEquals(f.network().im(0, 1, 2), 0.1, 1e-15);
    assertNull(f.noise());
  }

  @Test
  public void oddWhiteSpaceLineEndsAndCase() {
    NetworkData n =
        read(
                "\r\n\t!c\r\n#  mhz\tr 75 ri s\r\n 1\t.5 0\r\n\r\n2 +.25e0 -1E-1!end\r# GHz\r3 5.e-1 0",
                "odd.S1P")
            .network();
    assertEquals(n.frequencyHz(), new double[] {1e6, 2e6, 3e6});
    assertEquals(n.s(), new double[] {.5, 0, .25, -.1, .5, 0});
    assertEquals(n.referenceOhm()[0], 75.0);
  }

  @Test
  public void portsFollowFromTheDataWhereTheNameIsSilent() {
    assertEquals(read("# GHz S MA R 50\n" + FOUR_ROWS, "upload").network().ports(), 4);
    assertEquals(read(NOISY, null).noise().frequencyHz().length, 2);
    assertEquals(read("# GHz\n1 .5 0\n2 .5 0\n", "x.txt").network().points(), 2);
  }

  /** H, G, Y and Z of one known two-port, a pi of 1/96.25, 1/71.15, 1/96.25 S: a 10 dB pad. */
  @DataProvider
  public Object[][] kinds() {
    double a = 1 / 96.25;
    double b = 1 / 71.15;
    double y11 = a + b;
    double det = y11 * y11 - b * b;
    return new Object[][] {
      {"Y", y11, -b, -b, y11},
      {"Z", y11 / det, b / det, b / det, y11 / det},
      {"H", 1 / y11, b / y11, -b / y11, det / y11},
      {"G", det / y11, -b / y11, b / y11, 1 / y11},
    };
  }

  /** 10 dB pad in 50 ohm, pi of 96.25 and 71.15 ohm: handbook formula. */
  @Test(dataProvider = "kinds")
  public void everyKindOfParameterIsTheSamePad(
      String kind, double m11, double m12, double m21, double m22) {
    String two =
        "[Version] 2.0\n# Hz %s RI R 50\n[Number of Ports] 2\n[Two-Port Data Order] 12_21\n[Number of Frequencies] 1\n[Network Data]\n1 %s 0 %s 0 %s 0 %s 0\n[End]\n";
    NetworkData n = read(two.formatted(kind, m11, m12, m21, m22), "p.ts").network();
    assertEquals(n.magnitudeDb(0, 2, 1), -10, 0.001);
    assertEquals(n.re(0, 2, 1), n.re(0, 1, 2), 1e-12);
    assertEquals(n.magnitude(0, 1, 1), 0, 1e-4);
    // Version 1 divides by R, in the other order of the two middle pairs.
    double z = kind.equals("Z") || kind.equals("H") ? 1 / 50.0 : 50;
    double last = kind.equals("H") ? 50 : kind.equals("G") ? 1 / 50.0 : z;
    boolean hybrid = kind.equals("H") || kind.equals("G");
    double cross = hybrid ? 1 : z;
    String one =
        "# Hz %s RI R 50\n1 %s 0 %s 0 %s 0 %s 0\n"
            .formatted(kind, m11 * z, m21 * cross, m12 * cross, m22 * last);
    double[] again = read(one, "p.s2p").network().s();
    for (int i = 0; i < again.length; i++) {
      assertEquals(again[i], n.s()[i], 1e-12);
    }
  }

  private static NetworkData random(int ports, int points, boolean mixed) {
    Random random = new Random(ports * 1000L + points);
    double[] f = new double[points];
    double[] s = new double[2 * ports * ports * points];
    double[] ohm = new double[ports];
    for (int i = 0; i < points; i++) {
      f[i] = i * 1.23456789e6 + random.nextDouble();
    }
    for (int i = 0; i < s.length; i++) {
      s[i] = random.nextGaussian() * Math.pow(10, random.nextInt(12) - 10);
    }
    for (int i = 0; i < ports; i++) {
      ohm[i] = mixed ? 25 * (i + 1) : 50;
    }
    return new NetworkData(ports, ohm, f, s);
  }

  @DataProvider
  public Object[][] sizes() {
    return new Object[][] {{1}, {2}, {3}, {4}, {5}, {6}, {7}, {8}};
  }

  @Test(dataProvider = "sizes")
  public void roundTripsKeepEveryDigit(int ports) throws IOException {
    NetworkData n = random(ports, 7, false);
    StringBuilder one = new StringBuilder();
    TouchstoneWriter.writeVersion1(n, "made by a test\nsecond line", one);
    TouchstoneFile f = read(one.toString(), "x.s" + ports + "p");
    assertEquals(f.network().s(), n.s());
    assertEquals(f.network().frequencyHz(), n.frequencyHz());
    assertEquals(f.comments().toString(), "[made by a test, second line]");
    NetworkData mixed = random(ports, 3, true);
    StringBuilder two = new StringBuilder();
    TouchstoneWriter.writeVersion2(mixed, "", two);
    TouchstoneFile g = read(two.toString(), "x.ts");
    assertEquals(g.network().s(), mixed.s());
    assertEquals(g.network().referenceOhm(), mixed.referenceOhm());
    if (ports > 1) {
      expectThrows(
          Refusal.class, () -> TouchstoneWriter.writeVersion1(mixed, "", new StringBuilder()));
    }
  }

  /** The short way of reading numbers against the library's. */
  @Test
  public void numbersAreReadToTheLastBit() {
    Random random = new Random(3);
    StringBuilder text = new StringBuilder("# Hz S RI\n");
    double[] expected = new double[4000];
    for (int i = 0; i < expected.length; i++) {
      String number =
          switch (i % 4) {
            case 0 -> String.valueOf(Double.longBitsToDouble(random.nextLong() & ~(1L << 62)));
            case 1 -> String.format("%.6f", random.nextGaussian());
            case 2 -> String.format("%.17e", random.nextGaussian());
            default -> random.nextLong() + "." + Math.abs(random.nextLong());
          };
      expected[i] = Double.parseDouble(number);
      text.append(i % 2 == 0 ? (i + 1) + " " : " ").append(number).append(i % 2 == 0 ? "" : "\n");
    }
    assertEquals(read(text.toString(), "x.s1p").network().s(), expected);
  }

  @DataProvider
  public Object[][] broken() {
    String two = "[Version] 2.0\n# GHz S RI\n[Number of Ports] 1\n";
    return new Object[][] {
      {"", "x.s1p", "no data"},
      {"# GHz S RI R 50\n", "x.s1p", "no data"},
      {"1 0 0\n", "x.s1p", "line 1: an option line"},
      {"# GHz Q\n1 0 0", "x.s1p", "line 1: \"Q\""},
      {"# R 0\n1 0 0", "x.s1p", "line 1: the R"},
      {"# R\n1 0 0", "x.s1p", "line 1: the R"},
      {"#\n1 0 0\n2 0 zero\n", "x.s1p", "line 3: \"zero\" is not a number"},
      {"#\n1 0 NaN\n", "x.s1p", "line 2: \"NaN\""},
      {"#\n1 0 1e\n", "x.s1p", "line 2: \"1e\""},
      {"#\n1 0 1e999\n", "x.s1p", "line 2: \"1e999\" is too large"},
      {"#\n1 0 0x10\n", "x.s1p", "line 2"},
      {"#\n1 0 0\n1 0 0\n", "x.s1p", "line 3: the frequencies must rise"},
      {"#\n-1 0 0\n", "x.s1p", "line 2: the frequency is negative"},
      {"#\n1 0 0 0 0\n", "x.s1p", "line 2: 5 numbers at one frequency; there must be 3"},
      {"#\n1 0\n", "x.s1p", "line 2: a new frequency must begin here"},
      {"#\n1 1 0 2 0 3 0 4\n2 1 0 2 0 3 0 4 0\n", "x.s2p", "line 2"},
      {"#\n1 1 0 2 0 3 0\n2 1 0 2 0 3 0 4 0\n", "x.s2p", "line 3: the point that began at line 2"},
      {"#\n1 1 0 2 0 3 0\n", "x.s2p", "ends inside the point that began at line 2: 7 of 9"},
      {"#\n1 1 0 2 0 3 0 4 0\n0.5 1 2 3\n", "x.s2p", "line 3: a line of noise data has 5"},
      {"#\n1 1 0 2 0 3 0 4 0\n.5 1 2 3 4\n.4 1 2 3 4", "x.s2p", "line 4: the noise"},
      {"#\n1 1 0 2 0\n", "upload", "fit no number of ports"},
      {"# GHz H\n1 1 0\n", "x.s1p", "two-ports only"},
      {"# Y RI\n1 -1 0\n", "x.s1p", "At 1.0E9 Hz"},
      {"[Version] 3.0\n", "x", "line 1: version \"3.0\""},
      {"[Number of Ports] 1\n", "x", "line 1: a file with keywords must begin"},
      {"[Version\n", "x", "line 1: a keyword ends"},
      {two + "1 0 0\n", "x", "line 4: data outside"},
      {two + "[Network Data]\n1 0 0\n", "x", "line 4: before [Network Data]"},
      {two + "[Number of Frequencies] 2\n[Network Data]\n1 0 0\n[End]", "x", "may be cut off"},
      {two + "[Number of Frequencies] 1\n[Network Data]\n1 0 0\n[End]\n2 0 0", "x", "after [End]"},
      {two + "[Number of Frequencies] no\n", "x", "line 4: [number of frequencies] needs"},
      {two + "[Reference] 50 60\n", "x", "line 4: [Reference] needs 1"},
      {two + "[Surprise]\n", "x", "line 4: [Surprise] is not known"},
      {two + "[Begin Information]\n", "x", "inside [Begin Information]"},
      {two, "x.s2p", "line 3: the file says 1 ports but its name says 2"},
      {two.replace("] 1", "] 2") + "[Number of Frequencies] 1\n[Network Data]\n", "x", "Order"},
      {"#\n1 0 0", "x.s0p", "0 ports"},
    };
  }

  @Test(dataProvider = "broken")
  public void brokenFilesNameTheirLine(String text, String name, String part) {
    String message = expectThrows(Refusal.class, () -> read(text, name)).getMessage();
    assertTrue(message.contains(part), message);
  }

  /** Ten thousand mutations: a refusal with a line, or a whole array of finite numbers. */
  @Test
  public void mutationsNeverGiveAWrongArray() throws IOException {
    String[] seeds = {
      NOISY,
      "# GHZ S MA R 50\n" + FOUR_ROWS,
      "[Version] 2.0\n# GHz S DB R 50\n[Number of Ports] 2\n[Two-Port Data Order] 12_21\n[Reference] 50 75\n[Number of Frequencies] 2\n[Network Data]\n1 -1 0 -2 0 -3 0 -4 0\n2 -1 0 -2 0 -3 0 -4 0\n[Noise Data]\n1 2 .3 4 .5\n[End]\n",
    };
    String letters = "0123456789.-+eE \t\n!#[]RGHzNa\u0000\u00e9";
    Random random = new Random(11);
    int refused = 0;
    for (int i = 0; i < 12_000; i++) {
      StringBuilder text = new StringBuilder(seeds[i % seeds.length]);
      for (int k = 0; k <= random.nextInt(3); k++) {
        int at = random.nextInt(text.length());
        switch (random.nextInt(4)) {
          case 0 -> text.setCharAt(at, letters.charAt(random.nextInt(letters.length())));
          case 1 -> text.deleteCharAt(at);
          case 2 -> text.insert(at, letters.charAt(random.nextInt(letters.length())));
          default -> text.setLength(Math.max(1, at));
        }
      }
      String name = new String[] {"x.s2p", "x.s4p", "x.ts"}[i % 3];
      try {
        NetworkData n = read(text.toString(), name).network();
        assertEquals(TouchstoneReader.points(stream(text.toString()), name), n.points());
        assertEquals(
            TouchstoneReader.read(stream(text.toString()), name, n.points()).network().s(), n.s());
        assertEquals(n.ports(), i % 3 == 1 ? 4 : 2);
        assertEquals(n.s().length, 2 * n.ports() * n.ports() * n.points());
        for (double v : n.s()) {
          assertTrue(Double.isFinite(v), text.toString());
        }
      } catch (Refusal r) {
        refused++;
        assertTrue(r.getMessage().matches("(?s).*(line \\d+|At [\\dE.]+ Hz).*"), r.getMessage());
      }
    }
    assertTrue(refused > 3000, "only " + refused + " of 12000 were refused");
  }

  /** A large file is gone through twice and its numbers turned where they lie: all the same. */
  @Test
  public void aFileWhoseLengthIsKnownReadsTheSame() throws IOException {
    for (int ports : new int[] {1, 2, 3, 4, 7}) {
      NetworkData n = random(ports, 700, false);
      for (int version : new int[] {1, 2}) {
        StringWriter text = new StringWriter();
        if (version == 1) {
          TouchstoneWriter.writeVersion1(n, "", text);
        } else {
          TouchstoneWriter.writeVersion2(n, "", text);
        }
        String name = "x.s" + ports + "p";
        assertEquals(TouchstoneReader.points(stream(text.toString()), name), 700);
        NetworkData grown = read(text.toString(), name).network();
        for (int room : new int[] {700, 699, 701, 5}) {
          NetworkData known = TouchstoneReader.read(stream(text.toString()), name, room).network();
          assertEquals(known.frequencyHz(), grown.frequencyHz());
          assertEquals(known.s(), grown.s());
        }
      }
    }
    String cut = "# MHz S RI R 50\n1 0 0\n2 0\n";
    Refusal r = expectThrows(Refusal.class, () -> TouchstoneReader.points(stream(cut), "x.s1p"));
    assertTrue(r.getMessage().contains("line 3"), r.getMessage());
  }

  /** An endless line must not fill the memory. */
  @Test
  public void anEndlessLineIsRefused() {
    InputStream endless =
        new InputStream() {
          @Override
          public int read() {
            return '1';
          }
        };
    Refusal r = expectThrows(Refusal.class, () -> TouchstoneReader.read(endless, "x.s1p"));
    assertTrue(r.getMessage().contains("endless"));
  }
}
