package rovnik.instruments;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.signal.IqRecord;
import rovnik.instruments.dialect.DialectLibrary;
import rovnik.instruments.iq.IqReceiver;
import rovnik.instruments.iq.IqSetup;
import rovnik.instruments.parts.PartHolder;
import rovnik.instruments.scpi.ScpiConnection;
import rovnik.instruments.scpi.Timeouts;
import rovnik.standins.Bench;
import rovnik.standins.world.Truth;

/** Samples without gaps, of the fast receiver with its probe over the logger board. */
public class StreamTest {
  private static final DialectLibrary LIBRARY = new DialectLibrary(Path.of("none"));
  private static final double RATE = 8e6;
  private static final IqSetup SETUP = new IqSetup(Truth.LOGGER_HZ, RATE, 10_000, 0);
  private Bench bench;
  private IqReceiver fast;
  private IqReceiver usual;

  @BeforeClass
  public void setUp() throws IOException {
    bench = new Bench(0, 19, false);
    fast = receiver(bench.fastReceiverPort(), "scpi-iq-fast");
    usual = receiver(bench.receiverPort(), "scpi-iq");
    try (PartHolder input =
        (PartHolder) connect(bench.fastInputPort(), InstrumentKind.PART_HOLDER, "scpi-parts")) {
      input.set("part", "probe over the logger board");
    }
  }

  private static IqReceiver receiver(int port, String dialect) {
    return (IqReceiver) connect(port, InstrumentKind.IQ_RECEIVER, dialect);
  }

  private static Instrument connect(int port, InstrumentKind kind, String dialect) {
    return Drivers.connect("127.0.0.1", port, kind, LIBRARY.find(dialect), Timeouts.DEFAULT);
  }

  @AfterClass(alwaysRun = true)
  public void tearDown() {
    fast.close();
    usual.close();
    bench.close();
  }

  /** When bursts begin: half of their amplitude, by the numbers of the stream. */
  private static void begins(IqRecord r, List<Double> into) {
    double half = Math.pow(10, (Truth.LOGGER_DBM - 6 - r.fullScaleDbm()) / 10);
    double last = into.isEmpty() ? -1 : into.get(into.size() - 1);
    for (int i = 0; i < r.sampleCount(); i++) {
      double p = r.iq()[2 * i] * r.iq()[2 * i] + r.iq()[2 * i + 1] * r.iq()[2 * i + 1];
      double t = r.startSeconds() + i / RATE;
      if (p > half && t - last > 1e-4) {
        into.add(t);
        last = t;
      }
    }
  }

  /** Bursts keep their interval over the seams, and over what was lost: by its numbers. */
  @Test
  public void whatIsReceivedGoesOn() {
    List<Double> begins = new ArrayList<>();
    double ends = Double.NaN;
    double lost = 0;
    for (int block = 0; block < 60; block++) {
      if (block == 30) {
        try (ScpiConnection hand =
            ScpiConnection.open("127.0.0.1", bench.fastReceiverPort(), Timeouts.DEFAULT)) {
          hand.set("SIM:LOSE 123456");
        }
      }
      IqRecord r = fast.streamed(SETUP);
      assertEquals(r.sampleCount(), SETUP.samples());
      if (block > 0) {
        lost += r.startSeconds() - ends;
      }
      ends = r.endSeconds();
      begins(r, begins);
      // What another receiver takes meanwhile is another time.
      usual.configure(new IqSetup(458.525e6, 1e5, 1000, 0));
      usual.acquire();
    }
    assertEquals(lost, 123_456 / RATE, 1e-9);
    assertTrue(begins.size() >= 22, "" + begins.size());
    for (double t : begins) {
      double intervals = (t - begins.get(0)) / Truth.LOGGER_EVERY_SECONDS;
      double off = (intervals - Math.rint(intervals)) * Truth.LOGGER_EVERY_SECONDS;
      assertEquals(off, 0, 0.3e-6, "at " + t);
    }
  }

