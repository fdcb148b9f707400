package rovnik.server.live;

import java.io.IOException;
import java.util.ArrayDeque;
import java.util.Deque;
import org.springframework.web.socket.BinaryMessage;
import org.springframework.web.socket.TextMessage;
import org.springframework.web.socket.WebSocketMessage;
import org.springframework.web.socket.WebSocketSession;

/**
 * One window that watches. It has a sender thread of its own, so that a window that stalls holds up
 * neither the instrument nor another window: it gets every state in order, and of the frames the
 * newest.
 */
final class Watcher implements AutoCloseable {
  private static final int MOST_STATES = 100;

  private final WebSocketSession socket;
  private final String clientId;
  private final Deque<TextMessage> states = new ArrayDeque<>();
  private byte[] frame;
  private boolean closed;

  Watcher(WebSocketSession socket, String clientId) {
    this.socket = socket;
    this.clientId = clientId;
    Thread sender = new Thread(this::run, "watcher " + clientId);
    sender.setDaemon(true);
    sender.start();
  }

  String clientId() {
    return clientId;
  }

  synchronized void state(TextMessage message) {
    if (states.size() == MOST_STATES) {
      states.pollFirst();
    }
    states.addLast(message);
    notifyAll();
  }

  synchronized void frame(byte[] newest) {
    frame = newest;
    notifyAll();
  }

  private synchronized WebSocketMessage<?> next() throws InterruptedException {
    while (!closed && states.isEmpty() && frame == null) {
      wait();
    }
    if (closed) {
      return null;
    }
    if (!states.isEmpty()) {
      return states.pollFirst();
    }
    BinaryMessage message = new BinaryMessage(frame);
    frame = null;
    return message;
  }

  private void run() {
    try {
      WebSocketMessage<?> message;
      while ((message = next()) != null) {
        socket.sendMessage(message);
      }
    } catch (IOException | IllegalStateException gone) {
      // The window closed: its socket's own close event removes this watcher.
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }

  @Override
  public synchronized void close() {
    closed = true;
    notifyAll();
  }
}
