package rovnik.server.modulation;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import rovnik.core.Refusal;
import rovnik.core.modulation.ofdm.LegacyPacket;
import rovnik.core.modulation.ofdm.LegacyRate;
import rovnik.core.modulation.ofdm.MixedPacket;
import rovnik.core.modulation.ofdm.PacketFormat;
import rovnik.core.modulation.ofdm.SentPacket;
import rovnik.core.modulation.ofdm.Trigger;
import rovnik.core.modulation.ofdm.UserPacket;
import rovnik.core.modulation.wave.BandNoise;
import rovnik.core.modulation.wave.ByAudio;
import rovnik.core.modulation.wave.DataPart;
import rovnik.core.modulation.wave.FramePart;
import rovnik.core.modulation.wave.Modulated;
import rovnik.core.modulation.wave.OwnSamples;
import rovnik.core.modulation.wave.PacketPart;
import rovnik.core.modulation.wave.Pulses;
import rovnik.core.modulation.wave.Sweep;
import rovnik.core.modulation.wave.Tones;
import rovnik.core.modulation.wave.WavePart;
import rovnik.core.modulation.wave.WaveSum;

/**
 * One part of a waveform.
 *
 * @param kind single-carrier, carrier, tones, comb, pulses, noise, am, fm, pm, sweep, packets,
 *     frames or recording
 * @param offsetHz how far it is moved, null for 0
 * @param levelDb against the other parts, null for 0
 * @param carrier of single-carrier
 * @param tones of tones
 * @param count tones of a comb
 * @param spacingHz of the tones of a comb
 * @param lowCrest phases of a comb that keep its peaks low; null for true
 * @param widthSeconds of a pulse, between the middles of its edges
 * @param intervalSeconds from pulse to pulse, from packet to packet, from frame to frame
 * @param edgeSeconds of a pulse, null for 0
 * @param bandHz width of noise, or of the channel of packets: LEGACY 5, 10 or 20 MHz, HT and VHT 20
 *     MHz, HE 20 to 160 and EHT to 320 MHz
 * @param depthPercent of AM
 * @param deviationHz of FM: peak, of noise rms
 * @param deviationRadians of PM: peak, of noise rms
 * @param rateHz of the tone that modulates, or band of the noise
 * @param byNoise noise modulates instead of a tone; null for false
 * @param fromHz where a sweep begins
 * @param toHz where it ends
 * @param seconds that it lasts
 * @param megabits rate of packets in a channel of 20 MHz: 6, 9, 12, 18, 24, 36, 48 or 54
 * @param bytes of a packet, its check sequence among them
 * @param format of packets: LEGACY (clause 17 of IEEE 802.11-2020), HT (19), VHT (21), HE or EHT,
 *     all with one stream; null for LEGACY
 * @param mcs of other packets, in place of megabits: of HT 0 to 7, VHT to 8, HE to 11, EHT to 13
 * @param shortGuard of HT and VHT packets: 400 ns instead of 800; null for false
 * @param training of HE and EHT packets, with the guard, 0 to 3 as their header numbers them; those
 *     of several users have numbers of their own
 * @param users of HE packets, in place of mcs: each has a unit of its own and gets the same bytes;
 *     null for one that has the whole channel
 * @param answer these users answer a trigger, and no others: training is then 0 to 2, as of a
 *     trigger; null for false
 * @param description of frames: what their symbols carry
 * @param recordingId of samples as they are; of am, fm and pm the sound that modulates, in place of
 *     a tone
 */
