package rovnik.server;

import static org.testng.Assert.assertTrue;

import java.util.List;
import org.testng.annotations.Test;

/** Where instruments may be, if whoever runs Rovnik has said so. */
public class AddressApiTest {
  @Test
  public void onlyWhatIsOnTheListIsReached() {
    try (RunningServer s =
        RunningServer.start("--rovnik.instrument-addresses=127.0.0.0/8,analyzer-2")) {
      String port = ",\"port\":" + s.bench().ports().get(0) + "}";
      s.json(s.send("POST", "/api/instruments/find", "{\"host\":\"127.0.0.1\"" + port), 200);
      for (String host : List.of("10.0.0.1", "169.254.169.254", "other.example")) {
        String said =
            s.json(
                    s.send("POST", "/api/instruments/find", "{\"host\":\"" + host + "\"" + port),
                    400)
                .get("detail")
                .asString();
        assertTrue(said.contains("may not reach " + host), said);
      }
    }
  }
}
