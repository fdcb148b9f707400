package rovnik.core.modulation.ofdm;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertNotNull;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.HexFormat;
import java.util.List;
import java.util.Random;
import java.util.Set;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.limits.Verdict;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;

/** Packets of several users, each on a unit of its own. */
public class SharedPacketsTest extends PacketBench {
  private static Outcome seen(float[] iq, double fs, int width) {
    OfdmSettings s =
        new OfdmSettings(
            0, width * 20e6, 0.1, 0, 1, OfdmSettings.Estimate.TRAINING, true, false, null);
    return new OfdmMeasurement(s)
        .of(new IqRecord(iq, fs, 5.5e9, 0, false), MeasurementContext.BARE);
  }

  /** With silence around it, a carrier that is off, a second path, and noise over its tones. */
  private static float[] onTheAir(
      float[] clean, double fs, double hz, double sigma, Random random) {
    int later = (int) Math.round(60e-9 * fs);
    float[] iq = new float[clean.length + 4000];
    for (int n = 0; n < iq.length / 2; n++) {
      double x = 0;
      double y = 0;
      for (int path = 0; path < 2; path++) {
        int i = n - 1000 - path * later;
        if (i >= 0 && i < clean.length / 2) {
          double re = path == 0 ? 1 : 0.12;
          double im = path == 0 ? 0 : -0.15;
          x += re * clean[2 * i] - im * clean[2 * i + 1];
          y += re * clean[2 * i + 1] + im * clean[2 * i];
        }
      }
      double c = Math.cos(2 * Math.PI * hz * n / fs);
      double s = Math.sin(2 * Math.PI * hz * n / fs);
      iq[2 * n] = (float) (x * c - y * s + sigma * random.nextGaussian());
      iq[2 * n + 1] = (float) (x * s + y * c + sigma * random.nextGaussian());
    }
    return iq;
  }

  private static ResultTable users(Outcome o) {
    return o.table("users").orElseThrow();
  }

  private static String cell(ResultTable.Row row, int column) {
    return row.cells().get(column).text();
  }

  /** As a keyboard would write it. */
  private static String plain(String text) {
    return text.replace('\u2212', '-').replace('\u00a0', ' ');
  }

  /** Two packets that were made with NumPy alone: see fixtures/shared_packets.py. */
  @Test
  public void packetsOfOthersAreReadAndMeasured() throws IOException {
    ByteBuffer b = ByteBuffer.wrap(resource("shared_packets.f32")).order(ByteOrder.LITTLE_ENDIAN);
    float[] iq = new float[b.remaining() / 4];
    b.asFloatBuffer().get(iq);
    List<String> truth =
        new String(resource("shared_packets.txt"), StandardCharsets.US_ASCII).lines().toList();
    int from = 0;
    int line = 0;
    while (line < truth.size()) {
      String[] packet = truth.get(line++).split(" ");
      int width = Integer.parseInt(packet[1]);
      int count = Integer.parseInt(packet[2]);
      float[] own = Arrays.copyOfRange(iq, 2 * from, 2 * (from + count));
      from += count;
      Outcome o = seen(own, 48e6, width);
      assertTrue(o.summary().contains(packet[3] + " symbols"), o.summary());
      within(o, "frequencyError", 33_900);
      within(o, "clockOffset", -8.7);
      int tones = 0;
      int row = 0;
      double stronger = 0;
      for (; line < truth.size() && truth.get(line).startsWith("user"); line++, row++) {
        String[] user = truth.get(line).split(" ");
        ResultTable.Row r = users(o).rows().get(row);
        assertEquals(cell(r, 0), "station " + user[1]);
        assertTrue(plain(cell(r, 1)).startsWith(user[2] + ": " + user[3]));
        assertEquals(plain(cell(r, 2)), HeCodings.coding(Integer.parseInt(user[4])).label());
        assertTrue(plain(cell(r, 7)).startsWith("1 of 1"), user[1] + ": " + cell(r, 7));
        assertEquals(r.verdict(), Verdict.PASS);
        assertTrue(carries(o, "station " + user[1], user[6]), user[1]);
        tones += Integer.parseInt(user[2]);
        stronger += Integer.parseInt(user[2]) * Math.pow(10, Double.parseDouble(user[5]) / 10);
      }
      assertEquals(users(o).rows().size(), row);
      // Each user has its own distance to the noise, which is even over all of them.
      for (int u = 0; u < row; u++) {
        String[] user = truth.get(line - row + u).split(" ");
        double over = Double.parseDouble(user[5]) - 10 * Math.log10(stronger / tones);
        ResultTable.Row r = users(o).rows().get(u);
        assertEquals(r.cells().get(6).value(), over, 1.6, user[1]);
        Reading evm = o.reading("evmUser" + (u + 1)).orElseThrow();
        // A training of one symbol adds as much noise again, pilots a little.
        double wanted = -40 - r.cells().get(6).value() + 3.1;
        assertEquals(evm.value(), wanted, evm.uncertainty() + 0.1, user[1]);
      }
    }
  }

