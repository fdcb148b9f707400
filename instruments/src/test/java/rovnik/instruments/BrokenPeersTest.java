package rovnik.instruments;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.io.IOException;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.instruments.InstrumentFault.Kind;
import rovnik.instruments.scpi.ScpiConnection;
import rovnik.instruments.scpi.Timeouts;

/** Peers that misbehave on a socket: each gives a named fault within the time limit. */
public class BrokenPeersTest {
  private static final Timeouts SHORT =
      new Timeouts(Duration.ofMillis(500), Duration.ofMillis(300), Duration.ofMillis(900));

  /** What the peer does once it has read the first line. */
  private interface Behaviour {
    void act(OutputStream out, Socket socket) throws IOException, InterruptedException;
  }

  private static void text(OutputStream out, String s) throws IOException {
    out.write(s.getBytes(StandardCharsets.ISO_8859_1));
    out.flush();
  }

  private static final Behaviour SILENT = (out, socket) -> Thread.sleep(5000);
  private static final Behaviour HALF_BLOCK =
      (out, socket) -> {
        text(out, "#216abcd");
        Thread.sleep(5000);
      };
  private static final Behaviour CUT_IN_BLOCK =
      (out, socket) -> {
        text(out, "#216abcd");
        socket.close();
      };
  private static final Behaviour WRONG_LENGTH = (out, socket) -> text(out, "#14abcd\n");
  private static final Behaviour GARBAGE = (out, socket) -> text(out, "\u0007\u00ff?!x\n");
  private static final Behaviour NO_LENGTH = (out, socket) -> text(out, "#0abc\n");
  private static final Behaviour BAD_LENGTH = (out, socket) -> text(out, "#2x6abc\n");
  private static final Behaviour NO_END = (out, socket) -> text(out, "#2160123456789abcdefX");
  private static final Behaviour ENDLESS =
      (out, socket) -> {
        byte[] x = "x".repeat(4096).getBytes(StandardCharsets.ISO_8859_1);
        while (true) {
          out.write(x);
        }
      };
  private static final Behaviour DRIBBLE =
      (out, socket) -> {
        while (true) {
          text(out, "x");
          Thread.sleep(100);
        }
      };

  @DataProvider
  public Object[][] peers() {
    return new Object[][] {
      {"silence", SILENT, true, Kind.TIMEOUT},
      {"half a block", HALF_BLOCK, true, Kind.TIMEOUT},
      {"cut in a block", CUT_IN_BLOCK, true, Kind.DISCONNECTED},
      {"wrong length", WRONG_LENGTH, true, Kind.BAD_REPLY},
      {"garbage", GARBAGE, true, Kind.BAD_REPLY},
      {"no length", NO_LENGTH, true, Kind.BAD_REPLY},
      {"bad length", BAD_LENGTH, true, Kind.BAD_REPLY},
      {"no end", NO_END, true, Kind.BAD_REPLY},
      {"endless line", ENDLESS, false, Kind.BAD_REPLY},
      {"dribbling line", DRIBBLE, false, Kind.TIMEOUT},
      {"silent line", SILENT, false, Kind.TIMEOUT},
      {"closed", (Behaviour) (out, socket) -> socket.close(), false, Kind.DISCONNECTED},
    };
  }

  @Test(dataProvider = "peers", timeOut = 8000)
  public void everyFaultIsNamedInTime(String name, Behaviour behaviour, boolean block, Kind kind)
      throws IOException {
    try (ServerSocket listener = new ServerSocket(0, 1, InetAddress.getByName("127.0.0.1"))) {
      Thread peer =
          new Thread(
              () -> {
                try (Socket socket = listener.accept()) {
                  while (socket.getInputStream().read() != '\n') {
                    // the question
                  }
                  behaviour.act(socket.getOutputStream(), socket);
                  Thread.sleep(3000);
                } catch (IOException | InterruptedException done) {
                  // the client left
                }
              });
      peer.setDaemon(true);
      peer.start();
      try (ScpiConnection c = ScpiConnection.open("127.0.0.1", listener.getLocalPort(), SHORT)) {
        InstrumentFault fault =
            expectThrows(
                InstrumentFault.class,
                () -> {
                  if (block) {
                    c.askBlock("READ?", 16, new byte[16], Duration.ZERO);
                  } else {
                    c.ask("*IDN?");
                  }
                });
        assertEquals(fault.kind(), kind, fault.getMessage());
        assertTrue(fault.connectionLost());
      }
      peer.interrupt();
    }
  }

  @Test
  public void nobodyThere() throws IOException {
    int port;
    try (ServerSocket s = new ServerSocket(0)) {
      port = s.getLocalPort();
    }
    InstrumentFault fault =
        expectThrows(InstrumentFault.class, () -> ScpiConnection.open("127.0.0.1", port, SHORT));
    assertEquals(fault.kind(), Kind.UNREACHABLE);
    assertEquals(
        expectThrows(InstrumentFault.class, () -> ScpiConnection.open("127.0.0.1", 700000, SHORT))
            .kind(),
        Kind.UNREACHABLE);
  }
}
