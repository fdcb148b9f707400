package rovnik.server;

import static org.testng.Assert.assertEquals;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** The types of the front end are made from a committed description; it must be the server's. */
public class OpenApiTest {
  private static final Path COMMITTED = Path.of("../web/src/api/openapi.json");
  private final JsonMapper json = JsonMapper.builder().build();

  @Test
  public void theCommittedDescriptionIsTheServers() throws IOException {
    RunningServer server = RunningServer.fresh();
    ObjectNode live = (ObjectNode) json.readTree(server.get("/api/openapi.json").body());
    live.remove("servers"); // holds the port
    if (Boolean.getBoolean("rovnik.api.write")) {
      Files.writeString(
          COMMITTED, json.writerWithDefaultPrettyPrinter().writeValueAsString(live) + "\n");
    }
    JsonNode committed = json.readTree(Files.readString(COMMITTED));
    assertEquals(live, committed, "The interface changed: run ./rovnik api and commit.");
  }
}
