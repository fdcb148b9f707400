package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.IntFunction;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import rovnik.core.modulation.Format;
import rovnik.core.modulation.Prbs;
import rovnik.core.modulation.ofdm.OfdmDescription.Gold;
import rovnik.core.modulation.ofdm.OfdmDescription.Symbol;
import rovnik.core.modulation.ofdm.OfdmDescription.Tones;
import rovnik.core.modulation.ofdm.OfdmDescription.What;

/**
 * Descriptions to begin with, of standards and of our own. What they hold of a standard is from
 * memory; a training that is not known for certain is learned from the signal.
 */
public final class ReadyDescriptions {
  private static final int DATA_SYMBOLS = 16;
  private static final String DATA = "Data";
  private static final String TRAINING = "Training";
  private static final String REFERENCE = "Reference";

  private ReadyDescriptions() {}

  public static List<OfdmDescription> all() {
    List<OfdmDescription> out = new ArrayList<>();
    out.add(ofClause17());
    for (int width : new int[] {2, 4, 8}) {
      out.add(ofClause21(width));
    }
    for (int width : new int[] {1, 2, 4, 8}) {
      out.add(ofUnit("HE", width, 4, Format.QAM256));
    }
    out.add(ofUnit("EHT", 16, 5, Format.QAM1024));
    int[] blocks = {6, 15, 25, 50, 75, 100};
    int[] transforms = {128, 256, 512, 1024, 1536, 2048};
    String[] widths = {"1.4", "3", "5", "10", "15", "20"};
    for (int i = 0; i < blocks.length; i++) {
      out.add(of36211(widths[i], blocks[i], transforms[i]));
    }
    out.add(of38211(15, 20, 106, 2048));
    out.add(of38211(30, 100, 273, 4096));
    out.add(of38211(60, 100, 135, 2048));
    out.add(of38211(120, 400, 264, 4096));
    out.add(wide());
    return List.copyOf(out);
  }

  private static Tones known(String tones, List<Double> re) {
    return new Tones(What.KNOWN, tones, re, null, null, null, null, 0, "");
  }

  private static Tones known(String tones, Gold gold) {
    return new Tones(What.KNOWN, tones, null, null, gold, null, null, 0, "");
  }

  private static Tones learned(String tones) {
    return new Tones(What.LEARNED, tones, null, null, null, null, null, 0, "");
  }

  private static Tones data(String tones, Format format) {
    return new Tones(What.DATA, tones, null, null, null, null, format, 0, "");
  }

  private static Tones pilots(String tones, List<Double> re, List<Integer> signs) {
    return new Tones(What.PILOTS, tones, re, null, null, signs, null, 0, "");
  }

  /** Some tones in words. */
  private static String words(int[] tones) {
    return Arrays.stream(tones).mapToObj(Integer::toString).collect(Collectors.joining(", "));
  }

  /** Signs of the pilots of IEEE 802.11, from a symbol on. */
  private static List<Integer> signs(int count, int before) {
    return IntStream.range(0, count).mapToObj(s -> LegacyTones.sign(s + before)).toList();
  }

  /** IEEE 802.11-2020, clause 17: long training, SIGNAL and data. */
  private static OfdmDescription ofClause17() {
    String pilots = words(LegacyTones.PILOTS);
    String rest = "-26..26 not 0, " + pilots;
    List<Double> pilot =
        IntStream.range(0, 4).mapToObj(p -> (double) LegacyTones.pilot(p, 0)).toList();
    List<Double> values =
        IntStream.rangeClosed(-LegacyTones.LAST, LegacyTones.LAST)
            .filter(k -> k != 0)
            .mapToObj(k -> (double) LegacyTones.longTraining(k))
            .toList();
    Tones training = known("-26..26 not 0", values);
    return new OfdmDescription(
        "802.11 clause 17, 20 MHz",
        "IEEE 802.11-2020 clause 17: long training, SIGNAL, 16 symbols of 64-QAM",
        312.5e3,
        LegacyTones.TRANSFORM,
        0,
        7.9,
        List.of(
            new Symbol(TRAINING, 1, 2 * LegacyTones.GUARD, List.of(training)),
            new Symbol(TRAINING, 1, 0, List.of(training)),
            new Symbol(
                "SIGNAL",
                1,
                LegacyTones.GUARD,
                List.of(data(rest, Format.BPSK), pilots(pilots, pilot, null))),
            new Symbol(
                DATA,
                DATA_SYMBOLS,
                LegacyTones.GUARD,
                List.of(data(rest, Format.QAM64), pilots(pilots, pilot, signs(DATA_SYMBOLS, 1))))));
  }

