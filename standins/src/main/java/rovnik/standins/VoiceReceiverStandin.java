package rovnik.standins;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.concurrent.locks.LockSupport;
import rovnik.standins.scpi.ScpiError;
import rovnik.standins.scpi.ScpiInstrument;
import rovnik.standins.world.Truth;
import rovnik.standins.world.VoiceReceiver;
import rovnik.standins.world.VoiceReceiver.Squelch;

/**
 * The pilot boat's voice radio, receiving. {@code READ?} answers the next samples of its
 * loudspeaker's output, 16,000 a second, as a definite-length block of 32-bit floats.
 */
final class VoiceReceiverStandin extends ScpiInstrument {
  private static final double DAMAGE_DBM = 10;
  private static final double NOT_A_NUMBER = 9.91e37;

  private final VoiceReceiver receiver;
  private final boolean paced;
  private int points = 8000;

  VoiceReceiverStandin(VoiceReceiver receiver, boolean paced) {
    super("Rovnik,Voice radio stand-in,1,1.0");
    this.receiver = receiver;
    this.paced = paced;
    both("[SENSe:]SWEep:POINts", p -> points = integer(p, 256, 1 << 18), () -> "" + points);
    both("OUTPut:SQUelch", p -> receiver.setSquelch(squelch(p)), () -> receiver.squelch().name());
    query("OUTPut:SQUelch:OPEN", () -> receiver.open() ? "1" : "0");
    query("[SENSe:]TONE:FREQuency", this::tone);
    query("[SENSe:]FREQuency", () -> String.format(Locale.ROOT, "%.6E", Truth.VOICE_HZ));
    queryBytes("READ", () -> block(listen(points)));
  }

  @Override
  protected void reset() {
    points = 8000;
    receiver.setSquelch(Squelch.OFF);
  }

  private static Squelch squelch(String parameter) {
    return switch (parameter.toUpperCase(Locale.ROOT)) {
      case "OFF", "0" -> Squelch.OFF;
      case "NOIS", "NOISE" -> Squelch.NOISE;
      case "TONE" -> Squelch.TONE;
      default -> throw ScpiError.illegalValue(parameter);
    };
  }

  private String tone() {
    double hz = receiver.toneHz();
    return String.format(Locale.ROOT, "%.4E", Double.isNaN(hz) ? NOT_A_NUMBER : hz);
  }

  private float[] listen(int samples) {
    long began = System.nanoTime();
    float[] audio = receiver.audio(samples);
    if (receiver.highestDbm() > DAMAGE_DBM) {
      raise(-310, "System error; the input was overloaded, lower the level");
    }
    if (paced) {
      long left = (long) (samples / VoiceReceiver.AUDIO_HZ * 1e9) - (System.nanoTime() - began);
      if (left > 0) {
        LockSupport.parkNanos(left);
      }
    }
    return audio;
  }

  private static byte[] block(float[] samples) {
    byte[] length = Integer.toString(samples.length * 4).getBytes(StandardCharsets.ISO_8859_1);
    ByteBuffer block = ByteBuffer.allocate(2 + length.length + samples.length * 4);
    block.put((byte) '#').put((byte) ('0' + length.length)).put(length);
    block.order(ByteOrder.LITTLE_ENDIAN).asFloatBuffer().put(samples);
    return block.array();
  }
}
