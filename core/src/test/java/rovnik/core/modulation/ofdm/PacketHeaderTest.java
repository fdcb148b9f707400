package rovnik.core.modulation.ofdm;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.ArrayList;
import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** What packets say of themselves: every bit once, and what of it cannot be read. */
public class PacketHeaderTest {
  /** Bits that are 0 but for some. */
  private static byte[] bits(int count, int... ones) {
    byte[] out = new byte[count];
    for (int i : ones) {
      out[i] = 1;
    }
    return out;
  }

  private static HeSignal he(int... ones) {
    return new HeSignal(HeSignal.Kind.ONE, bits(52, ones));
  }

  /** U-SIG of one user, EHT-SIG behind it with these ones. */
  private static UniversalSignal eht(int... ones) {
    return UniversalSignal.of(bits(52, 26)).with(bits(52, ones));
  }

  @DataProvider
  public Object[][] headers() {
    return new Object[][] {
      {new HtSignal(bits(48)), 48},
      {new HtSignal(bits(48, 6, 7)), 48},
      {VhtSignal.ofA(bits(48)), 48},
      {VhtSignal.ofA(bits(48, 5, 31)), 48},
      {VhtSignal.of(1, 3, 40, true, false), 48 + 26},
      {he(0), 52},
      {he(), 52},
      {he(0, 3, 4, 5, 6), 52},
      {HeSharedSignal.of(bits(52)), 52},
      {UniversalSignal.of(bits(52)), 52},
      {UniversalSignal.of(bits(52, 6)), 52},
      {UniversalSignal.of(bits(52, 0, 3, 4, 5)), 52},
      {eht(), 104},
      {eht(31, 32, 33, 34), 104}
    };
  }

  /** Each bit of each field is told once, in the order in which it is sent. */
  @Test(dataProvider = "headers")
  public void everyBitIsToldOnce(PacketHeader header, int count) {
    int bits = 0;
    int next = 0;
    String of = "";
    for (HeaderBits.Part part : header.parts()) {
      next = part.of().equals(of) ? next : 0;
      of = part.of();
      String[] places = part.places().split("\u2013");
      assertEquals(Integer.parseInt(places[0]), next, of + ": " + part.field());
      assertEquals(
          Integer.parseInt(places[places.length - 1]), next + part.sent().length() - 1, of);
      next += part.sent().length();
      bits += part.sent().length();
      assertTrue(!part.field().isEmpty());
    }
    assertEquals(bits, count);
  }

  @DataProvider
  public Object[][] unread() {
    List<Object[]> out = new ArrayList<>();
    out.add(new Object[] {he(), "answer a trigger"});
    out.add(new Object[] {HeSharedSignal.of(bits(52, 0)), "cut off in HE-SIG-B"});
    out.add(new Object[] {new HeSignal(HeSignal.Kind.FAR, bits(52, 0, 19)), "106 tones"});
    out.add(new Object[] {he(0, 41), "comes again between"});
    out.add(new Object[] {he(0, 23), "2 streams"});
    out.add(new Object[] {he(0, 7), "sent twice"});
    out.add(new Object[] {he(0, 35), "sent twice"});
    out.add(new Object[] {he(0, 5, 6), "there is no MCS 12"});
    out.add(new Object[] {UniversalSignal.of(bits(52, 0)), "newer than EHT"});
    out.add(new Object[] {UniversalSignal.of(bits(52, 6)), "answer a trigger"});
    out.add(new Object[] {UniversalSignal.of(bits(52)), "several users"});
    out.add(new Object[] {UniversalSignal.of(bits(52, 26, 29)), "left out"});
    out.add(new Object[] {UniversalSignal.of(bits(52, 26, 4, 5)), "not known"});
    out.add(new Object[] {UniversalSignal.of(bits(52, 26, 35, 36)), "16-QAM"});
    out.add(new Object[] {UniversalSignal.of(bits(52, 26)), "cut off in EHT-SIG"});
    out.add(new Object[] {eht(36), "2 streams"});
    out.add(new Object[] {eht(32, 33, 34), "MCS 14 sends all twice"});
    return out.toArray(new Object[0][]);
  }

  @Test(dataProvider = "unread")
  public void whatIsNotReadIsSaid(PacketHeader header, String why) {
    assertTrue(header.unread().contains(why), header.unread());
  }

  /** Tones of one user in 20 MHz: 242, 8 of them pilots (IEEE 802.11ax, table 27-15). */
  @Test
  public void tonesAreAsManyAsTheStandardHas() {
    assertEquals(ResourceUnit.whole(1).all().length, 242);
    assertEquals(ResourceUnit.whole(1).data().length, 234);
    int[][] counts = {{2, 484, 16}, {4, 996, 16}, {8, 1992, 32}, {16, 3984, 64}};
    for (int[] c : counts) {
      assertEquals(ResourceUnit.whole(c[0]).all().length, c[1]);
      assertEquals(ResourceUnit.whole(c[0]).data().length, c[1] - c[2]);
    }
    assertEquals(ResourceUnit.whole(16).all()[0], -2036);
    assertEquals(MixedTones.all().length, 56);
    assertEquals(MixedTones.data().length, 52);
    // Table 21-30: 78 Mbit/s of VHT MCS 8; clause 27: 143.4 of HE MCS 11 at the shortest guard.
    assertEquals(MixedTones.coding(true, 1, 8).dataBits(52) / 4e-6, 78e6, 1);
    assertEquals(HeCodings.coding(11).dataBits(234) / 13.6e-6, 143.4e6, 0.05e6);
  }
}
