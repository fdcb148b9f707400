package rovnik.server.found;

import java.util.List;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api/found")
class FoundController {
  private final FoundFiles files;

  FoundController(FoundFiles files) {
    this.files = files;
  }

  @GetMapping
  List<FoundFiles.Found> all() {
    return files.all();
  }

  @PostMapping("/{name}/read")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void read(@PathVariable String name) {
    files.read(name);
  }

  @DeleteMapping("/{name}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void remove(@PathVariable String name) {
    files.remove(name);
  }
}