@Schema(name = "WaveformPart")
record WaveformPartDto(
    String kind,
    @Nullable Double offsetHz,
    @Nullable Double levelDb,
    @Nullable CarrierDto carrier,
    @Nullable List<ToneDto> tones,
    @Nullable Integer count,
    @Nullable Double spacingHz,
    @Nullable Boolean lowCrest,
    @Nullable Double widthSeconds,
    @Nullable Double intervalSeconds,
    @Nullable Double edgeSeconds,
    @Nullable Double bandHz,
    @Nullable Double depthPercent,
    @Nullable Double deviationHz,
    @Nullable Double deviationRadians,
    @Nullable Double rateHz,
    @Nullable Boolean byNoise,
    @Nullable Double fromHz,
    @Nullable Double toHz,
    @Nullable Double seconds,
    @Nullable Integer megabits,
    @Nullable Integer bytes,
    @Nullable PacketFormat format,
    @Nullable Integer mcs,
    @Nullable Boolean shortGuard,
    @Nullable Integer training,
    @Nullable List<SentUserDto> users,
    @Nullable Boolean answer,
    @Nullable OfdmDescriptionDto description,
    @Nullable Long recordingId) {
  private static final String KINDS =
      "single-carrier, carrier, tones, comb, pulses, noise, am, fm, pm, sweep, packets,"
          + " frames or recording";

  /**
   * A tone.
   *
   * @param levelDb against the others, null for 0
   * @param phaseDegrees null for 0
   */
  @Schema(name = "Tone")
  record ToneDto(double offsetHz, @Nullable Double levelDb, @Nullable Double phaseDegrees) {
    Tones.Tone toCore() {
      return new Tones.Tone(offsetHz, or(levelDb, 0), Math.toRadians(or(phaseDegrees, 0)));
    }
  }

  /** Reads samples of a recording. */
  interface Samples {
    OwnSamples of(long recordingId);
  }

  WaveSum.Placed toCore(long seed, Samples samples) {
    return new WaveSum.Placed(part(seed, samples), or(offsetHz, 0), or(levelDb, 0));
  }

  private WavePart part(long seed, Samples samples) {
    String k = kind == null ? "" : kind.toLowerCase(Locale.ROOT);
    return switch (k) {
      case "single-carrier" -> new DataPart(given(carrier, "carrier").toCore());
      case "carrier" -> Tones.carrier();
      case "tones" ->
          new Tones(given(tones, "tones").stream().map(ToneDto::toCore).toList(), "tones");
      case "comb" ->
          Tones.comb(
              given(count, "count"), given(spacingHz, "spacingHz"), lowCrest == null || lowCrest);
      case "pulses" ->
          new Pulses(
              given(widthSeconds, "widthSeconds"),
              given(intervalSeconds, "intervalSeconds"),
              or(edgeSeconds, 0));
      case "noise" -> new BandNoise(given(bandHz, "bandHz"), seed);
      case "am" ->
          modulated(Modulated.Kind.AM, given(depthPercent, "depthPercent") / 100, seed, samples);
      case "fm" -> modulated(Modulated.Kind.FM, given(deviationHz, "deviationHz"), seed, samples);
      case "pm" ->
          modulated(Modulated.Kind.PM, given(deviationRadians, "deviationRadians"), seed, samples);
      case "sweep" ->
          new Sweep(given(fromHz, "fromHz"), given(toHz, "toHz"), given(seconds, "seconds"));
      case "packets" ->
          new PacketPart(
              packet(),
              given(bytes, "bytes"),
              given(intervalSeconds, "intervalSeconds"),
              given(bandHz, "bandHz"));
      case "frames" ->
          new FramePart(
              given(description, "description").told(),
              given(intervalSeconds, "intervalSeconds"),
              seed);
      case "recording" -> samples.of(given(recordingId, "recordingId"));
      default -> throw new Refusal("kind", "A part of a waveform is of the kind " + KINDS + ".");
    };
  }

  private SentPacket packet() {
    if (format == null || format == PacketFormat.LEGACY) {
      return LegacyPacket.of(
          LegacyRate.ofMegabits(given(megabits, "megabits")), given(bytes, "bytes"));
    }
    if (users != null && format != PacketFormat.HE) {
      throw new Refusal("users", "Several users are made in HE packets. Leave them out.");
    }
    if (users != null && answer != null && answer) {
      Trigger asked = new TriggerDto(given(training, "training"), users, null).toCore();
      return UserPacket.of(given(bandHz, "bandHz"), asked, given(bytes, "bytes"));
    }
    if (users != null) {
      return UserPacket.of(
          given(bandHz, "bandHz"),
          users.stream().map(SentUserDto::toCore).toList(),
          given(training, "training"),
          given(bytes, "bytes"));
    }
    if (format == PacketFormat.HE || format == PacketFormat.EHT) {
      return UserPacket.of(
          format,
          given(bandHz, "bandHz"),
          given(mcs, "mcs"),
          given(training, "training"),
          given(bytes, "bytes"));
    }
    return new MixedPacket(
        format,
        given(bandHz, "bandHz"),
        given(mcs, "mcs"),
        shortGuard != null && shortGuard,
        given(bytes, "bytes"));
  }

  private WavePart modulated(Modulated.Kind k, double amount, long seed, Samples samples) {
    if (recordingId != null) {
      return new ByAudio(k, amount, samples.of(recordingId));
    }
    return new Modulated(k, amount, given(rateHz, "rateHz"), byNoise != null && byNoise, seed);
  }

  private <T> T given(@Nullable T value, String field) {
    if (value == null) {
      throw new Refusal(field, "A part of the kind \"" + kind + "\" needs \"" + field + "\".");
    }
    return value;
  }

  private static double or(@Nullable Double value, double otherwise) {
    return value == null ? otherwise : value;
  }
}
