package rovnik.server.live;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.lang.reflect.Proxy;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import org.springframework.web.socket.BinaryMessage;
import org.springframework.web.socket.TextMessage;
import org.springframework.web.socket.WebSocketSession;
import org.testng.annotations.Test;

public class WatcherTest {
  private final CountDownLatch began = new CountDownLatch(1);
  private final CountDownLatch stalled = new CountDownLatch(1);
  private final CountDownLatch closed = new CountDownLatch(1);

  /** A socket whose first message stalls until it is let go. */
  private WebSocketSession socket(List<String> sent, CountDownLatch all) {
    return (WebSocketSession)
        Proxy.newProxyInstance(
            getClass().getClassLoader(),
            new Class<?>[] {WebSocketSession.class},
            (proxy, method, args) -> {
              switch (method.getName()) {
                case "sendMessage":
                  began.countDown();
                  stalled.await();
                  sent.add(
                      args[0] instanceof TextMessage t
                          ? t.getPayload()
                          : "frame " + ((BinaryMessage) args[0]).getPayload().get(0));
                  all.countDown();
                  return null;
                case "close":
                  closed.countDown();
                  return null;
                case "isOpen":
                  return true;
                default:
                  return null;
              }
            });
  }

  /**
   * A window that stalls gets the newest state and frame, all of the ordered lane, and holds up
   * nobody.
   */
  @Test(timeOut = 20_000)
  public void aStalledWindowLosesOldStatesAndFramesOnly() throws InterruptedException {
    List<String> sent = new CopyOnWriteArrayList<>();
    CountDownLatch all = new CountDownLatch(5);
    try (Watcher watcher = new Watcher(socket(sent, all), "w")) {
      watcher.state(new TextMessage("first"));
      assertTrue(began.await(5, TimeUnit.SECONDS));
      for (byte i = 1; i <= 100; i++) {
        watcher.frame(new byte[] {i}); // returns at once though the window stalls
      }
      watcher.state(new TextMessage("second"));
      watcher.ordered(new TextMessage("burst 1"));
      watcher.ordered(new TextMessage("burst 2"));
      watcher.state(new TextMessage("third"));
      stalled.countDown();
      assertTrue(all.await(5, TimeUnit.SECONDS));
      assertFalse(watcher.stalled());
    }
    assertEquals(sent, List.of("first", "third", "burst 1", "burst 2", "frame 100"));
  }

  /** What it watched goes on until it has had the time to come back, and is held once then. */
  @Test
  public void aStalledWindowIsAwaited() {
    Absence absence = new Absence();
    long limit = Absence.COMES_BACK.toNanos();
    assertFalse(absence.isOver(5 * limit));
    absence.begins(5 * limit);
    assertFalse(absence.isOver(6 * limit));
    absence.begins(6 * limit);
    assertFalse(absence.isOver(7 * limit));
    assertTrue(absence.isOver(7 * limit + 1));
    assertFalse(absence.isOver(9 * limit));
  }

  /** What must not be dropped may not pile up without an end: such a window is closed. */
  @Test(timeOut = 20_000)
  public void aWindowThatFallsTooFarBehindIsClosed() throws InterruptedException {
    WatcherTest one = new WatcherTest();
    List<String> sent = new CopyOnWriteArrayList<>();
    try (Watcher watcher = new Watcher(one.socket(sent, new CountDownLatch(1)), "w")) {
      watcher.state(new TextMessage("first"));
      assertTrue(one.began.await(5, TimeUnit.SECONDS));
      byte[] sound = new byte[1 << 20];
      for (int i = 0; i <= Watcher.MOST_WAITING_BYTES / sound.length; i++) {
        watcher.ordered(new BinaryMessage(sound));
      }
      assertTrue(one.closed.await(5, TimeUnit.SECONDS));
      assertTrue(watcher.stalled());
      one.stalled.countDown();
    }
  }
}
