package rovnik.instruments;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.limits.LimitSet;
import rovnik.core.limits.Verdict;
import rovnik.core.path.ElementKind;
import rovnik.core.path.PathCorrection;
import rovnik.core.path.PathElement;
import rovnik.core.path.SignalPath;
import rovnik.core.result.Reading;
import rovnik.core.signal.IqRecord;
import rovnik.core.signal.Window;
import rovnik.core.spectrum.Detector;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.spectrum.SpectrumEstimator;
import rovnik.core.spectrum.SpectrumMeasurement;
import rovnik.core.spectrum.SpectrumResult;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.instruments.dialect.DialectLibrary;
import rovnik.instruments.iq.AcquisitionPlan;
import rovnik.instruments.iq.IqReceiver;
import rovnik.instruments.iq.IqSetup;
import rovnik.instruments.scpi.Timeouts;
import rovnik.instruments.source.SignalSource;
import rovnik.instruments.source.StepAttenuator;
import rovnik.standins.Bench;
import rovnik.standins.world.Truth;

/** From the stand-ins' sockets through driver, plan and computation to readings: the truth. */
public class ClosedLoopTest {
  private Bench bench;
  private IqReceiver receiver;
  private SignalSource source;
  private final DialectLibrary dialects = new DialectLibrary(Path.of("none"));

  @BeforeMethod
  public void setUp() throws IOException {
    bench = new Bench(0, 3, false);
    receiver = (IqReceiver) connect(bench.receiverPort(), InstrumentKind.IQ_RECEIVER, "scpi-iq");
    source =
        (SignalSource)
            connect(bench.transmitterPort(), InstrumentKind.SIGNAL_SOURCE, "scpi-source");
  }

  @AfterMethod
  public void tearDown() {
    receiver.close();
    source.close();
    bench.close();
  }

  private Instrument connect(int port, InstrumentKind kind, String dialect) {
    return Drivers.connect("127.0.0.1", port, kind, dialects.find(dialect), Timeouts.DEFAULT);
  }

  private static SignalPath path(double padDb) {
    return new SignalPath(
        List.of(
            PathElement.source("Buoy TX", 27, 20),
            PathElement.of("Pad", ElementKind.PAD, -padDb, 0.3),
            PathElement.of("Feeder 6 m", ElementKind.CABLE, -1.2, 0.2),
            PathElement.port("Receiver IN", 0, 20, 18)),
        0);
  }

  private SpectrumResult measure(SpectrumSettings settings, SignalPath path, int blocks) {
    PathCorrection c = new PathCorrection(path);
    SpectrumSettings atPort =
        new SpectrumSettings(
            c.planeToPortHz(settings.centreHz()),
            settings.spanHz(),
            settings.rbwHz(),
            settings.window(),
            settings.detector(),
            settings.averages(),
            settings.referenceLevelDbm() + c.gainToPortDb(settings.centreHz()),
            settings.channelWidthHz());
    AcquisitionPlan plan = AcquisitionPlan.of(atPort, receiver.capabilities());
    receiver.configure(plan.setup());
    SpectrumEstimator e = new SpectrumEstimator(plan.layout(), settings.detector());
    boolean overload = false;
    IqRecord record = null;
    for (int i = 0; i < blocks; i++) {
      record = receiver.acquire();
      overload |= record.overload();
      e.breakRecord();
      e.accumulate(record.iq(), 0, record.sampleCount());
    }
    double[] power = new double[plan.layout().points()];
    e.powerInto(power);
    return SpectrumMeasurement.of(
        power,
        plan.layout(),
        e.outside(),
        record.centreHz(),
        record.fullScaleDbm(),
        e.segments(),
        settings,
        new MeasurementContext(
            c,
            receiver.capabilities().accuracy(),
            new LimitSet(Truth.BUOY_NOMINAL_HZ, 2.5, 27, 3, 0.5),
            overload ? List.of("overload") : List.of()));
  }

  private static SpectrumSettings settings(double centre, double span, double reference) {
    return new SpectrumSettings(
        centre, span, 0, Window.HANN, Detector.RMS, 20, reference, span / 4);
  }

  private static Reading reading(SpectrumResult r, String id) {
    return r.readings().stream().filter(x -> x.id().equals(id)).findFirst().get();
  }

  @Test
  public void carrierPowerAndFrequencyAreTheWorlds() {
    SpectrumResult r = measure(settings(458.525e6, 200e3, 30), path(30), 20);
    Reading power = reading(r, "carrierPower");
    Reading frequency = reading(r, "carrierFrequency");
    assertEquals(power.value(), Truth.BUOY_LEVEL_DBM, 0.3);
    assertTrue(Math.abs(power.value() - Truth.BUOY_LEVEL_DBM) < power.uncertainty());
    assertEquals(frequency.value(), Truth.BUOY_HZ, 1);
    assertEquals(reading(r, "frequencyErrorPpm").value(), Truth.BUOY_ERROR_PPM, 0.003);
    assertEquals(reading(r, "frequencyErrorPpm").verdict(), Verdict.PASS);
    assertTrue(power.verdict().passed());
  }