  /** True if what a user was sent is among its bytes, as far as these are shown. */
  private static boolean carries(Outcome o, String name, String hex) {
    StringBuilder all = new StringBuilder();
    for (ResultTable.Row r : o.table("payload").orElseThrow().rows()) {
      all.append(cell(r, 0).equals(name) ? cell(r, 2).replace(" ", "") : "");
    }
    String shown = all.substring(8); // behind the delimiter
    int both = Math.min(shown.length(), hex.length());
    return both > 0 && shown.substring(0, both).equals(hex.substring(0, both));
  }

  /** Divisions of a channel at random, with units that nobody has. */
  private static List<SentUser> division(int width, Random random) {
    List<SentUser> out = new ArrayList<>();
    int part = 0;
    while (part < width) {
      if (width >= 4 && part % 4 == 0 && random.nextInt(6) == 0) {
        add(out, width, part, 996, 0, random);
        part += 4;
      } else if (width >= 2 && part % 2 == 0 && random.nextInt(5) == 0) {
        add(out, width, part, 484, 0, random);
        part += 2;
      } else {
        List<HeSigB.Placed> placed = null;
        while (placed == null || placed.stream().anyMatch(p -> p.users() > 1 || p.size() > 242)) {
          placed = HeSigB.unitsOf(random.nextInt(200));
        }
        for (HeSigB.Placed p : placed) {
          if (random.nextInt(5) > 0 && p.users() == 1) {
            add(out, width, part, p.size(), p.index(), random);
          }
        }
        part++;
      }
    }
    return out.isEmpty() ? division(width, random) : out;
  }

  private static void add(
      List<SentUser> out, int width, int part, int size, int index, Random random) {
    int[] tones = ResourceUnit.inPart(PacketFormat.HE, width, part, size).get(index).all();
    List<ResourceUnit> all = ResourceUnit.of(PacketFormat.HE, width, size);
    for (int i = 0; i < all.size(); i++) {
      if (Arrays.equals(all.get(i).all(), tones)) {
        out.add(
            new SentUser(
                size,
                i + 1,
                out.size() * 29 % 2046,
                random.nextInt(12),
                3 * (2 * random.nextDouble() - 1)));
      }
    }
  }

  @DataProvider
  public Object[][] widths() {
    return new Object[][] {{1, 120}, {2, 54}, {4, 20}, {8, 6}};
  }

  /** 200 divisions in all. */
  @Test(dataProvider = "widths")
  public void anyDivisionIsReadAsItWasMade(int width, int tries) {
    Random random = new Random(width);
    for (int t = 0; t < tries; t++) {
      List<SentUser> sent = division(width, random);
      byte[] frame = framed(random, 40 + random.nextInt(80));
      int training = random.nextInt(4);
      UserPacket packet = UserPacket.of(width * 20e6, sent, training, frame.length);
      double fs = 2 * width * 20e6;
      float[] clean = packet.samples(frame, 1 + random.nextInt(127), 2);
      double hz = 100e3 * (2 * random.nextDouble() - 1);
      Outcome o = seen(onTheAir(clean, fs, hz, 1e-4, random), fs, width);
      String what = width + ", " + t + ": " + o.summary();
      assertEquals(value(o, "whole"), 1, what);
      assertEquals(users(o).rows().size(), sent.size(), what);
      Set<String> names = new HashSet<>();
      for (ResultTable.Row r : users(o).rows()) {
        String name = cell(r, 0);
        names.add(name);
        SentUser u =
            sent.stream().filter(x -> name.equals("station " + x.station())).findFirst().get();
        assertTrue(plain(cell(r, 1)).startsWith(u.tones() + ": "), what);
        assertEquals(plain(cell(r, 2)), HeCodings.coding(u.mcs()).label(), what);
        boolean coded = u.tones() <= 242 && u.mcs() <= 9;
        assertEquals(
            plain(cell(r, 7)),
            coded ? "1 of 1 MPDU has a check that fits" : "its bits are in LDPC and not decoded",
            what);
        assertTrue(r.cells().get(3).value() < -38, what + cell(r, 0) + r.cells().get(3).value());
      }
      assertEquals(names.size(), sent.size(), what);
    }
  }

