package rovnik.core.path;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.util.List;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.formats.GainTableCsv;
import rovnik.core.path.LevelFinding.Severity;

public class PathTest {
  private static final PathElement TX = PathElement.source("Buoy TX", 27, 20);
  private static final PathElement RX = PathElement.port("Receiver IN", 0, 20, 20);

  private static PathElement pad(double db) {
    return PathElement.of("Pad " + db, ElementKind.PAD, -db, 0.3);
  }

  /** Common practice: a reading of -3.6 dBm behind a 10 dB pad is +6.4 dBm at the source. */
  @Test
  public void refersAReadingBehindAPadToTheSource() {
    SignalPath path = new SignalPath(List.of(TX, pad(10), RX), 0);
    float[] level = {-3.6f};
    new PathCorrection(path).applyTo(level, 458e6, 1);
    assertEquals(level[0], 6.4, 1e-5);
    float[] atPort = {-3.6f};
    new PathCorrection(path.withReadingPlane(1)).applyTo(atPort, 458e6, 1);
    assertEquals(atPort[0], -3.6, 1e-6);
  }

  @Test
  public void shiftsMoveFrequenciesAndTheGainIsTakenAtTheElementsInput() {
    PathElement mixer =
        PathElement.of("Down-converter", ElementKind.MIXER, -9.8, 0.5)
            .withFrequencyMap(new FrequencyMap.Shift(-6.985e9));
    PathElement ifCable =
        PathElement.of("IF cable", ElementKind.CABLE, 0, 0)
            .withGain(new Gain.Table(new double[] {400e6, 500e6}, new double[] {-1, -2}));
    SignalPath path = new SignalPath(List.of(TX, mixer, ifCable, RX), 0);
    PathCorrection c = new PathCorrection(path);
    assertEquals(c.planeToPortHz(7.425e9), 440e6, 1e-3);
    assertEquals(c.portToPlaneHz(440e6), 7.425e9, 1e-3);
    assertEquals(c.gainToPortDb(7.425e9), -9.8 - 1.4, 1e-9);
    assertEquals(path.gainBetweenDb(2, 0, 440e6), 9.8 + 1.4, 1e-9);
    assertEquals(c.uncovered(7.425e9), "");
    assertEquals(c.uncovered(7.6e9), "IF cable");
  }

  @Test
  public void planGivesLevelsAndHeadroom() {
    SignalPath path =
        new SignalPath(
            List.of(TX, pad(30), PathElement.of("Feeder 6 m", ElementKind.CABLE, -1.2, 0.2), RX),
            0);
    LevelPlan plan = LevelPlan.of(path, 458.525e6);
    assertEquals(plan.levelDbm()[0], 27, 1e-9);
    assertEquals(plan.levelDbm()[1], -3, 1e-9);
    assertEquals(plan.levelDbm()[2], -4.2, 1e-9);
    assertEquals(plan.worstHeadroomDb(), 4.2, 1e-9);
    assertTrue(plan.findings().isEmpty());
  }

  /** Common practice: a 10 W transmitter into a software radio wants a pad of 40 to 50 dB. */
  @Test
  public void namesWhatWouldBeDamagedAndThePad() {
    PathElement radio = PathElement.port("Radio RX", -5, 0, 20);
    LevelPlan plan =
        LevelPlan.of(
            new SignalPath(List.of(PathElement.source("TX 10 W", 40, 20), radio), 0), 450e6);
    LevelFinding worst = plan.blocking().get(0);
    assertEquals(worst.severity(), Severity.DAMAGE);
    assertEquals(worst.element(), 1);
    assertEquals(worst.padDb(), 50);
    assertTrue(worst.sentence().contains("Radio RX would be damaged"), worst.sentence());
    assertTrue(worst.sentence().contains("50 dB pad"), worst.sentence());
  }

  @Test
  public void overloadAndNarrowHeadroomAreToldApart() {
    LevelPlan over = LevelPlan.of(new SignalPath(List.of(TX, pad(20), RX), 0), 458e6);
    assertEquals(over.blocking().get(0).severity(), Severity.OVERLOAD);
    assertEquals(over.blocking().get(0).padDb(), 10);
    PathElement tight = RX.withLimits(-2, 20);
    LevelPlan narrow = LevelPlan.of(new SignalPath(List.of(TX, pad(30), tight), 0), 458e6);
    assertTrue(narrow.blocking().isEmpty());
    assertEquals(narrow.findings().get(0).severity(), Severity.NARROW);
    assertEquals(narrow.worstHeadroomDb(), 1, 1e-9);
  }

  /** The worst case of the tolerances decides about damage. */
  @Test
  public void tolerancesCountAgainstDamage() {
    SignalPath path =
        new SignalPath(
            List.of(TX, PathElement.of("Pad 7.5", ElementKind.PAD, -7.5, 1), RX.withLimits(20, 20)),
            0);
    LevelPlan plan = LevelPlan.of(path, 458e6);
    assertEquals(plan.levelDbm()[1], 19.5, 1e-9);
    assertEquals(plan.blocking().get(0).severity(), Severity.DAMAGE);
  }