  /** What a VHT packet is from its long training on (clause 21), of one stream. */
  private static OfdmDescription ofClause21(int width) {
    int[] above = width == 2 ? new int[] {11, 25, 53} : new int[] {11, 39, 75, 103};
    String[] tones = {"-58..58 not -1..1", "-122..122 not -1..1"};
    String all = width == 2 ? tones[0] : tones[1];
    int[] pilots = mirrored(above);
    int[] pattern =
        width == 2 ? new int[] {1, 1, 1, -1, -1, 1} : new int[] {1, 1, 1, -1, -1, 1, 1, 1};
    if (width == 8) {
      all = "-250..250 not -129..-127, -5..5, 127..129";
      pilots =
          IntStream.concat(
                  Arrays.stream(pilots).map(k -> k - 128), Arrays.stream(pilots).map(k -> k + 128))
              .toArray();
    }
    int[] where = pilots;
    return body(
        "802.11 clause 21, " + 20 * width + " MHz",
        "IEEE 802.11-2020 clause 21, from the long training on: 16 symbols of 256-QAM",
        312.5e3,
        LegacyTones.TRANSFORM * width,
        LegacyTones.GUARD * width,
        all,
        where,
        Format.QAM256,
        p ->
            IntStream.range(0, DATA_SYMBOLS)
                .mapToObj(s -> pattern[(s + p) % pattern.length] * LegacyTones.sign(s + 4))
                .toList());
  }

  /** Tones to both sides, from the lowest. */
  private static int[] mirrored(int[] above) {
    return IntStream.concat(Arrays.stream(above).map(k -> -k), Arrays.stream(above))
        .sorted()
        .toArray();
  }

  /** The same of HE and EHT (IEEE 802.11ax-2021 clause 27 and 802.11be clause 36). */
  private static OfdmDescription ofUnit(String name, int width, int before, Format format) {
    ResourceUnit unit = ResourceUnit.whole(width);
    int[] all = unit.all();
    int[] pilots = Arrays.stream(all).filter(unit::isPilot).toArray();
    return body(
        "802.11 " + name + ", " + 20 * width + " MHz",
        "IEEE "
            + (name.equals("HE") ? "802.11ax clause 27" : "802.11be clause 36")
            + ", from the long training on, four times the usual: 16 symbols of "
            + format.label()
            + " behind guards of 0.8 us",
        78.125e3,
        256 * width,
        LegacyTones.GUARD * width,
        ranges(all),
        pilots,
        format,
        p -> IntStream.range(0, DATA_SYMBOLS).mapToObj(s -> unit.pilot(p, s, before)).toList());
  }

  /** Training whose signs are learned, and data with a pattern of signs for each pilot. */
  private static OfdmDescription body(
      String name,
      String source,
      double spacingHz,
      int transform,
      int guard,
      String tones,
      int[] pilots,
      Format format,
      IntFunction<List<Integer>> signs) {
    List<Tones> carries = new ArrayList<>();
    String without = words(pilots);
    carries.add(data(tones + (tones.contains("not") ? ", " : " not ") + without, format));
    for (int p = 0; p < pilots.length; p++) {
      carries.add(pilots("" + pilots[p], List.of(1.0), signs.apply(p)));
    }
    return new OfdmDescription(
        name,
        source + "; signs of the training are learned",
        spacingHz,
        transform,
        0,
        null,
        List.of(
            new Symbol(TRAINING, 1, guard, List.of(learned(tones))),
            new Symbol(DATA, DATA_SYMBOLS, guard, carries)));
  }

  /** Rising tones as ranges. */
  private static String ranges(int[] tones) {
    List<String> out = new ArrayList<>();
    int from = 0;
    for (int i = 1; i <= tones.length; i++) {
      if (i == tones.length || tones[i] != tones[i - 1] + 1) {
        out.add(tones[from] + ".." + tones[i - 1]);
        from = i;
      }
    }
    return String.join(", ", out);
  }

  /** Samples of a transform for so many of 2,048. */
  private static int of2048(int samples, int transform) {
    return samples * transform / 2048;
  }