  /** Its trigger input at the strobe: each burst comes as much later as the board makes it. */
  @Test(dependsOnMethods = "whatIsReceivedGoesOn")
  public void theTriggerInputRisesBeforeEachBurst() {
    List<Double> begins = new ArrayList<>();
    List<Double> pulses = new ArrayList<>();
    try (PartHolder cable =
        (PartHolder) connect(bench.triggerInputPort(), InstrumentKind.PART_HOLDER, "scpi-parts")) {
      assertEquals(fast.streamed(SETUP).pulseSeconds().length, 0, "nothing is there yet");
      cable.set("part", "flash write strobe");
      for (int block = 0; block < 40; block++) {
        IqRecord r = fast.streamed(SETUP);
        begins(r, begins);
        for (double p : r.pulseSeconds()) {
          assertTrue(p >= r.startSeconds() && p <= r.endSeconds(), p + " is in its block");
          pulses.add(p);
        }
      }
      cable.set("part", "nothing");
    }
    assertTrue(begins.size() >= 14, "" + begins.size());
    for (double t : begins) {
      double nearest =
          pulses.stream()
              .mapToDouble(p -> Math.abs(t - p - Truth.LOGGER_LAG_SECONDS))
              .min()
              .orElseThrow();
      assertEquals(nearest, 0, 1.5 / RATE, "burst at " + t);
    }
  }

  @Test(dependsOnMethods = "theTriggerInputRisesBeforeEachBurst")
  public void aSingleRecordEndsIt() {
    double before = fast.streamed(SETUP).endSeconds();
    fast.configure(SETUP);
    assertEquals(fast.acquire().startSeconds(), 0.0);
    IqRecord again = fast.streamed(SETUP);
    assertTrue(again.startSeconds() >= before - 1e-9);
    fast.acquire(); // the same setup, without being told again
    assertTrue(fast.errors().isEmpty());
  }

  @Test
  public void aReceiverOfSingleRecordsSaysSo() {
    Refusal r = expectThrows(Refusal.class, () -> usual.streamed(SETUP));
    assertTrue(r.getMessage().contains("takes single records only"), r.getMessage());
  }

  private static byte[] block(long number, float sample) {
    ByteBuffer content = ByteBuffer.allocate(8 + 8 * 4).order(ByteOrder.LITTLE_ENDIAN);
    content.putLong(number);
    for (int i = 0; i < 8; i++) {
      content.putFloat(sample);
    }
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    out.writeBytes("#240".getBytes(StandardCharsets.ISO_8859_1));
    out.writeBytes(content.array());
    out.write('\n');
    return out.toByteArray();
  }

  @DataProvider
  public Object[][] nonsense() {
    return new Object[][] {
      {block(-3, 0)}, {block(Long.MAX_VALUE, 0)}, {block(0, Float.NaN)}, {"#15abcde\n".getBytes()}
    };
  }

  @Test(dataProvider = "nonsense")
  public void nonsenseIsAFault(byte[] answer) {
    fault(answer, "0", 1);
  }

  /** The same samples twice would be taken for others. */
  @Test
  public void numbersThatStandStillAreAFault() {
    fault(block(7, 0), "0", 2);
  }

  @DataProvider
  public Object[][] pulsesThatMeanNothing() {
    return new Object[][] {{"2,1.5"}, {"1,99"}, {"1,-1"}, {"x"}, {"1,NAN"}, {""}};
  }

  @Test(dataProvider = "pulsesThatMeanNothing")
  public void timesOfNoPulsesAreAFault(String pulses) {
    fault(block(0, 0), pulses, 1);
  }

  private static void fault(byte[] answer, String pulses, int call) {
    try (ScriptedPeer peer = new ScriptedPeer()) {
      peer.answer("SENS:SWE:TINT?", "1.25E-7")
          .answer("SENS:POW:RANG:UPP?", "-10")
          .answer("STAT:QUES:COND?", "0")
          .answer("FETC:TRIG:TIM?", pulses)
          .answer("FETC:NEXT?", answer);
      try (IqReceiver r = receiver(peer.port(), "scpi-iq-fast")) {
        IqSetup setup = new IqSetup(1e9, RATE, 4, 0);
        for (int i = 1; i < call; i++) {
          r.streamed(setup);
        }
        InstrumentFault f = expectThrows(InstrumentFault.class, () -> r.streamed(setup));
        assertEquals(f.kind(), InstrumentFault.Kind.BAD_REPLY, f.getMessage());
      }
    }
  }
}
