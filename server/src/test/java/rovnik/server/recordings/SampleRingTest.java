package rovnik.server.recordings;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertNotNull;
import static org.testng.Assert.assertNull;
import static org.testng.Assert.expectThrows;

import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/** A ring against a plain list of all that was appended; each sample is its own number. */
public class SampleRingTest {
  private static final int CAPACITY = 1000;
  private Path folder;
  private SampleRing ring;

  @BeforeMethod
  public void open() throws IOException {
    folder = Files.createTempDirectory("ring");
    ring = new SampleRing(folder.resolve("ring"), CAPACITY);
  }

  @AfterMethod(alwaysRun = true)
  public void close() throws IOException {
    ring.close();
    try (Stream<Path> left = Files.list(folder)) {
      assertEquals(left.count(), 0, "its file goes with it");
    }
    Files.delete(folder);
  }

  private void append(long number, int samples) throws IOException {
    float[] iq = new float[2 * samples];
    for (int i = 0; i < samples; i++) {
      iq[2 * i] = number + i;
      iq[2 * i + 1] = -(number + i);
    }
    ring.append(iq, number, number == 230);
  }

  private static long[] numbers(InputStream in) throws IOException {
    byte[] all = in.readAllBytes();
    ByteBuffer b = ByteBuffer.wrap(all).order(ByteOrder.LITTLE_ENDIAN);
    long[] out = new long[all.length / 8];
    for (int i = 0; i < out.length; i++) {
      out[i] = (long) b.getFloat();
      assertEquals((long) b.getFloat(), -out[i]);
    }
    return out;
  }

  @Test
  public void whatIsHeldIsFoundByItsNumber() throws IOException {
    Random random = new Random(4);
    List<Long> all = new ArrayList<>();
    long next = 17;
    for (int turn = 0; turn < 500; turn++) {
      if (random.nextInt(6) == 0) {
        next += 1 + random.nextInt(300); // lost
      }
      int samples = 1 + random.nextInt(150);
      append(next, samples);
      for (int i = 0; i < samples; i++) {
        all.add(next++);
      }
      List<Long> held = all.subList(Math.max(0, all.size() - CAPACITY), all.size());
      long wanted = held.get(random.nextInt(held.size()));
      long from = wanted - random.nextInt(400);
      long to = wanted + 1 + random.nextInt(400);
      long[] truth = held.stream().filter(n -> n >= from && n < to).mapToLong(n -> n).toArray();
      SampleRing.Stretch found = ring.around(wanted, from, to);
      assertNotNull(found);
      long[] got = numbers(ring.read(found));
      assertEquals(got.length, found.samples());
      // Of the true ones those that hang together with the one that was wanted.
      int low = Arrays.binarySearch(truth, wanted);
      int high = low;
      while (low > 0 && truth[low - 1] == truth[low] - 1) {
        low--;
      }
      while (high < truth.length - 1 && truth[high + 1] == truth[high] + 1) {
        high++;
      }
      assertEquals(got, Arrays.copyOfRange(truth, low, high + 1));
      if (all.size() > CAPACITY) {
        assertNull(ring.around(all.get(all.size() - CAPACITY - 1), 0, Long.MAX_VALUE));
      }
      assertNull(ring.around(next, 0, Long.MAX_VALUE), "not there yet");
    }
  }

  @Test
  public void theNewestEndAtAGap() throws IOException {
    assertNull(ring.newest(10));
    append(0, 100);
    append(200, 30);
    append(230, 20);
    assertEquals(ring.newest(20), new SampleRing.Stretch(230, 20, 130, true));
    assertEquals(ring.newest(500), new SampleRing.Stretch(200, 50, 100, true));
    assertEquals(ring.around(210, 200, 230), new SampleRing.Stretch(200, 30, 100, false));
    append(5, 10); // the receiver began anew
    assertEquals(ring.newest(500), new SampleRing.Stretch(5, 10, 150, false));
    assertNull(ring.around(220, 0, 1000));
  }

  @Test
  public void whatIsOverwrittenMeanwhileIsSaid() throws IOException {
    append(0, 900);
    SampleRing.Stretch s = ring.newest(900);
    append(900, 200);
    IOException e = expectThrows(IOException.class, () -> ring.read(s).readAllBytes());
    assertEquals(e.getMessage(), "newer samples took their place; make the ring longer");
  }
}
