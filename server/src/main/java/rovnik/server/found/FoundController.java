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
import rovnik.server.config.UserFiles;

@RestController
@RequestMapping("/api")
class FoundController {
  private final FoundFiles files;

  private final List<UserFiles> users;

  FoundController(FoundFiles files, List<UserFiles> users) {
    this.files = files;
    this.users = users;
  }

  /** A file of the user's that cannot be used, as a dialect or a kit, and why. */
  record BrokenFile(String file, String sentence) {}

  @GetMapping("/broken-files")
  List<BrokenFile> broken() {
    return users.stream()
        .flatMap(u -> u.broken().stream())
        .map(b -> new BrokenFile(b.file(), b.sentence()))
        .toList();
  }

  /** Files that the database does not know. */
  @GetMapping("/found")
  List<FoundFiles.Found> all() {
    return files.all();
  }

  @PostMapping("/found/{name}/read")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void read(@PathVariable String name) {
    files.read(name);
  }

  @DeleteMapping("/found/{name}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void remove(@PathVariable String name) {
    files.remove(name);
  }
}