  @Test
  public void refusesPathsThatCannotBe() {
    assertThrows(Refusal.class, () -> new SignalPath(List.of(TX, pad(10)), 0));
    assertThrows(Refusal.class, () -> new SignalPath(List.of(pad(10), RX), 0));
    assertThrows(Refusal.class, () -> new SignalPath(List.of(TX, RX), 1));
    assertThrows(Refusal.class, () -> PathElement.of(" ", ElementKind.PAD, 0, 0));
    assertThrows(Refusal.class, () -> PathElement.of("a", ElementKind.PAD, 0, -1));
    assertThrows(Refusal.class, () -> PathElement.of("a", ElementKind.PAD, Double.NaN, 1));
    assertThrows(Refusal.class, () -> RX.withLimits(30, 20));
  }

  @Test
  public void readsGainTables() {
    Gain.Table t = GainTableCsv.parse("# feeder\nFrequency (MHz),Gain (dB)\n400, -3.0\n500;-3.4\n");
    assertEquals(t.dbAt(450e6), -3.2, 1e-12);
    assertEquals(t.dbAt(1e9), -3.4, 1e-12);
    assertFalse(t.covers(1e9));
    assertEquals(GainTableCsv.parse("1M\t-0.5 dB\n2M\t-0.7").dbAt(2e6), -0.7, 1e-12);
    Refusal r =
        org.testng.Assert.expectThrows(Refusal.class, () -> GainTableCsv.parse("1M,-1\n2M,abc\n"));
    assertTrue(r.getMessage().contains("line 2"), r.getMessage());
    assertThrows(Refusal.class, () -> GainTableCsv.parse("2M,-1\n1M,-1\n"));
    assertThrows(Refusal.class, () -> GainTableCsv.parse("just text"));
    assertThrows(Refusal.class, () -> GainTableCsv.parse(""));
  }

  /** One gain for all frequencies goes a shorter way than a table: both must say the same. */
  @Test
  public void flatGainsAndTablesAgree() {
    PathElement flat = PathElement.of("Cable", ElementKind.CABLE, -1.5, 0.1);
    PathElement table =
        flat.withGain(new Gain.Table(new double[] {1e6, 1e9}, new double[] {-1.5, -1.5}));
    float[] a = {-10, -20, -30};
    float[] b = a.clone();
    new PathCorrection(new SignalPath(List.of(TX, pad(10), flat, RX), 0)).applyTo(a, 4e8, 1e6);
    new PathCorrection(new SignalPath(List.of(TX, pad(10), table, RX), 0)).applyTo(b, 4e8, 1e6);
    for (int i = 0; i < a.length; i++) {
      assertEquals(a[i], b[i], 1e-5);
      assertEquals(a[i], -10 - 10 * i + 11.5, 1e-5);
    }
    // Behind the table there is nothing but the port: no correction either way.
    float[] atPort = {-10};
    new PathCorrection(new SignalPath(List.of(TX, table, RX), 1)).applyTo(atPort, 4e8, 1e6);
    assertEquals(atPort[0], -10, 1e-6);
  }

  /** Peaks are what limits are held against: 6 dB of crest eat 6 dB of headroom. */
  /** What a source was set to counts; of what it only should put out, the higher. */
  @Test
  public void aLevelThatWasSetNeedsNoExpectation() {
    assertEquals(new SourceLevel(-20, 9, true).orExpected(0), new SourceLevel(-20, 9, true));
    assertEquals(new SourceLevel(-20, 9, false).orExpected(0), new SourceLevel(0, 9, false));
    assertEquals(new SourceLevel(7, 0, false).orExpected(0).meanDbm(), 7.0);
    assertEquals(SourceLevel.UNKNOWN.orExpected(-3).meanDbm(), -3.0);
  }

  @Test
  public void peaksCount() {
    PathElement port = PathElement.port("RX", 0, 20, 18);
    SignalPath path = new SignalPath(List.of(PathElement.source("TX", -4, 20), port), 0);
    assertTrue(LevelPlan.of(path, 458e6, SourceLevel.of(-4)).blocking().isEmpty());
    LevelPlan peaks = LevelPlan.of(path, 458e6, new SourceLevel(-4, 6, true));
    assertEquals(peaks.levelDbm()[0], -4, 1e-9);
    assertEquals(peaks.worstHeadroomDb(), -2, 1e-9);
    assertTrue(
        peaks.blocking().get(0).sentence().contains("in the peaks"),
        peaks.blocking().get(0).sentence());
  }

  /** Two voltages that meet in step: 6 dB above each; 20 dB apart: 0.83 dB above the stronger. */
  @Test
  public void whatEntersAtACombinerIsJudgedWithTheSignal() {
    PathElement combiner =
        new PathElement(
            "Combiner",
            ElementKind.COMBINER,
            new Gain.Fixed(-6),
            new FrequencyMap.Identity(),
            0,
            Double.NaN,
            Double.NaN,
            true,
            Double.NaN,
            6.5,
            -6.5);
    PathElement rx = PathElement.port("Receiver IN", 6, 20, 18);
    SignalPath path =
        new SignalPath(List.of(PathElement.source("Generator", 6, 20), combiner, pad(1), rx), 0);
    LevelPlan plan = LevelPlan.of(path, 164e6);
    assertEquals(plan.levelDbm()[2], -1, 1e-9);
    assertEquals(plan.headroomDb()[3], 6 - (-1 + 20 * Math.log10(2)), 1e-9);
    LevelPlan apart = LevelPlan.of(path, 164e6, SourceLevel.of(-14));
    assertEquals(apart.headroomDb()[3], 6 - (-1 + 20 * Math.log10(1.1)), 1e-9);
    LevelPlan strong = LevelPlan.of(path, 164e6, SourceLevel.of(18));
    assertTrue(strong.blocking().get(0).sentence().contains("in the peaks"));
  }
}
