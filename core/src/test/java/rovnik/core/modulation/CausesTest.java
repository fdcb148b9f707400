package rovnik.core.modulation;

import static org.testng.Assert.assertEquals;

import java.util.List;
import org.testng.annotations.Test;
import rovnik.core.result.ResultTable;

/** Parts of an error vector and what is left without each. */
public class CausesTest {
  private static Causes.Cause cause(String id, double meanSquare) {
    return new Causes.Cause(id, id, meanSquare, "told by", "do");
  }

  @Test
  public void theLargestComesFirstAndSharesAddUp() {
    Causes c =
        new Causes(1e-4, List.of(cause("Small", 2e-5), cause("Large", 7e-5), cause("None", 1e-20)));
    assertEquals(c.words(), ", 70 % of its power from large");
    assertEquals(c.unexplained(), 1e-5, 1e-12);
    ResultTable t = c.table(100);
    assertEquals(t.rows().size(), 3, "what is not there is not listed");
    double shares = 0;
    for (ResultTable.Row r : t.rows()) {
      shares += r.cells().get(1).value();
    }
    assertEquals(shares, 100, 1e-9);
    ResultTable.Row large = t.rows().get(0);
    assertEquals(large.cells().get(0).text(), "Large");
    assertEquals(large.cells().get(2).value(), 100 * Math.sqrt(7e-5), 1e-9);
    assertEquals(large.cells().get(3).value(), 100 * Math.sqrt(3e-5), 1e-9);
  }

  @Test
  public void nothingIsSaidOfNothing() {
    assertEquals(new Causes(1, List.of()).words(), "");
  }
}
