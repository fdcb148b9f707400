package rovnik.core.emission;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.List;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.emission.EmissionMask.Result;
import rovnik.core.emission.EmissionMask.Segment;
import rovnik.core.spectrum.Trace;

public class EmissionMaskTest {
  private static final double NONE = Double.NaN;

  private static Segment relative(double from, double to, double a, double b) {
    return new Segment(from, to, 0, a, b, NONE, NONE);
  }

  /** A trace that runs exactly on the limit passes with margin 0; a hair above it fails. */
  @Test
  public void exactlyAtTheEdgeOfTheLimit() {
    EmissionMask mask = new EmissionMask(List.of(relative(10e3, 50e3, -40, -60)));
    double reference = 10;
    Trace on = Made.trace(-100e3, 1e3, 201, f -> reference - 40 - (Math.abs(f) - 10e3) / 40e3 * 20);
    for (Result r : mask.judge(on, 0, reference, List.of())) {
      assertEquals(r.margin(), 0, 1e-5);
    }
    Trace above = Made.trace(-100e3, 1e3, 201, f -> f == 30e3 ? -39.99 : -80);
    List<Result> r = mask.judge(above, 0, reference, List.of());
    assertEquals(r.get(1).offsetHz(), 30e3);
    assertEquals(r.get(1).margin(), -0.01, 1e-4);
    assertEquals(r.get(1).dbc(), -49.99, 1e-4);
    assertTrue(r.get(0).margin() > 9);
  }

  /** The segment ends at its last point: one step beyond it is another's business. */
  @Test
  public void pointsBeyondTheSegmentDoNotCount() {
    EmissionMask mask = new EmissionMask(List.of(relative(10e3, 50e3, -40, -40)));
    Trace t = Made.trace(-100e3, 1e3, 201, f -> Math.abs(f) == 51e3 || f == 9e3 ? 0 : -80);
    assertTrue(mask.judge(t, 0, 0, List.of()).stream().allMatch(r -> r.margin() > 39));
    Trace edge = Made.trace(-100e3, 1e3, 201, f -> f == -50e3 ? -30 : -80);
    assertEquals(mask.judge(edge, 0, 0, List.of()).get(0).margin(), -10, 1e-5);
  }

  /** The limit is strictest where a slope ends, between two points of the trace. */
  @Test
  public void anEndBetweenTwoPointsIsJudged() {
    EmissionMask mask = new EmissionMask(List.of(relative(10.5e3, 50.5e3, -20, -60)));
    Trace flat = Made.trace(-100e3, 1e3, 201, f -> -59.5);
    for (Result r : mask.judge(flat, 0, 0, List.of())) {
      assertEquals(Math.abs(r.offsetHz()), 50.5e3, 1e-6);
      assertEquals(r.margin(), -0.5, 1e-5);
    }
    // The filter of a segment's own bandwidth ends with it, too.
    Segment wide = new Segment(20.25e3, 80.25e3, 10e3, -20, -50, NONE, NONE);
    double level = -59.5 + 10 * Math.log10(10e3 / 1.5e3);
    for (Result r : new EmissionMask(List.of(wide)).judge(flat, 0, 0, List.of())) {
      assertEquals(Math.abs(r.offsetHz()), 75.25e3, 1e-6);
      assertEquals(r.margin(), -20 - 30 * 55 / 60.0 - level, 1e-4);
    }
  }

  /** In the segment's own 10 kHz a flat -100 dBm in 1.5 kHz is -91.76 dBm. */
  @Test
  public void levelsAreThoseOfTheSegmentsBandwidth() {
    Segment wide = new Segment(100e3, 200e3, 10e3, NONE, NONE, -90, -90);
    Trace t = Made.trace(-300e3, 1e3, 601, f -> -100);
    for (Result r : new EmissionMask(List.of(wide)).judge(t, 0, 0, List.of())) {
      assertEquals(r.level(), -100 + 10 * Math.log10(10e3 / 1.5e3), 1e-3);
      assertEquals(r.margin(), 1.7609, 1e-3);
    }
    // A lone line is as strong in 10 kHz as in 1 kHz, and the ENBW does not count for it twice.
    Trace line = Made.trace(-300e3, 1e3, 601, f -> f == 150e3 ? -80 : -160);
    Result r = new EmissionMask(List.of(wide)).judge(line, 0, 0, List.of()).get(1);
    assertEquals(r.level(), -80 - 10 * Math.log10(1.5), 1e-3); // one point holds 1/1.5 of it
    Segment narrow = new Segment(100e3, 200e3, 500, NONE, NONE, -90, -90);
    Refusal refused =
        expectThrows(
            Refusal.class, () -> new EmissionMask(List.of(narrow)).judge(t, 0, 0, List.of()));
    assertTrue(refused.getMessage().contains("500 Hz"), refused.getMessage());
  }

  /** Relative -60 dBc of +27 dBm is -33 dBm; absolute -36 dBm is lower, so -33 dBm holds. */
  @Test
  public void theHigherOfBothLimitsHolds() {
    Segment both = new Segment(0, 1e6, 0, -60, -60, -36, -36);
    assertEquals(both.limitAt(5e5, 27), -33, 1e-9);
    assertEquals(both.limitAt(5e5, 10), -36, 1e-9);
  }

  @Test
  public void whatLiesOutsideTheSpanIsLeftOut() {
    EmissionMask mask =
        new EmissionMask(List.of(relative(0, 10e3, 0, 0), relative(500e3, 600e3, -60, -60)));
    List<Result> r = mask.judge(Made.trace(-100e3, 1e3, 201, f -> -80), 0, 0, List.of());
    assertEquals(r.size(), 2);
    assertEquals(mask.reachHz(), 600e3);
  }

  @Test
  public void nonsenseIsRefused() {
    assertThrows(Refusal.class, () -> relative(10, 10, -1, -1));
    assertThrows(Refusal.class, () -> relative(-1, 10, -1, -1));
    assertThrows(Refusal.class, () -> relative(0, 10, -1, NONE));
    assertThrows(Refusal.class, () -> relative(0, 10, NONE, NONE));
    assertThrows(Refusal.class, () -> new Segment(0, 1, -5, -1, -1, NONE, NONE));
    assertThrows(Refusal.class, () -> new EmissionMask(List.of()));
  }
}
