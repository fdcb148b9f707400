package rovnik.instruments;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.concurrent.locks.LockSupport;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.network.CableFigures;
import rovnik.core.network.CalibrationCheck;
import rovnik.core.network.CalibrationKit;
import rovnik.core.network.CalibrationMethod;
import rovnik.core.network.CalibrationStandard;
import rovnik.core.network.CalibrationStandard.Kind;
import rovnik.core.network.CalibrationStep;
import rovnik.core.network.CalibrationWork;
import rovnik.core.network.FixtureWindow;
import rovnik.core.network.KeptCalibration;
import rovnik.core.network.NetworkData;
import rovnik.core.network.PassBand;
import rovnik.core.network.RawSweep;
import rovnik.core.network.Resonance;
import rovnik.core.network.SweepSettings;
import rovnik.core.network.SweepSettings.Type;
import rovnik.core.network.TimeDomain;
import rovnik.instruments.dialect.DialectLibrary;
import rovnik.instruments.network.NetworkAnalyzer;
import rovnik.instruments.parts.PartHolder;
import rovnik.instruments.scpi.Timeouts;
import rovnik.standins.Bench;
import rovnik.standins.world.Truth;

/**
 * The network analyzer over its socket, calibrated with the bench's standards: what it then says of
 * the parts is compared with what they were made from.
 */
public class NetworkAnalyzerTest {
  private static final DialectLibrary LIBRARY = new DialectLibrary(Path.of("none"));
  private static final CalibrationKit KIT =
      new CalibrationKit(
          "bench",
          "the bench's box",
          Map.of(
              Kind.OPEN,
              new CalibrationStandard(
                  Kind.OPEN, 29e-12, 2.2e9, 50, new double[] {48e-15, 2e-25}, 50),
              Kind.SHORT,
              new CalibrationStandard(Kind.SHORT, 31e-12, 2.2e9, 50, new double[] {4e-12}, 50),
              Kind.LOAD,
              CalibrationStandard.ideal(Kind.LOAD)),
          0,
          0);

  private Bench bench;
  private NetworkAnalyzer analyzer;
  private PartHolder part;
  private PartHolder pad1;
  private PartHolder pad2;

  @BeforeClass
  public void setUp() throws IOException {
    bench = new Bench(0, 23, false);
    analyzer =
        (NetworkAnalyzer)
            connect(bench.networkPort(), InstrumentKind.NETWORK_ANALYZER, "scpi-network");
    part = (PartHolder) connect(bench.partPort(), InstrumentKind.PART_HOLDER, "scpi-parts");
    pad1 = (PartHolder) connect(bench.pad1Port(), InstrumentKind.PART_HOLDER, "scpi-parts");
    pad2 = (PartHolder) connect(bench.pad2Port(), InstrumentKind.PART_HOLDER, "scpi-parts");
  }

  private static Instrument connect(int port, InstrumentKind kind, String dialect) {
    return Drivers.connect("127.0.0.1", port, kind, LIBRARY.find(dialect), Timeouts.DEFAULT);
  }

  @AfterClass(alwaysRun = true)
  public void tearDown() {
    List.of(analyzer, part, pad1, pad2).forEach(Instrument::close);
    bench.close();
  }

  private static SweepSettings sweep(double start, double stop, int points) {
    return new SweepSettings(start, stop, points, Type.LINEAR, List.of(), 1000, 8, -10, true);
  }

  private RawSweep measure(SweepSettings s, String what) {
    part.plug(what);
    analyzer.configure(s);
    analyzer.begin();
    while (analyzer.progress() < 1) {
      LockSupport.parkNanos(1_000_000);
    }
    return analyzer.read();
  }

  private static String standardOf(CalibrationStep s) {
    if (s.standard() == null) {
      return s == CalibrationStep.THROUGH ? "Through" : "Load";
    }
    return switch (s.standard()) {
      case OPEN -> "Open";
      case SHORT -> "Short";
      case LOAD -> "Load";
    };
  }

  private KeptCalibration calibrate(CalibrationMethod method, SweepSettings s, String through) {
    CalibrationWork work = new CalibrationWork(method, KIT, s, 185e-12);
    for (CalibrationStep step : method.steps()) {
      if (step != CalibrationStep.ISOLATION) {
        String what = step == CalibrationStep.THROUGH ? through : standardOf(step);
        work.take(step, measure(s, what));
      }
    }
    return new KeptCalibration(1, "", method, "bench", 0, s, analyzer.identity(), work.solve());
  }

