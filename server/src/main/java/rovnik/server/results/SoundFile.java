package rovnik.server.results;

import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import rovnik.core.formats.WavWriter;
import rovnik.core.signal.Sound;

/** Sound as a file that is sent. */
public final class SoundFile {
  public static final String TYPE = "audio/wav";

  private SoundFile() {}

  /** At a rate and a volume that suit ears. */
  public static ResponseEntity<byte[]> of(String name, Sound sound) {
    return ResponseEntity.ok()
        .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"" + name + ".wav\"")
        .contentType(MediaType.parseMediaType(TYPE))
        .body(WavWriter.of(sound.forEars().samples(), Sound.USUAL_HZ));
  }
}
