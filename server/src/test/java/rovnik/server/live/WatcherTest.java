package rovnik.server.live;

import static org.testng.Assert.assertEquals;
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
  /** A window that stalls gets every state and the newest frame, and holds up nobody. */
  @Test(timeOut = 20_000)
  public void aStalledWindowLosesOldFramesOnly() throws InterruptedException {
    CountDownLatch stalled = new CountDownLatch(1);
    CountDownLatch all = new CountDownLatch(5);
    List<String> sent = new CopyOnWriteArrayList<>();
    WebSocketSession socket =
        (WebSocketSession)
            Proxy.newProxyInstance(
                getClass().getClassLoader(),
                new Class<?>[] {WebSocketSession.class},
                (proxy, method, args) -> {
                  if (method.getName().equals("sendMessage")) {
                    stalled.await();
                    sent.add(
                        args[0] instanceof TextMessage t
                            ? t.getPayload()
                            : "frame " + ((BinaryMessage) args[0]).getPayload().get(0));
                    all.countDown();
                  }
                  return null;
                });
    try (Watcher watcher = new Watcher(socket, "w")) {
      watcher.state(new TextMessage("first"));
      Thread.sleep(100);
      for (byte i = 1; i <= 100; i++) {
        watcher.frame(new byte[] {i}); // returns at once though the window stalls
      }
      watcher.state(new TextMessage("second"));
      watcher.state(new TextMessage("third"));
      stalled.countDown();
      Thread.sleep(200);
      watcher.frame(new byte[] {101});
      assertTrue(all.await(5, TimeUnit.SECONDS));
    }
    assertEquals(sent, List.of("first", "second", "third", "frame 100", "frame 101"));
  }
}
