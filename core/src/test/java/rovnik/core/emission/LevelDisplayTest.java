package rovnik.core.emission;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertSame;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.limits.Limit;
import rovnik.core.limits.Verdict;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;
import rovnik.core.result.Series;
import rovnik.core.signal.Window;
import rovnik.core.spectrum.Peak;
import rovnik.core.spectrum.SpectrumResult;
import rovnik.core.spectrum.Trace;
import rovnik.core.uncertainty.UncertaintyBudget.Contribution;
import rovnik.core.units.LevelUnit;

/** Levels in other units, and the second input's probe. */
public class LevelDisplayTest {
  /** Common practice: 107 dB between dBm and dBuV in 50 ohm, 108.75 in 75 ohm, 0.7746 V in 600. */
  @DataProvider
  public Object[][] handbook() {
    return new Object[][] {
      {LevelUnit.DBM, 50, LevelUnit.DBUV, 106.99},
      {LevelUnit.DBM, 75, LevelUnit.DBUV, 108.75},
      {LevelUnit.DBM, 600, LevelUnit.VOLT, 0.7746},
      {LevelUnit.DBM, 600, LevelUnit.DBV, -2.2185},
      {LevelUnit.DBM, 50, LevelUnit.VOLT, 0.22361},
      {LevelUnit.DBM, 50, LevelUnit.WATT, 1e-3},
      {LevelUnit.DBM, 75, LevelUnit.WATT, 1e-3},
    };
  }

  /** 0 in one unit and impedance is so much in the other. */
  @Test(dataProvider = "handbook")
  public void zeroDbmIsWhatTheHandbookSays(LevelUnit from, double ohm, LevelUnit to, double value) {
    double inside = from.toDbm(0, ohm);
    assertEquals(to.fromDbm(inside, ohm), value, Math.abs(value) * 1e-4 + 1e-9);
  }

  @Test
  public void everyUnitTurnsBack() {
    for (LevelUnit u : LevelUnit.values()) {
      for (double ohm : new double[] {50, 75, 600, 1e6}) {
        assertEquals(u.toDbm(u.fromDbm(-36.4, ohm), ohm), -36.4, 1e-9, u + " " + ohm);
      }
    }
  }

  /** Half a dB of a voltage is 5.93 % of it, of a power 12.2 %. */
  @Test
  public void uncertaintiesFollowTheUnit() {
    assertEquals(LevelUnit.VOLT.stepOf(2, 0.5), 2 * 0.059254, 1e-5);
    assertEquals(LevelUnit.WATT.stepOf(2, 0.5), 2 * 0.122018, 1e-5);
    assertEquals(LevelUnit.DBUV.stepOf(90, 0.5), 0.5, 0);
  }

  @Test
  public void aReadingKeepsItsVerdictAndItsMargin() {
    Reading dbm =
        new Reading(
            "carrierPower",
            "Carrier power",
            27,
            "dBm",
            "TX",
            0.6,
            List.of(),
            new Limit(24, 27.5),
            Verdict.PASS_UNSURE,
            List.of());
    Reading dbuv = new LevelDisplay(LevelUnit.DBUV, 50).of(dbm);
    assertEquals(dbuv.value(), 133.99, 0.01);
    assertEquals(dbuv.unit(), "dB\u00B5V");
    assertEquals(dbuv.margin(), 0.5, 1e-9);
    assertEquals(dbuv.verdict(), Verdict.PASS_UNSURE);
    Reading watts = new LevelDisplay(LevelUnit.WATT, 50).of(dbm);
    assertEquals(watts.value(), 0.5012, 1e-4);
    assertEquals(watts.limit().upper(), 0.5623, 1e-4);
  }

  /** What could not be read has no uncertainty either, in any unit. */
  @Test
  public void anUnreadLevelStaysUnread() {
    Reading none =
        new Reading(
            "carrierPower",
            "Carrier power",
            Double.NaN,
            "dBm",
            "TX",
            0.6,
            List.of(new Contribution("average", 0.3)),
            Limit.NONE,
            Verdict.NONE,
            List.of());
    Reading volts = new LevelDisplay(LevelUnit.VOLT, 50).of(none);
    assertTrue(Double.isNaN(volts.value()));
    assertEquals(volts.contributions(), List.of());
  }

