package rovnik.server;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import org.testng.annotations.Test;
import rovnik.standins.world.Truth;
import tools.jackson.databind.JsonNode;

/** A swept analyzer feeds the same views and runs as an IQ receiver. */
public class SweptApiTest extends BuoyBench {
  @Test
  public void theSameReadingsFromASweep() {
    receiver = add("Analyzer", "SWEPT_ANALYZER", server.bench().analyzerPort(), "scpi-sweep");
    awaitTrue(() -> state(receiver).equals("CONNECTED"));
    savePath(-30);
    settings("458.525e6", "200e3", 8, 30);
    start();
    JsonNode frame = settledFrame(8);
    assertEquals(reading(frame, "carrierPower").get("value").asDouble(), 27, 0.4);
    assertEquals(reading(frame, "carrierFrequency").get("value").asDouble(), Truth.BUOY_HZ, 20);
    assertEquals(frame.get("fftLength").asInt(), 0);
    assertTrue(frame.get("recordSeconds").asDouble() > 0.1, "its own sweep time");
    JsonNode kept = server.json(server.send("POST", live("/keep"), "{\"name\":\"swept\"}"), 201);
    JsonNode run = run(kept.get("id").asLong());
    assertTrue(run.get("conditions").get("sweep time").asString().endsWith(" s"));
    assertTrue(run.get("recordingId").isNull());
    JsonNode refused =
        server.json(
            server.send(
                "POST",
                live("/guided"),
                "{\"jobId\":" + job + ",\"work\":{\"kind\":\"harmonics\"}}"),
            409);
    assertTrue(refused.get("detail").asString().contains("needs an IQ receiver"));
    JsonNode traces =
        server.json(
            server.send(
                "PUT",
                live("/settings"),
                "{\"centreHz\":458e6,\"spanHz\":1e6,\"rbwHz\":0,\"window\":\"HANN\",\"detector\":\"RMS\",\"averages\":8,\"referenceLevelDbm\":30,\"channelWidthHz\":50000,\"view\":{\"traces\":[{\"mode\":\"%s\",\"count\":1,\"a\":0,\"b\":0}]}}"
                    .formatted("QUASI_PEAK")),
            400);
    assertEquals(traces.get("field").asString(), "traces");
    server.json(
        server.send(
            "PUT",
            live("/settings"),
            "{\"centreHz\":458.5e6,\"spanHz\":1e6,\"rbwHz\":0,\"window\":\"HANN\",\"detector\":\"RMS\",\"averages\":3,\"referenceLevelDbm\":30,\"channelWidthHz\":50000,\"view\":{\"traces\":[{\"mode\":\"HIGHEST\",\"count\":1,\"a\":0,\"b\":0}]}}"),
        200);
    JsonNode held = settledFrame(3);
    assertEquals(held.get("rows").get(0).asString(), "highest hold");
  }
}