  /** Without noise nothing but the computation is left, whatever their levels are. */
  @Test
  public void theFloorIsLow() {
    List<SentUser> users =
        List.of(
            new SentUser(26, 5, 77, 1, 0),
            new SentUser(106, 2, 5, 7, 0),
            new SentUser(52, 1, 1033, 4, 6),
            new SentUser(26, 4, 2, 9, -6));
    byte[] frame = framed(new Random(4), 300);
    for (int training = 0; training < 4; training++) {
      float[] iq = UserPacket.of(20e6, users, training, 300).samples(frame, 17, 2);
      float[] all = new float[iq.length + 4000];
      System.arraycopy(iq, 0, all, 2000, iq.length);
      Outcome o = seen(all, FS, 1);
      assertTrue(value(o, "evmDb") < -70, o.summary());
      double least = users(o).rows().get(1).cells().get(6).value();
      assertEquals(users(o).rows().get(0).cells().get(6).value() - least, 12, 0.05);
    }
  }

  /** What is claimed holds as often as it is claimed: k = 2. */
  @Test
  public void theTruthLiesWithinWhatIsClaimed() {
    Random random = new Random(5);
    holds(
        80,
        new String[] {"evmWithout", "evmUser1", "evmUser2", "frequencyError"},
        t -> {
          double snr = 34 + 6 * random.nextDouble();
          List<SentUser> users =
              List.of(new SentUser(106, 1, 3, 3, 0), new SentUser(106, 2, 4, 5, 0));
          byte[] frame = framed(random, 300);
          float[] clean = UserPacket.of(20e6, users, 3, 300).samples(frame, 9, 2);
          double hz = 100e3 * (2 * random.nextDouble() - 1);
          float[] iq = received(clean, hz, snr, random, 52.0 / 64 / 64, 212 * 78.125e3);
          // A training of all tones adds its noise, 8 pilots turn each symbol.
          double own = -snr + 10 * Math.log10(2 * (1 + (1 - 16.0 / 212) / 16));
          return new Trial(seen(iq, FS, 1), 100 * Math.pow(10, -snr / 20), own, own, hz);
        });
  }

  /** IEEE 802.11ax-2021, tables 27-7 to 27-10, as far as they are known from memory. */
  @Test
  public void unitsAreAsManyAsTheStandardHas() {
    int[] sizes = {26, 52, 106, 242, 484, 996};
    int[][] counts = {{9, 4, 2, 1, 0, 0}, {18, 8, 4, 2, 1, 0}, {37, 16, 8, 4, 2, 1}};
    int[] data = {24, 48, 102, 234, 468, 980};
    for (int w = 0; w < counts.length; w++) {
      for (int i = 0; i < sizes.length; i++) {
        List<ResourceUnit> units = ResourceUnit.of(PacketFormat.HE, 1 << w, sizes[i]);
        assertEquals(units.size(), counts[w][i], sizes[i] + " in " + (20 << w) + " MHz");
        Set<Integer> seen = new HashSet<>();
        for (ResourceUnit u : units) {
          assertEquals(u.all().length, sizes[i]);
          assertEquals(u.data().length, data[i]);
          for (int k : u.all()) {
            assertTrue(seen.add(k), "tone " + k + " twice");
          }
          // A training on every second tone has all pilots.
          for (int k : u.all()) {
            assertTrue(!u.isPilot(k) || k % 2 == 0, "pilot " + k);
          }
        }
      }
    }
    assertEquals(ResourceUnit.of(PacketFormat.HE, 8, 26).size(), 74);
    assertEquals(ResourceUnit.of(PacketFormat.EHT, 16, 242).size(), 16);
    assertEquals(ResourceUnit.of(PacketFormat.EHT, 4, 242).get(1).all()[0], -253);
    assertEquals(ResourceUnit.of(PacketFormat.HE, 4, 242).get(1).all()[0], -258);
    assertEquals(ResourceUnit.of(PacketFormat.HE, 4, 26).get(18).all()[0], -16);
  }

