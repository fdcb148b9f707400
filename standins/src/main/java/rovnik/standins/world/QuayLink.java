package rovnik.standins.world;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;

/**
 * The quay link radio behind a pad and a cable. What it sends was made by a script (quay_link.py),
 * one packet after another with silence between; its modulator and its synthesiser spoil it.
 */
public final class QuayLink implements PortSignal {
  private static final String FOLDER = "/fixtures/";

  /**
   * One that it can send.
   *
   * @param samples of a period, of which the file has the first
   */
  private record Packet(String file, String name, double rateHz, int samples) {}

  private final List<Packet> packets = new ArrayList<>();
  private final GeneratorOutput out;
  private final Clock clock = new Clock();
  private Packet sent;

  public QuayLink(long seed) {
    out = new GeneratorOutput(seed, ModulatorTruth.QUAY_LINK);
    for (String line :
        new String(bytes("quay_link.txt"), StandardCharsets.UTF_8).lines().toList()) {
      String[] words = line.split(";");
      packets.add(
          new Packet(words[0], words[1], Double.parseDouble(words[2]), Integer.parseInt(words[3])));
    }
    out.setFrequencyHz(Truth.QUAY_HZ);
    out.setOn(true);
    out.setPlaying(true);
    send(packets.get(packets.size() - 1).name());
  }

  private static byte[] bytes(String name) {
    try (InputStream in = QuayLink.class.getResourceAsStream(FOLDER + name)) {
      return in.readAllBytes();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** Names of what it can send. */
  public List<String> choices() {
    return packets.stream().map(Packet::name).toList();
  }

  public synchronized void send(String name) {
    Packet p = packets.stream().filter(x -> x.name().equals(name)).findFirst().orElseThrow();
    ByteBuffer b = ByteBuffer.wrap(bytes(p.file())).order(ByteOrder.LITTLE_ENDIAN);
    int there = b.remaining() / 4;
    float[] iq = new float[2 * p.samples()];
    for (int i = 0; i < 2 * there; i++) {
      iq[i] = b.getShort() / 32768f;
    }
    // The mean of a period is lower than that of a packet.
    double silenceDb = 10 * Math.log10((double) p.samples() / there);
    out.setSamples(iq);
    out.setClockHz(p.rateHz() * (1 + Truth.QUAY_REFERENCE_ERROR));
    out.setLevelDbm(Truth.QUAY_DBM - silenceDb);
    out.become(ModulatorTruth.QUAY_LINK.withSilence(silenceDb));
    sent = p;
  }

  public synchronized String sent() {
    return sent.name();
  }

  public void setOn(boolean on) {
    out.setOn(on);
  }

  public boolean on() {
    return out.on();
  }

  /** Its leakage is trimmed, or as it was delivered. */
  public void trim(boolean done) {
    out.setAdjusted(done);
  }

  public boolean trimmed() {
    return !Double.isNaN(out.adjustedAtHz());
  }

  private static double gainDb(double hz) {
    return -Truth.QUAY_PAD_DB - Truth.GENERATOR_CABLE_DB_AT_1_GHZ * Math.sqrt(hz / 1e9);
  }

  @Override
  public double levelAtPortDbm() {
    return out.peakDbm() + gainDb(Truth.QUAY_HZ);
  }

  @Override
  public Clock clock() {
    return clock;
  }

  @Override
  public void receive(double[] iq, int samples, double centreHz, double rateHz) {
    out.receive(iq, samples, clock.seconds(), centreHz, rateHz, gainDb(centreHz));
    clock.pass(samples / rateHz);
  }
}