  /**
   * The first subframe of a frame of 3GPP TS 36.211 with normal prefixes (6.12): 160 samples of
   * 2,048 in the first symbol of seven and 144 in the others, nothing in the middle. Every sixth
   * tone of two symbols of seven is a cell-specific reference signal of the first antenna (6.10.1)
   * of cell 0.
   */
  private static OfdmDescription of36211(String width, int blocks, int transform) {
    int edge = 6 * blocks;
    String all = -edge + ".." + edge + " not 0";
    List<Symbol> out = new ArrayList<>();
    for (int s = 0; s < 14; s++) {
      int inSlot = s % 7;
      int guard = of2048(inSlot == 0 ? 160 : 144, transform);
      if (inSlot != 0 && inSlot != 4) {
        out.add(new Symbol(DATA, 1, guard, List.of(data(all, Format.QAM64))));
        continue;
      }
      int[] tones = new int[2 * blocks];
      for (int m = 0; m < tones.length; m++) {
        // Of 0 to 12 blocks - 1, which leave out the middle.
        int place = 6 * m + (inSlot == 0 ? 0 : 3);
        tones[m] = place < edge ? place - edge : place - edge + 1;
      }
      long init = (1 << 10) * (7L * (s / 7 + 1) + inSlot + 1) + 1;
      out.add(
          new Symbol(
              REFERENCE,
              1,
              guard,
              List.of(
                  known(words(tones), new Gold(init, 110 - blocks)),
                  data(all + ", " + words(tones), Format.QAM64))));
    }
    return new OfdmDescription(
        "TS 36.211, " + width + " MHz",
        "3GPP TS 36.211: subframe 0 of cell 0, one antenna, 64-QAM",
        15e3,
        transform,
        0,
        8.0,
        out);
  }

  /**
   * The first slot of a frame of 3GPP TS 38.211 with normal prefixes (5.3.1): 144 samples of 2,048,
   * and 16/30.72 us more in the first symbol of half a millisecond. Every second tone of two
   * symbols is a demodulation reference signal (7.4.1.1, type 1) of cell 0.
   */
  private static OfdmDescription of38211(int kilohertz, int width, int blocks, int transform) {
    int edge = 6 * blocks;
    String all = -edge + ".." + (edge - 1);
    int more = (int) Math.rint(16 / 30.72e6 * transform * kilohertz * 1e3);
    List<Symbol> out = new ArrayList<>();
    for (int s = 0; s < 14; s++) {
      boolean begins = s == 0 || kilohertz == 15 && s == 7;
      int guard = of2048(144, transform) + (begins ? more : 0);
      if (s != 2 && s != 11) {
        out.add(new Symbol(DATA, 1, guard, List.of(data(all, Format.QAM256))));
        continue;
      }
      long init = (1L << 17) * (s + 1);
      out.add(
          new Symbol(
              REFERENCE,
              1,
              guard,
              List.of(
                  known(-edge + ".." + (edge - 2) + "/2", new Gold(init, 0)),
                  data(1 - edge + ".." + (edge - 1) + "/2", Format.QAM256))));
    }
    return new OfdmDescription(
        "TS 38.211, " + width + " MHz, " + kilohertz + " kHz",
        "3GPP TS 38.211: slot 0 of cell 0, one antenna, 256-QAM",
        kilohertz * 1e3,
        transform,
        0,
        3.5,
        out);
  }

  private static List<Double> ofBits(int count, int from) {
    long[] bits = Prbs.PN15.bits(from + count);
    return IntStream.range(from, from + count)
        .mapToObj(i -> Prbs.get(bits, i) ? 1.0 : -1.0)
        .toList();
  }

  private static OfdmDescription wide() {
    Tones training = known("-280..280 not 0", ofBits(560, 0));
    return new OfdmDescription(
        "700 MHz wide",
        "our own, for 1.28 GS/s",
        1.25e6,
        1024,
        0,
        null,
        List.of(
            new Symbol(TRAINING, 2, 256, List.of(training)),
            new Symbol(
                DATA,
                DATA_SYMBOLS,
                64,
                List.of(
                    data("-280..280 not -210, -70, 0, 70, 210", Format.QAM256),
                    pilots(
                        "-210, -70, 70, 210",
                        List.of(1.0, 1.0, 1.0, -1.0),
                        ofBits(127, 600).stream().map(Double::intValue).toList())))));
  }
}