  @Test
  public void whatIsNotInDbmStaysAsItIs() {
    Trace bare = new Trace(0, 1, new float[] {-3}, "dBFS", "record", 1, 1, 1, "Hann", "RMS");
    assertSame(new LevelDisplay(LevelUnit.VOLT, 50).of(bare), bare);
    Trace dbm = new Trace(0, 1, new float[] {0}, "dBm", "TX", 1, 1, 1, "Hann", "RMS");
    Trace volts = new LevelDisplay(LevelUnit.VOLT, 50).of(dbm);
    assertEquals(volts.unit(), "V");
    assertEquals(volts.level()[0], 0.22361f, 1e-5f);
    assertSame(LevelDisplay.PLAIN.of(dbm), dbm);
  }

  @Test
  public void anImpossibleImpedanceIsRefused() {
    Refusal r = expectThrows(Refusal.class, () -> new LevelDisplay(LevelUnit.VOLT, 0));
    assertEquals(r.field(), "impedanceOhm");
  }

  /** Common practice: a 10:1 probe takes 20 dB. */
  @Test
  public void aTenToOneProbeTakesTwentyDecibels() {
    assertEquals(new SecondInput(Window.HANN, 10, 10).probeGainDb(), -20, 1e-9);
    assertEquals(new SecondInput(Window.HANN, 10, 1).probeGainDb(), 0, 1e-9);
    assertEquals(new SecondInput(Window.HANN, 10, 10).plane(), "tip of probe 2, 10:1");
    Refusal r = expectThrows(Refusal.class, () -> new SecondInput(Window.HANN, 10, 0.5));
    assertEquals(r.field(), "second.probeRatio");
  }

  /**
   * All of a result goes into the unit: trace, lines, readings, tables, limit lines; ratios do not.
   */
  @Test
  public void aWholeResultIsInOneUnit() {
    Trace trace = new Trace(0, 1, new float[] {0, -20}, "dBm", "TX", 1, 1, 1, "Hann", "RMS");
    Reading density =
        new Reading(
            "noiseDensity",
            "Noise",
            -150,
            "dBm/Hz",
            "TX",
            0.5,
            List.of(),
            Limit.NONE,
            Verdict.NONE,
            List.of());
    Reading ratio =
        new Reading(
            "ratio",
            "Ratio",
            -40,
            "dBc",
            "TX",
            0.5,
            List.of(),
            Limit.NONE,
            Verdict.NONE,
            List.of());
    ResultTable table =
        new ResultTable(
            "t",
            "Lines",
            List.of(
                new ResultTable.Column("Line", "Hz"),
                new ResultTable.Column("Level", "dBm"),
                new ResultTable.Column("Level", "dBm")),
            List.of(
                new ResultTable.Row(
                    List.of(
                        ResultTable.Cell.of(10), ResultTable.Cell.of(0), ResultTable.Cell.of("-")),
                    Verdict.PASS)));
    Series limit = Series.limit("mask", "mask", new double[] {0, 1}, new double[] {0, 20}, "dBm");
    Series other = Series.curve("pn", "L", new double[] {0, 1}, new double[] {-80, -90}, "dBc/Hz");
    EmissionResult in =
        new EmissionResult(
            new SpectrumResult(trace, List.of(new Peak(0, 0)), List.of(density, ratio)),
            List.of(table),
            List.of(limit, other));
    EmissionResult out = new LevelDisplay(LevelUnit.DBUV, 75).of(in);
    assertEquals(out.base().trace().level()[1], 86.99f, 0.01f);
    assertEquals(out.base().peaks().get(0).level(), 106.99, 0.01);
    // Densities stay powers, in the impedance: 75 ohm take 1.76 dB less than 50 do.
    assertEquals(out.readings().get(0).unit(), "dBm/Hz");
    assertEquals(out.readings().get(0).value(), -151.76, 0.01);
    assertSame(out.readings().get(1), ratio);
    assertEquals(out.tables().get(0).columns().get(1).unit(), "dB\u00B5V");
    assertEquals(out.tables().get(0).rows().get(0).cells().get(0).value(), 10, 0);
    assertEquals(out.tables().get(0).rows().get(0).cells().get(1).value(), 106.99, 0.01);
    assertEquals(out.tables().get(0).rows().get(0).cells().get(2).text(), "-");
    assertEquals(out.tables().get(0).rows().get(0).verdict(), Verdict.PASS);
    assertEquals(out.limitLines().get(0).y()[1], 126.99, 0.01);
    assertSame(out.limitLines().get(1), other);
    assertSame(LevelDisplay.PLAIN.of(in), in);
  }
}
