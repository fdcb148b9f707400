package rovnik.server;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Random;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Instruments that answer with anything at all: the others go on, and these can be let go. */
public class HostileInstrumentTest {
  private static final int SHORT_ROUNDS = 1;
  private static final List<String> ANSWERS =
      List.of(
          "0",
          "1",
          "0,\"No error\"",
          "0,\"No error\"",
          "0,\"No error\"",
          "9.91E37",
          "NaN",
          "-1E300",
          "",
          "#216abcd",
          "#0",
          "#9999999999",
          "Receiver",
          "x".repeat(5000),
          "1\n2\n3",
          "\u0000\u0007");

  /** Answers each line with something; sometimes late, sometimes not at all. */
  private static final class Hostile implements AutoCloseable {
    private final ServerSocket listener;

    Hostile(long seed) throws IOException {
      listener = new ServerSocket(0, 50, InetAddress.getByName("127.0.0.1"));
      Random random = new Random(seed);
      Thread thread =
          new Thread(
              () -> {
                while (!listener.isClosed()) {
                  try (Socket socket = listener.accept()) {
                    answer(socket, random);
                  } catch (IOException e) {
                    // it hangs up now and then, and so does the server
                  }
                }
              });
      thread.setDaemon(true);
      thread.start();
    }

    private static void answer(Socket socket, Random random) throws IOException {
      BufferedReader in =
          new BufferedReader(
              new InputStreamReader(socket.getInputStream(), StandardCharsets.ISO_8859_1));
      OutputStream out = socket.getOutputStream();
      String line;
      while ((line = in.readLine()) != null && random.nextInt(60) > 0) {
        if (line.contains("?") && random.nextInt(40) > 0) {
          // Mostly no error, so that it comes further than to the first command.
          String answer =
              line.startsWith("SYST:ERR") && random.nextInt(12) > 0
                  ? "0,\"No error\""
                  : ANSWERS.get(random.nextInt(ANSWERS.size()));
          out.write((answer + "\n").getBytes(StandardCharsets.ISO_8859_1));
          out.flush();
        }
      }
    }

    @Override
    public void close() throws IOException {
      listener.close();
    }
  }

  @Test
  public void theOthersGoOn() throws IOException {
    int minutes = Integer.getInteger("rovnik.torture.minutes", 0);
    long end = System.nanoTime() + minutes * 60_000_000_000L;
    try (RunningServer server = RunningServer.start()) {
      server.bench().world().setTransmitting(false);
      int round = 0;
      while (minutes == 0 ? round < SHORT_ROUNDS : System.nanoTime() < end) {
        round(server, minutes == 0 ? round : System.nanoTime());
        round++;
      }
      System.out.println(round + " rounds");
    }
  }

  private static long add(RunningServer server, String kind, int port, String dialect) {
    return server
        .json(
            server.send(
                "POST",
                "/api/instruments",
                ("{\"name\":\"x\",\"kind\":\"%s\",\"host\":\"127.0.0.1\",\"port\":%d,\"dialect\":"
                        + "\"%s\",\"connect\":true}")
                    .formatted(kind, port, dialect)),
            201)
        .get("id")
        .asLong();
  }

  private static void round(RunningServer server, long seed) throws IOException {
    try (Hostile hostile = new Hostile(seed)) {
      int port = hostile.listener.getLocalPort();
      long good = add(server, "IQ_RECEIVER", server.bench().receiverPort(), "scpi-iq");
      List<Long> bad =
          List.of(
              add(server, "IQ_RECEIVER", port, "scpi-iq"),
              add(server, "SWEPT_ANALYZER", port, "scpi-sweep"),
              add(server, "STEP_ATTENUATOR", port, "scpi-pad"),
              add(server, "SIGNAL_SOURCE", port, "scpi-source"),
              add(server, "NETWORK_ANALYZER", port, "scpi-network"));
      for (int i = 0; i < 4; i++) {
        for (long id : bad) {
          for (String what : List.of("/spectrum/start", "/network/start")) {
            status(server.send("POST", "/api/live/i" + id + what, "{}").statusCode());
          }
        }
        JsonNode outcome = goodOutcome(server, good);
        assertTrue(outcome.get("outcome").get("readings").size() > 0, outcome.toString());
      }
      for (JsonNode i : server.json(server.get("/api/instruments"), 200)) {
        assertTrue(i.get("message").asString().length() < 700, i.toString());
      }
      for (long id : bad) {
        long began = System.nanoTime();
        assertEquals(server.send("DELETE", "/api/instruments/" + id, "").statusCode(), 204);
        assertTrue(System.nanoTime() - began < 10_000_000_000L, "it could not be let go");
      }
      server.json(server.send("DELETE", "/api/instruments/" + good, ""), 204);
    }
  }

  private static void status(int code) {
    assertTrue(code < 500 || code == 502, "" + code);
  }

  /** The other instrument measures, however busy the hostile ones keep the server. */
  private static JsonNode goodOutcome(RunningServer server, long id) {
    String look = "/api/live/i" + id + "/spectrum";
    server.json(server.send("PATCH", look + "/settings", "{\"referenceLevelDbm\":0}"), 200);
    server.json(server.send("POST", look + "/start", "{}"), 200);
    return server.json(server.get(look + "/outcome?settled=true&seconds=20"), 200);
  }
}
