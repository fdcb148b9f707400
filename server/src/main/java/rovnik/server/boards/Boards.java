package rovnik.server.boards;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.Iterator;
import java.util.Map;
import javax.imageio.ImageIO;
import javax.imageio.ImageReader;
import javax.imageio.stream.ImageInputStream;
import org.jspecify.annotations.Nullable;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Service;
import rovnik.core.Refusal;
import rovnik.server.boards.BoardMapper.BoardRow;
import rovnik.server.boards.BoardMapper.PictureRow;
import rovnik.server.config.Conflict;
import rovnik.server.config.Refusals;
import rovnik.server.jobs.JobService;

/** Photographs of boards, one a job; a file that is none changes nothing. */
@Service
public class Boards {
  private static final int MOST_BYTES = 10 << 20;
  private static final int MOST_PIXELS_A_SIDE = 10_000;
  private static final double WIDEST_METRES = 2;

  /** Kinds of files as a browser knows them, by the name of their reader. */
  private static final Map<String, String> TYPES =
      Map.of("png", MediaType.IMAGE_PNG_VALUE, "JPEG", MediaType.IMAGE_JPEG_VALUE);

  private final BoardMapper mapper;
  private final JobService jobs;

  Boards(BoardMapper mapper, JobService jobs) {
    this.mapper = mapper;
    this.jobs = jobs;
  }

  /**
   * Takes a photograph in place of the one before.
   *
   * @param file PNG or JPEG
   * @param widthMetres of what it shows
   */
  public BoardRow take(long jobId, byte[] file, @Nullable Double widthMetres) {
    jobs.find(jobId);
    if (file.length > MOST_BYTES) {
      throw new Refusal("file", "The photograph is larger than 10 MiB. Make it smaller first.");
    }
    double width = checked(widthMetres);
    Picture p = Picture.of(file);
    BoardRow row = new BoardRow(jobId, width, width * p.height() / p.width());
    mapper.save(row, new PictureRow(p.type(), file));
    return row;
  }

  BoardRow resize(long jobId, @Nullable Double widthMetres) {
    BoardRow before = mapper.find(jobId);
    if (before == null) {
      throw Conflict.notFound("photograph of a board, job", jobId);
    }
    double width = checked(widthMetres);
    BoardRow row = new BoardRow(jobId, width, width * before.heightMetres() / before.widthMetres());
    mapper.resize(row);
    return row;
  }

  private static double checked(@Nullable Double widthMetres) {
    if (widthMetres == null || !(widthMetres > 0 && widthMetres <= WIDEST_METRES)) {
      throw Refusals.range("widthMetres", 0, WIDEST_METRES, "m");
    }
    return widthMetres;
  }

  /** What a file says of itself; its pixels are left to the browser. */
  private record Picture(String type, int width, int height) {
    static Picture of(byte[] bytes) {
      try (ImageInputStream in = ImageIO.createImageInputStream(new ByteArrayInputStream(bytes))) {
        Iterator<ImageReader> readers = ImageIO.getImageReaders(in);
        while (readers.hasNext()) {
          ImageReader reader = readers.next();
          String type = TYPES.get(reader.getFormatName());
          if (type != null) {
            return read(reader, in, type);
          }
        }
      } catch (IOException | RuntimeException damaged) {
        if (damaged instanceof Refusal r) {
          throw r;
        }
        throw new Refusal("file", "The photograph cannot be read: the file is damaged.", damaged);
      }
      throw new Refusal("file", "That is neither a PNG nor a JPEG file.");
    }

    private static Picture read(ImageReader reader, ImageInputStream in, String type)
        throws IOException {
      try {
        reader.setInput(in, true, true);
        int width = reader.getWidth(0);
        int height = reader.getHeight(0);
        if (width > MOST_PIXELS_A_SIDE || height > MOST_PIXELS_A_SIDE) {
          throw new Refusal(
              "file", "The photograph has more than 10,000 pixels a side. Make it smaller first.");
        }
        return new Picture(type, width, height);
      } finally {
        reader.dispose();
      }
    }
  }
}
