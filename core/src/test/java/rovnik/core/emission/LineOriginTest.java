package rovnik.core.emission;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Map;
import org.testng.annotations.Test;
import rovnik.core.emission.LineOrigin.Line;
import rovnik.core.emission.LineOrigin.Looks;
import rovnik.core.emission.LineOrigin.Maker;
import rovnik.core.spectrum.Peak;
import rovnik.core.spectrum.Trace;

public class LineOriginTest {
  private static final double TUNED = 1000e3;

  /** A floor of -110 dBm with lines by frequency in kHz. */
  private static Trace look(double floor, Map<Integer, Double> lines) {
    return Made.trace(
        0,
        1e3,
        2001,
        hz -> lines.getOrDefault((int) Math.round(hz / 1e3), floor + 0.5 * Math.sin(hz)));
  }

  private static Line of(List<Line> lines, int kilohertz) {
    return lines.stream()
        .filter(l -> Math.round(l.frequencyHz() / 1e3) == kilohertz)
        .findFirst()
        .orElseThrow();
  }

  private static final List<Peak> PEAKS =
      List.of(
          new Peak(1300e3, 0),
          new Peak(1500e3, -40),
          new Peak(700e3, -58), // image of 1300
          new Peak(1000e3, -70), // dc
          new Peak(1700e3, -50), // third-order product
          new Peak(200e3, -60), // room
          new Peak(400e3, -80), // the converter's own
          new Peak(600e3, -108)); // hardly above the floor

  private static Map<Integer, Double> asIs() {
    return Map.of(
        1300, 0.0, 1500, -40.0, 700, -58.0, 1000, -70.0, 1700, -50.0, 200, -60.0, 400, -80.0, 600,
        -105.0);
  }

  @Test
  public void everyLineIsLabelledByWhatItDid() {
    Trace off = look(-110, Map.of(1000, -70.0, 200, -60.2, 400, -80.0));
    Trace attenuated =
        look(
            -100,
            Map.of(
                1300, 0.1, 1500, -40.1, 700, -58.0, 1000, -60.0, 1700, -70.0, 200, -59.9, 400,
                -70.0));
    Trace retuned =
        look(
            -110,
            Map.of(
                1300, 0.0, 1500, -40.0, 750, -58.0, 1025, -70.0, 1700, -50.0, 200, -60.0, 400,
                -80.0));
    List<Line> lines =
        LineOrigin.label(new Looks(look(-110, asIs()), PEAKS, off, attenuated, 10, retuned, TUNED));
    assertEquals(of(lines, 1300).maker(), Maker.SOURCE);
    assertEquals(of(lines, 1500).maker(), Maker.SOURCE);
    assertTrue(of(lines, 1500).evidence().contains("with the source off"));
    assertEquals(of(lines, 700).kind(), "image");
    assertTrue(of(lines, 700).evidence().contains("1.3 MHz"), of(lines, 700).evidence());
    assertEquals(of(lines, 1000).kind(), "dc spike");
    assertEquals(of(lines, 1700).maker(), Maker.RECEIVER);
    assertEquals(of(lines, 1700).kind(), "intermodulation");
    assertTrue(of(lines, 1700).evidence().contains("order 3"), of(lines, 1700).evidence());
    assertEquals(of(lines, 200).maker(), Maker.ROOM);
    assertEquals(of(lines, 400).maker(), Maker.RECEIVER);
    assertEquals(of(lines, 400).kind(), "spur behind its attenuator");
  }

  /** Without a switched source a line is the receiver's or nobody can say. */
  @Test
  public void withoutASourceToSwitchTheRestIsUnsure() {
    Trace same = look(-110, asIs());
    List<Line> lines = LineOrigin.label(new Looks(same, PEAKS, null, same, 10, same, TUNED));
    assertEquals(of(lines, 1300).maker(), Maker.UNSURE);
    assertTrue(of(lines, 1300).evidence().contains("no source was switched"));
  }

  /** What sinks into the noise of the attenuated look is not called intermodulation. */
  @Test
  public void closeToTheNoiseIsUnsureOrByTheSource() {
    Trace attenuated = look(-100, asIs());
    List<Line> lines =
        LineOrigin.label(
            new Looks(
                look(-110, asIs()),
                List.of(new Peak(600e3, -105)),
                look(-110, Map.of()),
                attenuated,
                10,
                look(-110, asIs()),
                TUNED));
    assertTrue(
        lines.get(0).maker() == Maker.UNSURE || lines.get(0).maker() == Maker.SOURCE,
        lines.get(0).toString());
  }
}
