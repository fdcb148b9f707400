package rovnik.instruments;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;

/** An instrument that answers each query with what the test says, sense or not. */
final class ScriptedPeer implements AutoCloseable {
  /** An answer that never comes. */
  static final byte[] SILENCE = {};

  private final ServerSocket listener;
  private final Map<String, byte[]> answers = new ConcurrentHashMap<>();

  ScriptedPeer() {
    try {
      listener = new ServerSocket(0, 5, InetAddress.getByName("127.0.0.1"));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    answer("SYST:ERR?", "0,\"No error\"");
    answer("*IDN?", "Maker,Model,1,1");
    Thread thread = new Thread(this::serve, "scripted peer");
    thread.setDaemon(true);
    thread.start();
  }

  int port() {
    return listener.getLocalPort();
  }

  ScriptedPeer answer(String query, String line) {
    return answer(query, (line + "\n").getBytes(StandardCharsets.ISO_8859_1));
  }

  ScriptedPeer answer(String query, byte[] bytes) {
    answers.put(query, bytes);
    return this;
  }

  private void serve() {
    while (!listener.isClosed()) {
      try (Socket socket = listener.accept()) {
        BufferedReader in =
            new BufferedReader(
                new InputStreamReader(socket.getInputStream(), StandardCharsets.ISO_8859_1));
        OutputStream out = socket.getOutputStream();
        String line;
        while ((line = in.readLine()) != null) {
          byte[] answer = answers.get(line);
          if (answer != null) {
            out.write(answer);
            out.flush();
          }
        }
      } catch (IOException e) {
        // the driver left, or the test is over
      }
    }
  }

  @Override
  public void close() {
    try {
      listener.close();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}