  @Test
  public void rawReadingsAreWrongAndCalibratedOnesRight() {
    SweepSettings s = sweep(400e6, 520e6, 241);
    double rawDb = measure(s, "Pad 10 dB").ratios().magnitudeDb(120, 2, 1);
    assertTrue(Math.abs(rawDb + 10) > 0.3, "raw " + rawDb);
    KeptCalibration c = calibrate(CalibrationMethod.TWO_PORT, s, "Through");
    NetworkData pad = c.correct(measure(s, "Pad 10 dB").ratios());
    for (int p = 0; p < pad.points(); p++) {
      assertEquals(pad.magnitudeDb(p, 2, 1), -10.06, 0.08);
      assertEquals(pad.magnitudeDb(p, 1, 2), pad.magnitudeDb(p, 2, 1), 0.02);
      assertTrue(pad.magnitudeDb(p, 1, 1) < -36, "S11 " + pad.magnitudeDb(p, 1, 1));
    }
    CalibrationCheck.Verdict open =
        CalibrationCheck.reflection(
            c.correct(measure(s, "Open").ratios()), 1, KIT.standards().get(Kind.OPEN));
    assertTrue(open.good(), open.words());
    CalibrationCheck.Verdict ripple =
        CalibrationCheck.ofRipple(c.correct(measure(s, "Line 0.5 m with open end").ratios()), 1);
    assertTrue(ripple.good(), ripple.words());
    assertTrue(CalibrationCheck.ripple(measure(s, "Line 0.5 m with open end").ratios(), 1) > 0.04);
  }

  @Test
  public void anyAdapterServesAsThrough() {
    SweepSettings s = sweep(50e6, 3e9, 401);
    KeptCalibration known = calibrate(CalibrationMethod.TWO_PORT, s, "Through");
    KeptCalibration unknown = calibrate(CalibrationMethod.UNKNOWN_THROUGH, s, "Adapter");
    NetworkData a = known.correct(measure(s, "Pad 20 dB").ratios());
    NetworkData b = unknown.correct(measure(s, "Pad 20 dB").ratios());
    for (int p = 0; p < a.points(); p++) {
      for (int k = 0; k < 8; k++) {
        assertEquals(b.s()[8 * p + k], a.s()[8 * p + k], 0.004, "point " + p);
      }
    }
    // The adapter as a known through spoils the match of what is measured then.
    KeptCalibration wrong = calibrate(CalibrationMethod.TWO_PORT, s, "Adapter");
    NetworkData c = wrong.correct(measure(s, "Pad 20 dB").ratios());
    assertTrue(Math.abs(c.im(400, 2, 1) - a.im(400, 2, 1)) > 0.05);
  }

  @Test
  public void partsAreWhatTheyWereMadeFrom() {
    SweepSettings s = sweep(448e6, 469e6, 841);
    KeptCalibration c = calibrate(CalibrationMethod.TWO_PORT, s, "Through");
    NetworkData filter = c.correct(measure(s, "Cavity filter").ratios());
    assertEquals(filter.magnitudeDb(420, 2, 1), -1.1, 0.2);
    assertEquals(PassBand.of(filter, 2, 1, 3).centreHz(), Truth.FILTER_HZ, 0.1e6);
    assertEquals(PassBand.of(filter, 2, 1, 3).widthHz(), Truth.FILTER_WIDTH_HZ, 0.4e6);

    SweepSettings wide = sweep(1e6, 1e9, 1000);
    KeptCalibration far = calibrate(CalibrationMethod.TWO_PORT, wide, "Through");
    NetworkData feeder = far.correct(measure(wide, "Feeder").ratios());
    CableFigures cable = CableFigures.of(feeder, Truth.FEEDER_METRES, 458e6);
    assertEquals(cable.velocityFactor(), Truth.FEEDER_VELOCITY_FACTOR, 0.002);
    assertEquals(cable.lossDbPerMetre(), Truth.FEEDER_DB_PER_METRE, 0.003);
    TimeDomain.Response r =
        TimeDomain.of(feeder, 1, 1).response(TimeDomain.Mode.IMPULSE, TimeDomain.Shape.BALANCED);
    double metres =
        TimeDomain.faults(r, 0.02, -r.resolutionSeconds()).get(0).seconds()
            * TimeDomain.LIGHT
            * Truth.FEEDER_VELOCITY_FACTOR
            / 2;
    assertEquals(metres, Truth.FEEDER_SPOT_METRES, 0.15);
  }

  /** -7 dB behind 10 dB and before 20 dB is 23 dB (common practice); here the harbour's own. */
  @Test
  public void preamplifierBendsWhenOverdriven() {
    SweepSettings s = sweep(440e6, 480e6, 81);
    KeptCalibration c = calibrate(CalibrationMethod.TWO_PORT, s, "Through");
    pad1.plug("Pad 10 dB");
    pad2.plug("Pad 20 dB with dc block");
    NetworkData both = c.correct(measure(s, "Shore preamplifier").ratios());
    assertEquals(both.magnitudeDb(36, 2, 1), Truth.PREAMP_GAIN_DB - 30.1, 0.15);
    assertEquals(analyzer.trouble(), "");
    pad1.plug("None");
    SweepSettings hot =
        new SweepSettings(440e6, 480e6, 81, Type.LINEAR, List.of(), 1000, 1, -4, true);
    NetworkData bent = c.correct(measure(hot, "Shore preamplifier").ratios());
    assertTrue(bent.magnitudeDb(36, 2, 1) < Truth.PREAMP_GAIN_DB - 20.05 - 1, "not bent");
    pad2.plug("Pad 20 dB");
    assertEquals(analyzer.trouble(), "dc at a port");
    pad2.plug("None");
    measure(hot, "Shore preamplifier");
    assertEquals(analyzer.trouble(), "overload");
    pad1.plug("None");
    part.plug("Through");
  }

