package rovnik.server.boards;

import io.swagger.v3.oas.annotations.media.Schema;
import java.io.IOException;
import org.jspecify.annotations.Nullable;
import org.springframework.http.CacheControl;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PatchMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;
import rovnik.core.Refusal;
import rovnik.server.boards.BoardMapper.BoardRow;
import rovnik.server.boards.BoardMapper.PictureRow;
import rovnik.server.config.Conflict;
import rovnik.server.jobs.JobService;

/** The photograph of a job's board: a PNG or JPEG file, and how wide what it shows is. */
@RestController
@RequestMapping("/api/jobs/{jobId}/board")
class BoardController {
  private final BoardMapper mapper;
  private final JobService jobs;
  private final Boards boards;

  BoardController(BoardMapper mapper, JobService jobs, Boards boards) {
    this.mapper = mapper;
    this.jobs = jobs;
    this.boards = boards;
  }

  /**
   * A board.
   *
   * @param widthMetres of what the photograph shows, from its left edge to its right one
   * @param heightMetres the same up, as the pixels have it
   */
  @Schema(name = "Board")
  record Board(double widthMetres, double heightMetres) {}

  /** What to change. */
  @Schema(name = "BoardSize")
  record Size(double widthMetres) {}

  /** The board of a job; empty if it has no photograph. */
  @GetMapping
  ResponseEntity<Board> board(@PathVariable long jobId) {
    jobs.find(jobId);
    BoardRow row = mapper.find(jobId);
    return row == null ? ResponseEntity.noContent().build() : ResponseEntity.ok(dto(row));
  }

  private static Board dto(BoardRow row) {
    return new Board(row.widthMetres(), row.heightMetres());
  }

  @GetMapping("/picture")
  ResponseEntity<byte[]> picture(@PathVariable long jobId) {
    PictureRow row = mapper.picture(jobId);
    if (row == null) {
      throw Conflict.notFound("photograph of a board, job", jobId);
    }
    return ResponseEntity.ok()
        .contentType(MediaType.parseMediaType(row.type()))
        .cacheControl(CacheControl.noCache())
        .body(row.picture());
  }

  /** Takes a photograph in place of the one before. */
  @PutMapping(consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
  Board take(
      @PathVariable long jobId,
      @RequestParam(name = "file", required = false) @Nullable MultipartFile file,
      @RequestParam(required = false) @Nullable Double widthMetres)
      throws IOException {
    if (file == null || file.isEmpty()) {
      throw new Refusal("file", "Choose a photograph of the board, a PNG or JPEG file.");
    }
    return dto(boards.take(jobId, file.getBytes(), widthMetres));
  }

  /** Says how wide what the photograph shows is. */
  @PatchMapping
  Board resize(@PathVariable long jobId, @RequestBody Size size) {
    return dto(boards.resize(jobId, size.widthMetres()));
  }

  @DeleteMapping
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void remove(@PathVariable long jobId) {
    if (mapper.delete(jobId) == 0) {
      throw Conflict.notFound("photograph of a board, job", jobId);
    }
  }
}
