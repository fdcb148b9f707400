package rovnik.instruments;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.HashMap;
import java.util.Map;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.signal.Window;
import rovnik.core.spectrum.Detector;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.instruments.InstrumentFault.Kind;
import rovnik.instruments.dialect.DialectLibrary;
import rovnik.instruments.scpi.Timeouts;
import rovnik.instruments.sweep.SweepSetup;
import rovnik.instruments.sweep.SweptAnalyzer;

/** Analyzers whose traces make no sense: each gives a named fault, and never a wrong array. */
public class BrokenSweepTest {
  private static final Timeouts SHORT =
      new Timeouts(Duration.ofMillis(500), Duration.ofMillis(400), Duration.ofMillis(900));
  private static final int POINTS = 1001;

  /** Answers questions from a list; "" is silence, and what is not listed is "0". */
  private static final class Answers implements AutoCloseable {
    private final ServerSocket listener;

    Answers(Map<String, byte[]> replies) throws IOException {
      listener = new ServerSocket(0, 1, InetAddress.getByName("127.0.0.1"));
      Thread peer =
          new Thread(
              () -> {
                try (Socket socket = listener.accept()) {
                  serve(socket, replies);
                } catch (IOException done) {
                  // the client left
                }
              });
      peer.setDaemon(true);
      peer.start();
    }

    private static void serve(Socket socket, Map<String, byte[]> replies) throws IOException {
      BufferedReader in =
          new BufferedReader(
              new InputStreamReader(socket.getInputStream(), StandardCharsets.ISO_8859_1));
      OutputStream out = socket.getOutputStream();
      for (String line = in.readLine(); line != null; line = in.readLine()) {
        byte[] reply =
            replies.getOrDefault(
                line,
                line.contains("?")
                    ? (line.startsWith("SYST:ERR") ? "0,\"No error\"" : "0")
                        .getBytes(StandardCharsets.ISO_8859_1)
                    : new byte[0]);
        if (reply.length > 0) {
          out.write(reply);
          out.write('\n');
          out.flush();
        }
      }
    }

    @Override
    public void close() throws IOException {
      listener.close();
    }
  }

  private static byte[] text(String s) {
    return s.getBytes(StandardCharsets.ISO_8859_1);
  }

  private static String levels(int count, String last) {
    return "-80.0,".repeat(count - 1) + last;
  }

  private static byte[] block(int announced, int sent) {
    byte[] head = text("#4" + String.format("%04d", announced));
    byte[] all = java.util.Arrays.copyOf(head, head.length + sent);
    return all;
  }

  @DataProvider
  public Object[][] traces() {
    return new Object[][] {
      {"scpi-sweep-ascii", text(levels(POINTS - 1, "-80")), "1000 of 1001 points"},
      {"scpi-sweep-ascii", text(levels(POINTS + 1, "-80")), "1002 of 1001 points"},
      {"scpi-sweep-ascii", text(levels(POINTS, "loud")), "point 1001 is no number"},
      {"scpi-sweep-ascii", text(levels(POINTS, "NaN")), "point 1001 is "},
      {"scpi-sweep-ascii", text(levels(POINTS, "9.9E99")), "point 1001 is "},
      {"scpi-sweep-ascii", text("#14abcd"), "1 of 1001 points"},
      {"scpi-sweep", block(4 * POINTS - 4, 4 * POINTS - 4), "4000 bytes where 4004"},
      {"scpi-sweep", text(levels(POINTS, "-80")), "a data block was expected"},
      {"scpi-sweep", block(4 * POINTS, 4 * POINTS + 4), "not followed by an end of line"},
    };
  }

  private static SweepSetup setup(SweptAnalyzer analyzer) {
    return SweepSetup.of(
        new SpectrumSettings(1e9, 1e6, 10e3, Window.HANN, Detector.RMS, 1, 0, 1e5),
        analyzer.capabilities());
  }

  private static SweptAnalyzer connect(Answers peer, String dialect) {
    return (SweptAnalyzer)
        Drivers.connect(
            "127.0.0.1",
            peer.listener.getLocalPort(),
            InstrumentKind.SWEPT_ANALYZER,
            new DialectLibrary(Path.of("none")).find(dialect),
            SHORT);
  }

  private static Map<String, byte[]> sane() {
    Map<String, byte[]> replies = new HashMap<>();
    replies.put("SENS:BAND?", text("1.0E4"));
    replies.put("SENS:SWE:TIME?", text("0.001"));
    replies.put("INIT:IMM;*OPC?", text("1"));
    return replies;
  }

  @Test(dataProvider = "traces", timeOut = 10_000)
  public void aTraceThatMakesNoSenseIsNamed(String dialect, byte[] trace, String part)
      throws IOException {
    Map<String, byte[]> replies = sane();
    replies.put("TRAC:DATA?", trace);
    try (Answers peer = new Answers(replies);
        SweptAnalyzer analyzer = connect(peer, dialect)) {
      analyzer.configure(setup(analyzer));
      InstrumentFault fault = expectThrows(InstrumentFault.class, analyzer::sweep);
      assertEquals(fault.kind(), Kind.BAD_REPLY, fault.getMessage());
      assertTrue(fault.getMessage().contains(part), fault.getMessage());
    }
  }

  /** A sweep that never ends is given up in time. */
  @Test(timeOut = 10_000)
  public void aSweepThatNeverEndsIsATimeout() throws IOException {
    Map<String, byte[]> replies = sane();
    replies.put("INIT:IMM;*OPC?", new byte[0]);
    try (Answers peer = new Answers(replies);
        SweptAnalyzer analyzer = connect(peer, "scpi-sweep")) {
      analyzer.configure(setup(analyzer));
      long began = System.nanoTime();
      InstrumentFault fault = expectThrows(InstrumentFault.class, analyzer::sweep);
      assertEquals(fault.kind(), Kind.TIMEOUT);
      assertTrue(System.nanoTime() - began < 5_000_000_000L);
    }
  }

  /** A setting that is refused leaves the setup unknown, so that it is sent anew. */
  @Test(timeOut = 10_000)
  public void aRefusedSettingIsReportedInTheInstrumentsWords() throws IOException {
    Map<String, byte[]> replies = sane();
    replies.put("SENS:BAND?", text("wide"));
    try (Answers peer = new Answers(replies);
        SweptAnalyzer analyzer = connect(peer, "scpi-sweep")) {
      InstrumentFault fault =
          expectThrows(InstrumentFault.class, () -> analyzer.configure(setup(analyzer)));
      assertEquals(fault.kind(), Kind.BAD_REPLY);
      expectThrows(IllegalStateException.class, analyzer::sweep);
    }
  }

  /** A whole trace is taken as it is, whichever way it comes. */
  @Test(timeOut = 10_000)
  public void aSaneTraceIsTaken() throws IOException {
    Map<String, byte[]> replies = sane();
    replies.put("TRAC:DATA?", text(levels(POINTS, "-33.5")));
    try (Answers peer = new Answers(replies);
        SweptAnalyzer analyzer = connect(peer, "scpi-sweep-ascii")) {
      analyzer.configure(setup(analyzer));
      float[] level = analyzer.sweep().levelDbm();
      assertEquals(level.length, POINTS);
      assertEquals(level[0], -80f);
      assertEquals(level[POINTS - 1], -33.5f);
    }
  }
}
