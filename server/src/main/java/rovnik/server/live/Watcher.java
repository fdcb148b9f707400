package rovnik.server.live;

import java.io.IOException;
import java.util.ArrayDeque;
import java.util.Deque;
import org.springframework.web.socket.BinaryMessage;
import org.springframework.web.socket.CloseStatus;
import org.springframework.web.socket.TextMessage;
import org.springframework.web.socket.WebSocketMessage;
import org.springframework.web.socket.WebSocketSession;
import org.springframework.web.socket.handler.ConcurrentWebSocketSessionDecorator;

/**
 * One window that watches. It has a sender thread of its own, so that a window that stalls holds up
 * neither the instrument nor another window. Of states and of frames it gets the newest; what must
 * not be dropped (sound, events) goes through the ordered lane, all of it and in its order. A
 * window that takes too long for one message, or for which too much waits, is closed; it comes back
 * by itself.
 */
final class Watcher implements AutoCloseable {
  static final int LONGEST_SEND_MILLIS = 10_000;
  static final int MOST_WAITING_BYTES = 8 << 20;

  private final ConcurrentWebSocketSessionDecorator socket;
  private final String clientId;
  private final Deque<WebSocketMessage<?>> ordered = new ArrayDeque<>();
  private int waitingBytes;
  private TextMessage state;
  private byte[] frame;
  private boolean framed;
  private boolean closed;
  private volatile boolean listens;
  private volatile boolean stalled;

  Watcher(WebSocketSession socket, String clientId) {
    this.socket =
        new ConcurrentWebSocketSessionDecorator(socket, LONGEST_SEND_MILLIS, MOST_WAITING_BYTES);
    this.clientId = clientId;
    Thread sender = new Thread(this::run, "watcher " + clientId);
    sender.setDaemon(true);
    sender.start();
  }

  String clientId() {
    return clientId;
  }

  /** True if it was closed because it took too long, or too much waited for it. */
  boolean stalled() {
    return stalled;
  }

  synchronized void state(TextMessage newest) {
    state = newest;
    wake();
  }

  synchronized void frame(byte[] newest) {
    frame = newest;
    framed = true;
    wake();
  }

  /** What there was when it came; nothing happens if something newer was faster. */
  synchronized void firstFrame(byte[] there) {
    if (!framed) {
      frame(there);
    }
  }

  /** Whether it wants to hear what is heard. */
  void listens(boolean wanted) {
    listens = wanted;
  }

  boolean listens() {
    return listens;
  }

  /** Sends a message that must arrive, behind those before it. */
  synchronized void ordered(WebSocketMessage<?> message) {
    ordered.addLast(message);
    waitingBytes += message.getPayloadLength();
    wake();
  }

  private void wake() {
    boolean tooLong = socket.getTimeSinceSendStarted() > LONGEST_SEND_MILLIS;
    if (!closed && (tooLong || waitingBytes > MOST_WAITING_BYTES)) {
      stalled = true;
      closed = true;
      try {
        socket.close(CloseStatus.SESSION_NOT_RELIABLE);
      } catch (IOException | IllegalStateException gone) {
        // It is gone already.
      }
    }
    notifyAll();
  }

  private synchronized WebSocketMessage<?> next() throws InterruptedException {
    while (!closed && state == null && ordered.isEmpty() && frame == null) {
      wait();
    }
    if (closed) {
      return null;
    }
    if (state != null) {
      TextMessage message = state;
      state = null;
      return message;
    }
    if (!ordered.isEmpty()) {
      WebSocketMessage<?> message = ordered.pollFirst();
      waitingBytes -= message.getPayloadLength();
      return message;
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
    } catch (IOException | RuntimeException gone) {
      // The window closed or was closed: its socket's own close event removes this watcher.
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