  /** Every number that names units names tones that do not overlap, nine of 26 at most. */
  @Test
  public void divisionsDoNotOverlap() {
    int known = 0;
    for (int number = 0; number < 256; number++) {
      List<HeSigB.Placed> placed = HeSigB.unitsOf(number);
      if (placed == null || placed.get(0).size() > 242) {
        continue;
      }
      known++;
      for (int width : new int[] {1, 2}) {
        Set<Integer> seen = new HashSet<>();
        for (HeSigB.Placed p : placed) {
          ResourceUnit u = ResourceUnit.inPart(PacketFormat.HE, width, 0, p.size()).get(p.index());
          for (int k : u.all()) {
            assertTrue(seen.add(k), number + ": " + k);
          }
        }
        assertTrue(seen.size() <= 242);
      }
    }
    assertEquals(known, 16 + 2 * 8 + 8 * 8 + 16 + 2 + 64 + 8);
    assertNotNull(HeSigB.unitsOf(215));
    assertEquals(HeSigB.unitsOf(216), null);
  }

  private static void refused(double channelHz, String part, SentUser... users) {
    Refusal r =
        org.testng.Assert.expectThrows(
            Refusal.class, () -> UserPacket.of(channelHz, List.of(users), 1, 100));
    assertEquals(r.field(), "users");
    assertTrue(r.getMessage().contains(part), r.getMessage());
  }

  @Test
  public void whatNoDivisionHasIsRefused() {
    refused(20e6, "at least one");
    refused(20e6, "no unit of 484", new SentUser(484, 1, 1, 1, 0));
    refused(20e6, "has 26, 52", new SentUser(27, 1, 1, 1, 0));
    refused(20e6, "place is 1 to 9", new SentUser(26, 10, 1, 1, 0));
    refused(20e6, "station is", new SentUser(26, 1, 2046, 1, 0));
    refused(20e6, "MCS 0 to 11", new SentUser(26, 1, 1, 12, 0));
    refused(20e6, "levelDb", new SentUser(26, 1, 1, 1, 13));
    refused(
        20e6, "Two users have tone", new SentUser(26, 1, 1, 1, 0), new SentUser(52, 1, 2, 1, 0));
    refused(160e6, "among several", new SentUser(1992, 1, 1, 1, 0));
    assertThrows(Refusal.class, () -> UserPacket.of(320e6, List.of(), 1, 100));
  }

  /** A bit of HE-SIG-B that is wrong is found by its check. */
  @Test
  public void aWrongBitIsFound() {
    SentUser[] users = {new SentUser(106, 1, 3, 3, 0), new SentUser(52, 4, 9, 5, 0)};
    SentDivision division = new SentDivision(1, List.of(users));
    byte[] coded = division.sent().coded().get(0);
    float[] sure = new float[coded.length];
    for (int i = 0; i < sure.length; i++) {
      sure[i] = 2 * coded[i] - 1;
    }
    byte[] bits =
        ConvolutionalCode.of(1, 2)
            .decode(Interleaver.LATER.inOrder(sure, 1), coded.length / 2, false);
    HeSigB right = HeSigB.of(1, List.of(bits));
    assertEquals(right.wrong(), "");
    assertEquals(right.users().size(), 2);
    int named = right.parts().stream().mapToInt(p -> p.sent().length()).sum();
    int missed = 0;
    for (int i = 0; i < named; i++) {
      byte[] other = bits.clone();
      other[i] ^= 1;
      HeSigB wrong = HeSigB.of(1, List.of(other));
      boolean tail = wrong.parts().stream().anyMatch(p -> p.says().equals("wrong"));
      missed += wrong.wrong().isEmpty() && !tail ? 1 : 0;
    }
    // Four bits of a check of eight miss about one in sixteen.
    assertTrue(missed <= named / 10, missed + " of " + named);
    assertTrue(HeSigB.of(1, List.of(Arrays.copyOf(bits, 30))).wrong().contains("too short"));
  }

  /** Bytes of users as they are shown are those that were sent. */
  @Test
  public void bytesOfEachUserAreShown() {
    List<SentUser> users = List.of(new SentUser(106, 1, 3, 3, 0), new SentUser(106, 2, 4, 5, 0));
    byte[] frame = framed(new Random(8), 100);
    float[] clean = UserPacket.of(20e6, users, 1, 100).samples(frame, 3, 2);
    Outcome o = seen(onTheAir(clean, FS, 0, 0, new Random(1)), FS, 1);
    String hex = HexFormat.of().formatHex(frame);
    assertTrue(carries(o, "station 3", hex));
    assertTrue(carries(o, "station 4", hex));
    assertTrue(o.summary().contains("HE, 2 users,"), o.summary());
    assertTrue(o.series().stream().anyMatch(s -> s.id().equals("units.2")));
    assertTrue(o.series().stream().anyMatch(s -> s.id().equals("points.1")));
  }
}