  @Test
  public void chokesCoilsAndCrystals() {
    SweepSettings s =
        new SweepSettings(1.6e6, 30e6, 201, Type.LOGARITHMIC, List.of(), 300, 4, 0, true);
    KeptCalibration c = calibrate(CalibrationMethod.TWO_PORT, s, "Through");
    NetworkData empty = c.correct(measure(s, "Fixture empty").ratios());
    NetworkData shorted = c.correct(measure(s, "Fixture shorted").ratios());
    assertEquals(FixtureWindow.trouble(empty, true), "");
    assertEquals(FixtureWindow.trouble(shorted, false), "");
    assertTrue(FixtureWindow.trouble(shorted, true).contains("Empty, the fixture"));
    FixtureWindow window = new FixtureWindow(empty, shorted);
    NetworkData a = c.correct(measure(s, "Choke A").ratios());
    NetworkData b = c.correct(measure(s, "Choke B").ratios());
    for (int p = 0; p < a.points(); p++) {
      assertTrue(a.magnitudeDb(p, 2, 1) > -19.6 && a.magnitudeDb(p, 2, 1) < -12.5);
      assertTrue(b.magnitudeDb(p, 2, 1) > -39.5 && b.magnitudeDb(p, 2, 1) < -28.5);
    }
    assertEquals(window.of(a).share(), 0.0);
    assertTrue(window.of(empty).share() > 0.99);

    SweepSettings low = sweep(140e3, 210e3, 701);
    KeptCalibration l = calibrate(CalibrationMethod.TWO_PORT, low, "Through");
    Resonance coil =
        Resonance.of(
            l.correct(measure(low, "Front-end coil").ratios()),
            Resonance.Connection.ACROSS_LINE,
            false,
            140e3,
            210e3);
    assertEquals(coil.hertz(), Truth.COIL_RESONANCE_HZ, 200);
    assertEquals(coil.farad(), Truth.COIL_FARAD, 0.4e-9);
    assertEquals(coil.quality(), Truth.COIL_Q, 1.0);

    SweepSettings narrow = sweep(9.999e6, 10.002e6, 1001);
    KeptCalibration n = calibrate(CalibrationMethod.TWO_PORT, narrow, "Through");
    Resonance crystal =
        Resonance.of(
            n.correct(measure(narrow, "Crystal").ratios()),
            Resonance.Connection.BETWEEN_PORTS,
            true,
            9.999e6,
            10.002e6);
    assertEquals(crystal.hertz(), Truth.CRYSTAL_HZ, 2);
    assertEquals(crystal.ohm(), Truth.CRYSTAL_OHM, 0.2);
    assertEquals(crystal.quality(), Truth.CRYSTAL_Q, 0.02 * Truth.CRYSTAL_Q);
  }

  @Test
  public void segmentsAndBadSettings() {
    SweepSettings s =
        new SweepSettings(
            0,
            0,
            0,
            Type.SEGMENTS,
            List.of(
                new SweepSettings.Segment(400e6, 450e6, 11),
                new SweepSettings.Segment(455e6, 462e6, 71)),
            10e3,
            1,
            -10,
            false);
    NetworkData n = measure(s, "Through").ratios();
    assertEquals(n.points(), 82);
    assertEquals(n.frequencyHz()[11], 455e6);
    assertEquals(n.magnitude(5, 1, 2), 0.0);
    Refusal far = expectThrows(Refusal.class, () -> measure(sweep(1e9, 9e9, 11), "Through"));
    assertEquals(far.field(), "startHz");
    NetworkData one = new NetworkData(1, new double[] {50}, new double[] {1e6}, new double[2]);
    assertEquals(expectThrows(Refusal.class, () -> part.load("x", one)).field(), "part");
  }

  /** A file as the part: what comes back is the file. */
  @Test
  public void fileIsPluggedLikeAPart() {
    SweepSettings s = sweep(100e6, 200e6, 11);
    KeptCalibration c = calibrate(CalibrationMethod.TWO_PORT, s, "Through");
    double[] values = new double[88];
    for (int p = 0; p < 11; p++) {
      double[] point = {0.1, 0.05, 0.3, -0.2, 0.31 + 0.01 * p, -0.21, -0.12, 0.02};
      System.arraycopy(point, 0, values, 8 * p, 8);
    }
    NetworkData file = new NetworkData(2, new double[] {50, 50}, s.frequencies(), values);
    part.load("my part, measured", file);
    assertTrue(part.parts().contains("my part  measured"), part.parts().toString());
    NetworkData seen = c.correct(measure(s, "my part  measured").ratios());
    for (int i = 0; i < values.length; i++) {
      assertEquals(seen.s()[i], values[i], 0.004);
    }
  }
}
