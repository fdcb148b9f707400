package rovnik.server.desk;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import rovnik.core.Refusal;
import rovnik.server.config.Conflict;
import rovnik.server.config.Json;
import rovnik.server.config.Refusals;

/** Arrangements of tiles by name; they belong to an area, whatever the job. */
@RestController
@RequestMapping("/api/arrangements")
class ArrangementController {
  private static final Pattern AREA = Pattern.compile("[a-z-]{1,40}");

  private final ArrangementMapper mapper;
  private final Json json;

  ArrangementController(ArrangementMapper mapper, Json json) {
    this.mapper = mapper;
    this.json = json;
  }

  /** An arrangement that is kept. */
  @Schema(name = "Arrangement")
  record Arrangement(long id, String area, String name, Tiles tiles) {}

  /** What to keep. */
  @Schema(name = "NewArrangement")
  record NewArrangement(@Nullable String area, @Nullable String name, @Nullable Tiles tiles) {}

  @GetMapping
  List<Arrangement> ofArea(@RequestParam String area) {
    return mapper.ofArea(area).stream()
        .map(
            r ->
                new Arrangement(
                    r.id(),
                    r.area(),
                    r.name(),
                    json.mapper().readValue(r.tilesJson(), Tiles.class)))
        .toList();
  }

  /** Keeps tiles under a name; the same name again replaces them. */
  @PostMapping
  @ResponseStatus(HttpStatus.CREATED)
  List<Arrangement> save(@RequestBody NewArrangement wanted) {
    String area = wanted.area();
    if (area == null || !AREA.matcher(area).matches()) {
      throw new Refusal("area", "Name the area of the desk, such as spectrum or network.");
    }
    String name = Refusals.named(wanted.name(), "name", "arrangement");
    mapper.save(area, name, json.mapper().writeValueAsString(Tiles.checked(wanted.tiles())));
    return ofArea(area);
  }

  @DeleteMapping("/{id}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void remove(@PathVariable long id) {
    if (mapper.delete(id) == 0) {
      throw Conflict.notFound("arrangement", id);
    }
  }
}