  @Test
  public void twoPathsThatDifferByAPadGiveTheSameReading() {
    double with30 =
        reading(measure(settings(458.525e6, 200e3, 30), path(30), 4), "carrierPower").value();
    try (StepAttenuator pad =
        (StepAttenuator)
            connect(bench.padSwitchPort(), InstrumentKind.STEP_ATTENUATOR, "scpi-pad")) {
      pad.setAttenuationDb(40);
      assertEquals(pad.attenuationDb(), 40, 0);
    }
    double with40 =
        reading(measure(settings(458.525e6, 200e3, 30), path(40), 4), "carrierPower").value();
    assertEquals(with40, with30, 0.1);
  }

  @Test
  public void noiseFloorIsKtbAndTheNoiseFigure() {
    source.setOn(false);
    SpectrumResult r = measure(settings(2e9, 200e3, -10), path(10), 10);
    double attenuation = 0; // reference level -10 - 11.2 dB lies below full scale without it
    assertEquals(
        reading(r, "noiseDensity").value() - 11.2,
        Truth.THERMAL_DBM_PER_HZ + Truth.RECEIVER_NOISE_FIGURE_DB + attenuation,
        0.3);
  }

  @Test
  public void wideViewShowsTransmitterSpurAndRoom() {
    SpectrumSettings wide =
        new SpectrumSettings(459e6, 4e6, 0, Window.BLACKMAN_HARRIS, Detector.RMS, 20, 30, 1e6);
    SpectrumResult on = measure(wide, path(30), 10);
    near(on, Truth.BUOY_HZ, 27);
    near(on, Truth.BUOY_HZ + Truth.SPUR_OFFSET_HZ, 27 + Truth.SPUR_DBC);
    near(on, Truth.PAGING_HZ, Truth.PAGING_DBM + 31.2);
    source.setOn(false);
    SpectrumResult off = measure(wide, path(30), 10);
    near(off, Truth.PAGING_HZ, Truth.PAGING_DBM + 31.2);
    assertTrue(
        off.peaks().stream().noneMatch(p -> Math.abs(p.frequencyHz() - Truth.BUOY_HZ) < 10e3));
  }

  private static void near(SpectrumResult r, double hz, double level) {
    assertTrue(
        r.peaks().stream()
            .anyMatch(
                p -> Math.abs(p.frequencyHz() - hz) < 1000 && Math.abs(p.level() - level) < 0.7),
        hz + " at " + level + " not in " + r.peaks());
  }

  @Test
  public void dataIsMarkedAsModulatedAndJudgedByItsChannelPower() {
    source.setModulated(true);
    SpectrumSettings s =
        new SpectrumSettings(458.525e6, 200e3, 0, Window.HANN, Detector.RMS, 200, 36, 75e3);
    SpectrumResult r = measure(s, path(30), 20);
    assertEquals(reading(r, "carrierPower").marks(), List.of("modulated: no plain carrier here"));
    assertEquals(reading(r, "channelPower").value(), 27, 0.3);
    assertTrue(reading(r, "channelPower").verdict().passed());
  }

  @Test
  public void aReferenceLevelTooLowOverloads() {
    SpectrumResult r = measure(settings(458.525e6, 200e3, 15), path(30), 1);
    assertEquals(reading(r, "carrierPower").marks(), List.of("overload"));
  }

  @Test
  public void sourceStateAndErrors() {
    source.setDriveHigh(true);
    assertEquals(source.state().text(), "on, carrier, drive high");
    assertEquals(source.state().levelDbm(), 29, 0);
    assertTrue(receiver.identity().contains("IQ receiver"));
    InstrumentFault refused =
        expectThrows(
            InstrumentFault.class, () -> receiver.configure(new IqSetup(20e9, 400e3, 100, 0)));
    assertEquals(refused.kind(), InstrumentFault.Kind.REPORTED);
    assertTrue(refused.getMessage().contains("-222"), refused.getMessage());
    assertTrue(receiver.errors().isEmpty());
    receiver.reset();
    receiver.configure(new IqSetup(1e9, 400e3, 100, 0));
    assertEquals(receiver.acquire().sampleCount(), 100);
  }

  @Test
  public void protectionTripsAndClears() {
    bench.world().setPadDb(0);
    receiver.configure(new IqSetup(458e6, 400e3, 100, 40));
    receiver.acquire();
    assertTrue(receiver.protectionTripped());
    bench.world().setPadDb(30);
    receiver.clearProtection();
    receiver.acquire();
    assertTrue(!receiver.protectionTripped());
  }

  @Test
  public void plansRefuseWhatTheReceiverCannot() {
    var able = receiver.capabilities();
    assertThrows(Refusal.class, () -> AcquisitionPlan.of(settings(1e9, 90e6, 0), able));
    assertThrows(Refusal.class, () -> AcquisitionPlan.of(settings(9e9, 1e6, 0), able));
    assertThrows(Refusal.class, () -> AcquisitionPlan.of(settings(10e3, 200e3, 0), able));
    AcquisitionPlan wide = AcquisitionPlan.of(settings(1e9, 80e6, 0), able);
    assertEquals(wide.setup().centreHz(), 1e9, 1e-3);
    assertEquals(wide.layout().rbwHz(), 80e3, 100);
    AcquisitionPlan narrow = AcquisitionPlan.of(settings(1e9, 200e3, 0), able);
    assertTrue(narrow.setup().centreHz() < 1e9 - 100e3);
  }
}
