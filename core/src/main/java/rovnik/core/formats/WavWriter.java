package rovnik.core.formats;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import javax.sound.sampled.AudioFileFormat;
import javax.sound.sampled.AudioFormat;
import javax.sound.sampled.AudioInputStream;
import javax.sound.sampled.AudioSystem;

/** Writes sound as a WAV file: RIFF WAVE with PCM of 16 bits, one channel. */
public final class WavWriter {
  private static final int FULL = 32767;

  private WavWriter() {}

  /**
   * The file.
   *
   * @param samples full scale 1; what is beyond is cut
   * @param rateHz samples a second
   */
  public static byte[] of(float[] samples, int rateHz) {
    ByteBuffer pcm = ByteBuffer.allocate(2 * samples.length).order(ByteOrder.LITTLE_ENDIAN);
    for (float v : samples) {
      pcm.putShort((short) Math.round(FULL * Math.max(-1, Math.min(1, v))));
    }
    ByteArrayOutputStream out = new ByteArrayOutputStream(pcm.capacity() + 64);
    AudioFormat format = new AudioFormat(rateHz, 16, 1, true, false);
    try (AudioInputStream in =
        new AudioInputStream(new ByteArrayInputStream(pcm.array()), format, samples.length)) {
      AudioSystem.write(in, AudioFileFormat.Type.WAVE, out);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return out.toByteArray();
  }
}
