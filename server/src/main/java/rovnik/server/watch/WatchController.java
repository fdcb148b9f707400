package rovnik.server.watch;

import java.io.IOException;
import java.io.OutputStreamWriter;
import java.io.UncheckedIOException;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.StreamingResponseBody;
import rovnik.core.Refusal;
import rovnik.core.watch.WatchPoint;
import rovnik.server.live.Client;
import rovnik.server.results.OutcomeDto;
import rovnik.server.runs.RunDtos;

/** Long watches. Times are milliseconds since 1970-01-01 00:00 UTC. */
@RestController
@RequestMapping("/api")
class WatchController {
  private static final int MOST_COLUMNS = 10_000;

  private final Watches watches;
  private final WatchHistory history;

  WatchController(Watches watches, WatchHistory history) {
    this.watches = watches;
    this.history = history;
  }

  /** Watches of a job, the newest first. */
  @GetMapping("/jobs/{jobId}/watches")
  List<WatchDtos.Dto> ofJob(@PathVariable long jobId) {
    return watches.ofJob(jobId);
  }

  /** What is measured for a job, with the numbers of it that could be watched. */
  @GetMapping("/jobs/{jobId}/watchable")
  List<WatchDtos.Watchable> watchable(@PathVariable long jobId) {
    return watches.watchable(jobId);
  }

  /** Begins a watch over what is measured; if that is held, it goes on. */
  @PostMapping("/watches")
  @ResponseStatus(HttpStatus.CREATED)
  WatchDtos.Dto begin(@RequestBody WatchDtos.New wanted, Client client) {
    return watches.begin(wanted, client);
  }

  @GetMapping("/watches/{id}")
  WatchDtos.Dto one(@PathVariable long id) {
    return watches.one(id);
  }

  /** Ends a watch; what it saw stays. */
  @PostMapping("/watches/{id}/end")
  WatchDtos.Dto end(@PathVariable long id) {
    return watches.end(id);
  }

  @DeleteMapping("/watches/{id}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void remove(@PathVariable long id) {
    watches.remove(id);
  }

  /**
   * What a stretch of a watch came to.
   *
   * @param fromMillis its beginning if it is left out
   * @param toMillis its end, or now, if it is left out
   * @param columns so many lowest and highest values of each number at most
   */
  @GetMapping("/watches/{id}/outcome")
  OutcomeDto outcome(
      @PathVariable long id,
      @RequestParam(required = false) @Nullable Long fromMillis,
      @RequestParam(required = false) @Nullable Long toMillis,
      @RequestParam(defaultValue = "1000") int columns) {
    if (columns < 1 || columns > MOST_COLUMNS) {
      throw new Refusal("columns", "columns must be 1 to 10,000.");
    }
    return OutcomeDto.whole(history.outcome(id, fromMillis, toMillis, columns));
  }

  /** Keeps a stretch of a watch as a run of its job. */
  @PostMapping("/watches/{id}/keep")
  @ResponseStatus(HttpStatus.CREATED)
  RunDtos.Summary keep(
      @PathVariable long id,
      @RequestParam(required = false) @Nullable Long fromMillis,
      @RequestParam(required = false) @Nullable Long toMillis,
      @RequestBody WatchDtos.Keep keep) {
    return history.keep(id, fromMillis, toMillis, keep.name());
  }

  /** Every point of a stretch: time, then lowest, highest, last and uncertainty of each number. */
  @GetMapping(value = "/watches/{id}/csv", produces = "text/csv")
  ResponseEntity<StreamingResponseBody> csv(
      @PathVariable long id,
      @RequestParam(required = false) @Nullable Long fromMillis,
      @RequestParam(required = false) @Nullable Long toMillis) {
    List<WatchDtos.ReadingDto> readings = watches.one(id).plan().readings();
    StreamingResponseBody body =
        out -> {
          Writer w = new OutputStreamWriter(out, StandardCharsets.UTF_8);
          w.write("time_utc");
          for (WatchDtos.ReadingDto r : readings) {
            String unit = r.toCore().shownUnit();
            String name = r.toCore().shownLabel() + (unit.isEmpty() ? "" : " (" + unit + ")");
            for (String part : List.of("lowest", "highest", "last", "U (k = 2)")) {
              w.write(",\"" + (name + ", " + part).replace("\"", "\"\"") + "\"");
            }
          }
          w.write("\n");
          history.each(id, fromMillis, toMillis, p -> line(w, p));
          w.flush();
        };
    return ResponseEntity.ok()
        .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"watch-" + id + ".csv\"")
        .contentType(MediaType.parseMediaType("text/csv"))
        .body(body);
  }

  private static void line(Writer w, WatchPoint p) {
    try {
      w.write(Instant.ofEpochMilli(p.atMillis()).toString());
      for (int i = 0; i < p.last().length; i++) {
        for (double v : new double[] {p.low()[i], p.high()[i], p.last()[i], p.uncertainty()[i]}) {
          w.write("," + (Double.isNaN(v) ? "" : Double.toString(v)));
        }
      }
      w.write("\n");
    } catch (IOException gone) {
      throw new UncheckedIOException(gone);
    }
  }
}
