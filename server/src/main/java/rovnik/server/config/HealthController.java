package rovnik.server.config;

import java.sql.Connection;
import java.sql.SQLException;
import javax.sql.DataSource;
import org.springframework.boot.availability.ApplicationAvailability;
import org.springframework.boot.availability.ReadinessState;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.boot.web.server.context.WebServerApplicationContext;
import org.springframework.context.event.EventListener;
import org.springframework.core.env.Environment;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;

/** Whether Rovnik can do its work; 503 while it cannot. */
@RestController
class HealthController {
  /**
   * @param status ok, starting, disk-low (measuring goes on, nothing more is kept) or database
   * @param sentence what to do; empty if all is well
   */
  record Health(String status, String sentence) {}

  private final ApplicationAvailability availability;
  private final DataSource database;
  private final Space space;
  private final ClosedDatabase closed;
  private final Environment settings;

  HealthController(
      ApplicationAvailability availability,
      DataSource database,
      Space space,
      ClosedDatabase closed,
      Environment settings) {
    this.availability = availability;
    this.database = database;
    this.space = space;
    this.closed = closed;
    this.settings = settings;
  }

  @GetMapping("/api/health")
  ResponseEntity<Health> health() {
    Health h = look();
    boolean works = h.status().equals("ok") || h.status().equals("disk-low");
    return ResponseEntity.status(works ? 200 : 503).body(h);
  }

  private Health look() {
    if (availability.getReadinessState() != ReadinessState.ACCEPTING_TRAFFIC) {
      return new Health("starting", "Rovnik is starting. Wait a moment.");
    }
    boolean low = space.low();
    try (Connection c = database.getConnection();
        var statement = c.createStatement()) {
      statement.execute("select count(*) from job");
    } catch (SQLException e) {
      return new Health(
          "database",
          ClosedDatabase.is(e)
              ? closed.reopen(e)
              : "The database does not answer. The server's log says more.");
    }
    return low
        ? new Health(
            "disk-low", "The disk of the data folder is nearly full: nothing more is kept.")
        : new Health("ok", "");
  }

  /** All is filled and open: says where. */
  @EventListener
  void ready(ApplicationReadyEvent event) {
    if (event.getApplicationContext() instanceof WebServerApplicationContext web) {
      String address = settings.getProperty("server.address", "127.0.0.1");
      System.out.println(
          "Rovnik is ready: "
              + (settings.containsProperty("server.ssl.key-store")
                      || settings.containsProperty("server.ssl.certificate")
                  ? "https://"
                  : "http://")
              + address
              + ":"
              + web.getWebServer().getPort()
              + "/");
    }
  }
}
