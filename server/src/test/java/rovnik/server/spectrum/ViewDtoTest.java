package rovnik.server.spectrum;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.expectThrows;

import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.emission.AdjacentChannels;
import rovnik.core.emission.ChannelFilter;
import rovnik.core.emission.EmissionMask;
import rovnik.core.emission.LevelDisplay;
import rovnik.core.emission.SecondInput;
import rovnik.core.emission.ViewPlan;
import rovnik.core.signal.Window;
import rovnik.core.spectrum.PointReducer;
import rovnik.core.spectrum.TraceMode;
import rovnik.core.spectrum.TraceRow;
import rovnik.core.units.LevelUnit;
import tools.jackson.databind.json.JsonMapper;

/** Views as they are sent: there and back, and what is refused with its field. */
public class ViewDtoTest {
  private static final JsonMapper JSON = JsonMapper.builder().build();

  private static ViewPlan whole() {
    return new ViewPlan(
        List.of(
            TraceRow.of(TraceMode.HIGHEST, 1),
            TraceRow.of(TraceMode.POWER_AVERAGE, 64),
            TraceRow.math(TraceMode.REST, 0, 1)),
        PointReducer.RMS,
        2001,
        new ViewPlan.Occupied(0.99, Double.NaN, 65e3),
        new AdjacentChannels(
            ChannelFilter.rootRaisedCosine(48e3, 0.35),
            List.of(
                new AdjacentChannels.Channel(75e3, ChannelFilter.rectangle(50e3), -60),
                new AdjacentChannels.Channel(
                    150e3, ChannelFilter.rootRaisedCosine(48e3, 0.35), Double.NaN))),
        new EmissionMask(
            List.of(
                new EmissionMask.Segment(0, 1e4, 0, -10, -20, Double.NaN, Double.NaN),
                new EmissionMask.Segment(1e4, 1e5, 1e3, Double.NaN, Double.NaN, -36, -40))),
        Double.NaN,
        true,
        true,
        true,
        List.of(new ViewPlan.ReadAt(ViewPlan.ReadKind.COUNT, 458e6, 5e3)),
        new LevelDisplay(LevelUnit.DBUV, 75),
        new SecondInput(Window.FLAT_TOP, 12, 10));
  }

  /** Over JSON and back nothing is lost; records with NaN are equal by their components. */
  @Test
  public void aWholeViewSurvivesTheWire() {
    ViewDto sent = ViewDto.of(whole());
    ViewDto read = JSON.readValue(JSON.writeValueAsString(sent), ViewDto.class);
    assertEquals(read, sent);
    assertEquals(read.toCore(), whole());
  }

  @Test
  public void anEmptyViewIsThePlainOne() {
    ViewDto read = JSON.readValue("{}", ViewDto.class);
    assertEquals(read.toCore(), ViewPlan.PLAIN);
    assertEquals(ViewDto.PLAIN.toCore(), ViewPlan.PLAIN);
  }

  @DataProvider
  public Object[][] refused() {
    return new Object[][] {
      {"{\"traces\":[null]}", "traces"},
      {"{\"traces\":[{\"mode\":\"POWER_AVERAGE\",\"count\":0,\"a\":0,\"b\":0}]}", "traces"},
      {"{\"traces\":[{\"mode\":\"RATIO\",\"count\":1,\"a\":9,\"b\":0}]}", "traces"},
      {"{\"reducer\":\"guess\"}", "reducer"},
      {"{\"mostPoints\":100000}", "mostPoints"},
      {"{\"occupied\":{\"share\":1.5}}", "occupiedShare"},
      {"{\"occupied\":{\"xDb\":-3}}", "occupiedXDb"},
      {"{\"adjacent\":{\"ownWidthHz\":0,\"channels\":[]}}", "channelWidthHz"},
      {"{\"adjacent\":{\"ownWidthHz\":5e4}}", "adjacent"},
      {"{\"adjacent\":{\"ownWidthHz\":5e4,\"ownRollOff\":2,\"channels\":[]}}", "rollOff"},
      {
        "{\"adjacent\":{\"ownWidthHz\":5e4,\"channels\":[{\"offsetHz\":0,\"widthHz\":5e4}]}}",
        "offsetHz"
      },
      {"{\"mask\":[]}", "mask"},
      {"{\"mask\":[{\"fromHz\":0,\"toHz\":1e3,\"rbwHz\":0,\"fromDbc\":-10}]}", "mask"},
      {"{\"reads\":[{\"kind\":\"BAND\",\"hertz\":1e6,\"widthHz\":0}]}", "reads"},
    };
  }

  @Test(dataProvider = "refused")
  public void whatCannotBeNamesItsField(String json, String field) {
    ViewDto read = JSON.readValue(json, ViewDto.class);
    Refusal r = expectThrows(Refusal.class, read::toCore);
    assertEquals(r.field(), field, r.getMessage());
  }
}
