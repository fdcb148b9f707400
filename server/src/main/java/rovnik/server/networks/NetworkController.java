package rovnik.server.networks;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.springframework.http.ContentDisposition;
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
import org.springframework.web.multipart.MultipartFile;
import org.springframework.web.servlet.mvc.method.annotation.StreamingResponseBody;
import rovnik.core.Refusal;
import rovnik.core.formats.NetworkCsv;
import rovnik.core.network.NetworkData;
import rovnik.core.network.NetworkFigures;

/** Touchstone files over REST. */
@RestController
@RequestMapping("/api/networks")
class NetworkController {
  private final NetworkService networks;
  private final NetworkView view;

  NetworkController(NetworkService networks, NetworkView view) {
    this.networks = networks;
    this.view = view;
  }

  /** Files as they are drawn: formats, corrections, time domain. */
  @PostMapping("/view")
  NetworkViewDto.Reply view(@RequestBody NetworkViewDto.Request request) {
    return view.of(request);
  }

  /** The port extension that turns a measured open or short into one at the plane. */
  @GetMapping("/{id}/extension")
  NetworkViewDto.Extension extension(@PathVariable long id, @RequestParam int port) {
    return view.extension(id, port);
  }

  @GetMapping
  List<NetworkDto> all() {
    return networks.all();
  }

  @PostMapping(consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
  @ResponseStatus(HttpStatus.CREATED)
  NetworkDto open(@RequestParam(name = "file", required = false) MultipartFile file)
      throws IOException {
    if (file == null || file.isEmpty()) {
      throw new Refusal("file", "Choose a Touchstone file, such as feeder.s2p.");
    }
    String original = file.getOriginalFilename();
    String name =
        original == null || original.isBlank()
            ? "network"
            : original.replaceFirst(".*[/\\\\]", "").strip();
    try (InputStream in = file.getInputStream()) {
      return networks.open(name, in);
    }
  }

  @GetMapping("/{id}")
  NetworkDetail find(
      @PathVariable long id,
      @RequestParam(defaultValue = "false") boolean readings,
      @RequestParam(defaultValue = "0") double fromHz,
      @RequestParam(required = false) Double toHz) {
    NetworkDto summary = networks.find(id);
    NetworkData n = networks.data(id);
    double to = toHz == null ? Double.MAX_VALUE : toHz;
    return NetworkDetail.of(summary, n, readings ? NetworkFigures.of(n, fromHz, to) : List.of());
  }

  @GetMapping("/{id}/touchstone")
  ResponseEntity<StreamingResponseBody> export(
      @PathVariable long id, @RequestParam(defaultValue = "1") int version) {
    if (version != 1 && version != 2) {
      throw new Refusal("version", "Touchstone is written as version 1 or 2.");
    }
    NetworkDto n = networks.find(id);
    Path out = networks.export(id, version);
    String base = n.name().replaceFirst("\\.\\w+$", "").replaceAll("[^\\w .+-]", "_");
    String name = base + (version == 2 ? ".ts" : ".s" + n.ports() + "p");
    return ResponseEntity.ok()
        .header(
            "Content-Disposition",
            ContentDisposition.attachment().filename(name).build().toString())
        .contentType(MediaType.TEXT_PLAIN)
        .body(
            stream -> {
              try {
                Files.copy(out, stream);
              } finally {
                Files.delete(out);
              }
            });
  }

  /** All S-parameters as CSV: hertz, then real and imaginary parts. */
  @GetMapping("/{id}/csv")
  ResponseEntity<String> csv(@PathVariable long id) {
    NetworkDto n = networks.find(id);
    String name = n.name().replaceFirst("\\.\\w+$", "").replaceAll("[^\\w .+-]", "_") + ".csv";
    return ResponseEntity.ok()
        .header(
            "Content-Disposition",
            ContentDisposition.attachment().filename(name).build().toString())
        .contentType(MediaType.parseMediaType("text/csv"))
        .body(NetworkCsv.write(networks.data(id)));
  }

  @DeleteMapping("/{id}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void remove(@PathVariable long id) {
    networks.remove(id);
  }
}
