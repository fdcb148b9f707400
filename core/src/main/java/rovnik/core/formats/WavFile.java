package rovnik.core.formats;

import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import javax.sound.sampled.AudioFormat;
import javax.sound.sampled.AudioInputStream;
import javax.sound.sampled.AudioSystem;
import javax.sound.sampled.UnsupportedAudioFileException;
import rovnik.core.Refusal;

/**
 * Samples of a WAV file (RIFF WAVE with PCM of 8, 16, 24 or 32 bits, or 32-bit floats).
 *
 * @param iq interleaved, full scale 1: a single channel is I and Q is 0, two are I and Q
 * @param rateHz sample rate
 * @param channels 1 or 2
 */
public record WavFile(float[] iq, double rateHz, int channels) {
  private static final int MOST_SAMPLES = 1 << 26;

  /**
   * Reads a file.
   *
   * @throws Refusal if it is none, holds another kind of samples, or ends early
   */
  public static WavFile read(InputStream in) {
    try (AudioInputStream audio = AudioSystem.getAudioInputStream(new BufferedInputStream(in))) {
      AudioFormat f = audio.getFormat();
      int bits = f.getSampleSizeInBits();
      boolean floats = f.getEncoding().equals(AudioFormat.Encoding.PCM_FLOAT) && bits == 32;
      boolean signed = f.getEncoding().equals(AudioFormat.Encoding.PCM_SIGNED);
      boolean unsigned = f.getEncoding().equals(AudioFormat.Encoding.PCM_UNSIGNED) && bits == 8;
      if (!floats && !unsigned && !(signed && bits % 8 == 0 && bits >= 8 && bits <= 32)) {
        throw new Refusal(
            "data",
            "The WAV file holds "
                + f.getEncoding()
                + " of "
                + bits
                + " bits; save it as PCM of 16, 24 or 32 bits, or as 32-bit floats.");
      }
      int channels = f.getChannels();
      if (channels > 2) {
        throw new Refusal(
            "data", "The WAV file has " + channels + " channels; save one of them, or I and Q.");
      }
      long frames = audio.getFrameLength();
      if (frames > MOST_SAMPLES) {
        throw new Refusal(
            "data", "The WAV file is too long: at most " + MOST_SAMPLES + " samples.");
      }
      int size = bits / 8;
      byte[] bytes = audio.readAllBytes();
      int there = bytes.length / (size * channels);
      if (there == 0 || frames > there) {
        throw new Refusal(
            "data",
            "The WAV file ends early: it tells of "
                + frames
                + " samples and holds "
                + there
                + ". Fetch it again.");
      }
      ByteOrder order = f.isBigEndian() ? ByteOrder.BIG_ENDIAN : ByteOrder.LITTLE_ENDIAN;
      ByteBuffer buffer = ByteBuffer.wrap(bytes).order(order);
      float[] iq = new float[2 * there];
      for (int n = 0; n < there; n++) {
        for (int c = 0; c < channels; c++) {
          int at = (n * channels + c) * size;
          iq[2 * n + c] = floats ? buffer.getFloat(at) : whole(bytes, at, size, order, unsigned);
          if (!Float.isFinite(iq[2 * n + c])) {
            throw new Refusal("data", "Sample " + n + " of the WAV file is not a number.");
          }
        }
      }
      return new WavFile(iq, f.getSampleRate(), channels);
    } catch (UnsupportedAudioFileException e) {
      throw new Refusal(
          "data",
          "This is no WAV file that can be read: it does not begin as one (RIFF, WAVE).",
          e);
    } catch (IOException e) {
      throw new Refusal("data", "The WAV file could not be read: " + e.getMessage(), e);
    }
  }

  private static float whole(byte[] bytes, int at, int size, ByteOrder order, boolean unsigned) {
    if (unsigned) {
      return ((bytes[at] & 0xff) - 128) / 128f;
    }
    long value = 0;
    for (int i = 0; i < size; i++) {
      int place = order == ByteOrder.BIG_ENDIAN ? at + i : at + size - 1 - i;
      value = value << 8 | bytes[place] & 0xff;
    }
    int shift = 64 - 8 * size;
    return (float) ((double) (value << shift >> shift) / (1L << 8 * size - 1));
  }
}
