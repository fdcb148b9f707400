package rovnik.standins.world;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;

/** The true values of the invented harbour that the stand-ins are built from. */
public final class Truth {
  private Truth() {}

  /** Nominal frequency of the buoy transmitter. */
  public static final double BUOY_NOMINAL_HZ = 458.525e6;

  public static final double BUOY_ERROR_PPM = 1.9;

  /** True carrier frequency. */
  public static final double BUOY_HZ = BUOY_NOMINAL_HZ * (1 + BUOY_ERROR_PPM * 1e-6);

  public static final double BUOY_LEVEL_DBM = 27;

  /** "Drive high" puts out this much more. */
  public static final double HIGH_DRIVE_DB = 2;

  /** The drive can be turned down by this. */
  public static final double LOWEST_DRIVE_DB = -12;

  public static final double SECOND_HARMONIC_DBC = -41;
  public static final double THIRD_HARMONIC_DBC = -52;

  /** How much stronger the harmonics are, relative to the carrier, when driven high. */
  public static final double HIGH_DRIVE_HARMONICS_DB = 9;

  public static final double SPUR_OFFSET_HZ = 1.25e6;
  public static final double SPUR_DBC = -63;
  public static final double SYMBOL_RATE_HZ = 48e3;
  public static final double ROLL_OFF = 0.35;

  /** Data begin with a known word every so many symbols; a test sequence of 511 bits fills in. */
  public static final String FRAME_WORD =
      "1011001110001111010000101101100100110101111000100110101011000111";

  public static final int FRAME_SYMBOLS = 2048;

  /** What the data modulator does wrong: noise of each part of a symbol (-38 dB of its power). */
  public static final double DATA_NOISE = 0.012589;

  public static final double DATA_LEAKAGE_DBC = -34;
  public static final double DATA_IMBALANCE_DB = 0.25;
  public static final double DATA_QUADRATURE_DEGREES = 1.2;

  /** Turn between mean power and twice that, driven high. */
  public static final double HIGH_DRIVE_TURN_DEGREES = 3;

  /** Phase noise far from the carrier: -88 dBc/Hz at 10 kHz, falling 20 dB a decade. */
  public static final double PHASE_NOISE_DBC_PER_HZ_AT_10_KHZ = -88;

  /** The synthesiser's loop holds the phase: below this offset the noise is flat. */
  public static final double PHASE_NOISE_CORNER_HZ = 1e3;

  /** What the pads and the feeder really do; their labels say round numbers. */
  public static final double PAD_EXCESS_DB = 0.08;

  public static final double FEEDER_LOSS_DB_AT_458_MHZ = 1.24;

  /** Room signals, as they arrive at the receiver's port. */
  public static final double PAGING_HZ = 459.4e6;

  public static final double PAGING_DBM = -75;
  public static final double HUMP_HZ = 457.7e6;
  public static final double HUMP_HALF_WIDTH_HZ = 120e3;
  public static final double HUMP_DBM_PER_HZ = -122;

  public static final double RECEIVER_NOISE_FIGURE_DB = 18;
  public static final double RECEIVER_DAMAGE_DBM = 20;

  /** Full scale at the port with no attenuation. */
  public static final double RECEIVER_FULL_SCALE_DBM = -20;

  /** Input third-order intercept behind the attenuator. */
  public static final double RECEIVER_IIP3_DBM = 15;

  public static final double RECEIVER_DC_DBFS = -64;
  public static final double RECEIVER_IMAGE_DBC = -58;
  public static final double RECEIVER_REFERENCE_ERROR = 0.3e-9;

  /** Leakage of the receiver's own clock, at the port with no attenuation. */
  public static final double RECEIVER_SPUR_HZ = 460.8e6;

  public static final double RECEIVER_SPUR_DBM = -104;
  public static final int ADC_BITS = 14;
  public static final double ADC_RATE_HZ = 102.4e6;

  /** Excess noise ratio of the noise source, and what its label says. */
  public static final double NOISE_SOURCE_ENR_DB = 15.24;

  public static final double NOISE_SOURCE_LABEL_DB = 15.2;

  /** Shore preamplifier: gain at 458 MHz, its fall over 80 MHz, noise figure, band. */
  public static final double PREAMP_GAIN_DB = 19.5;

  public static final double PREAMP_FALL_DB = 1.8;
  public static final double PREAMP_NOISE_FIGURE_DB = 1.3;
  public static final double PREAMP_FROM_HZ = 420e6;
  public static final double PREAMP_TO_HZ = 500e6;

  /** Output at which the preamplifier's gain is 1 dB lower, and input that kills it. */
  public static final double PREAMP_P1DB_DBM = 14;

  public static final double PREAMP_DAMAGE_DBM = 10;

  /** The feeder with its crushed spot. */
  public static final double FEEDER_METRES = 24;

  public static final double FEEDER_VELOCITY_FACTOR = 0.85;
  public static final double FEEDER_DB_PER_METRE = 0.052;
  public static final double FEEDER_SPOT_METRES = 17.3;
  public static final double FEEDER_SPOT_LENGTH_METRES = 0.08;
  public static final double FEEDER_SPOT_OHM = 38;

  public static final double FILTER_HZ = 458.5e6;
  public static final double FILTER_WIDTH_HZ = 4e6;
  public static final double FILTER_UNLOADED_Q = 3500;
  public static final double FILTER_LEAK_DB = -62;

  /** Tuned circuit of the receiver's front end. */
  public static final double COIL_FARAD = 27e-9;

  public static final double COIL_RESONANCE_HZ = 172e3;
  public static final double COIL_Q = 35;

  /** A crystal of the logger. */
  public static final double CRYSTAL_HZ = 10.0003e6;

  public static final double CRYSTAL_OHM = 11;
  public static final double CRYSTAL_Q = 62_000;
  public static final double CRYSTAL_HOLDER_FARAD = 3.1e-12;

  /** The bench's calibration standards; the kit's file says the same but for the load. */
  public static final double KIT_OPEN_FARAD = 48e-15;

  public static final double KIT_OPEN_FARAD_PER_HZ = 2e-25;
  public static final double KIT_OPEN_SECONDS = 29e-12;
  public static final double KIT_SHORT_HENRY = 4e-12;
  public static final double KIT_SHORT_SECONDS = 31e-12;
  public static final double KIT_GIGAOHM_PER_SECOND = 2.2;
  public static final double KIT_LOAD_OHM = 50.15;

  /** Network analyzer: noise of its receivers, where they overload, and what destroys a port. */
  public static final double ANALYZER_NOISE_DBM_PER_HZ = -128;

  public static final double ANALYZER_OVERLOAD_DBM = 5;

  /** Trace noise in 1 kHz, as a share of what is read. */
  public static final double ANALYZER_JITTER = 1.2e-4;

  /** Vector generator: its modulator before and after its own adjustment. */
  public static final double GENERATOR_LEAKAGE_DBC = -38;

  public static final double GENERATOR_ADJUSTED_LEAKAGE_DBC = -62;
  public static final double GENERATOR_IMBALANCE_DB = 0.3;
  public static final double GENERATOR_ADJUSTED_IMBALANCE_DB = 0.01;
  public static final double GENERATOR_QUADRATURE_DEGREES = 0.8;
  public static final double GENERATOR_ADJUSTED_QUADRATURE_DEGREES = 0.03;
  public static final double GENERATOR_DELAY_SECONDS = 35e-12;
  public static final double GENERATOR_REFERENCE_ERROR = 4e-9;
  public static final double GENERATOR_OIP3_DBM = 38;
  public static final double GENERATOR_NOISE_DBC_PER_HZ = -138;
  public static final double GENERATOR_PHASE_NOISE_DBC_PER_HZ_AT_10_KHZ = -112;
  public static final double GENERATOR_PHASE_NOISE_CORNER_HZ = 2e3;
  public static final double GENERATOR_CABLE_DB_AT_1_GHZ = 0.9;

  /** The second generator is the quieter one. */
  public static final double QUIET_PHASE_NOISE_DBC_PER_HZ_AT_10_KHZ = -130;

  public static final double QUIET_NOISE_DBC_PER_HZ = -152;

  /** Between the generators and a receiver under test: pad, two ways of the combiner, cable. */
  public static final double TESTED_PAD_DB = 30.05;

  public static final double COMBINER_DB = 6.1;
  public static final double COMBINER_SIDE_DB = 26.2;
  public static final double TESTED_CABLE_DB_AT_1_GHZ = 0.5;

  /** Buoy receiver: where it listens, what it takes, what it adds. */
  public static final double BUOY_RECEIVER_HZ = 458.525e6;

  public static final double BUOY_RECEIVER_SYMBOL_RATE_HZ = 250e3;
  public static final double BUOY_RECEIVER_ROLL_OFF = 0.25;
  public static final double BUOY_RECEIVER_NOISE_FIGURE_DB = 4.2;

  /** Of its detector, all together; what its loops lose by themselves is a part of it. */
  public static final double BUOY_RECEIVER_IMPLEMENTATION_DB = 0.8;

  public static final double BUOY_RECEIVER_REFERENCE_ERROR = 0.4e-6;
  public static final double BUOY_RECEIVER_LO_DBC_PER_HZ_AT_10_KHZ = -104;
  public static final double BUOY_RECEIVER_IIP3_DBM = -12;

  /** Voice radio: FM, 25 kHz channels; 12 dB SINAD at -119 dBm. */
  public static final double VOICE_HZ = 164.2e6;

  public static final double VOICE_DEVIATION_HZ = 2.5e3;
  public static final double VOICE_SINAD_DBM = -119;
  public static final double VOICE_SQUELCH_OPENS_DBM = -122;
  public static final double VOICE_SQUELCH_CLOSES_DBM = -124;
  public static final double VOICE_TONE_HZ = 123.0;
  public static final double VOICE_ADJACENT_DB = 68;
  public static final double VOICE_DISTORTION = 0.021;
  public static final double VOICE_REFERENCE_ERROR = 0.6e-6;
  public static final double VOICE_IIP3_DBM = -8;

  /** The buoy's exciter at its test point: level as in 50 ohm, and the regulator's spur there. */
  public static final double EXCITER_DBM = 12;

  public static final double EXCITER_SPUR_DBC = -50;
  public static final double EXCITER_SECOND_HARMONIC_DBC = -30;

  /** Function source: scale, offset and clock are a little off. */
  public static final double FUNCTION_SHARE_ERROR = 0.004;

  public static final double FUNCTION_OFFSET_ERROR_VOLTS = 0.003;
  public static final double FUNCTION_REFERENCE_ERROR = 12e-6;

  /**
   * Crane remote: channels, hops, and the other one beside it, as an aerial on the quay has them.
   */
  public static final double CRANE_FIRST_HZ = 2.402e9;

  public static final double CRANE_STEP_HZ = 2e6;
  public static final int CRANE_CHANNELS = 40;
  public static final int CRANE_AVOIDS_FROM = 11;
  public static final int CRANE_AVOIDS_TO = 14;
  public static final double CRANE_HOP_SECONDS = 8e-3;
  public static final double CRANE_BLANK_SECONDS = 0.4e-3;
  public static final double CRANE_DBM = -38;
  public static final double OTHER_HOPPER_SECONDS = 5e-3;
  public static final double OTHER_HOPPER_BLANK_SECONDS = 0.25e-3;
  public static final int OTHER_HOPPER_FIRST = 20;
  public static final int OTHER_HOPPER_CHANNELS = 16;
  public static final double OTHER_HOPPER_DBM = -49;

  /** Pilot boat: what an aerial on the quay has of its voice radio. */
  public static final double PILOT_HZ = 164.2e6;

  public static final double PILOT_OFF_HZ = 210;
  public static final double PILOT_DBM = -62;
  public static final double PILOT_TONE_HZ = 1000;
  public static final double PILOT_DEVIATION_HZ = 2500;
  public static final double PILOT_DISTORTION = 0.021;
  public static final double PILOT_SQUELCH_HZ = 123.0;
  public static final double PILOT_SQUELCH_DEVIATION_HZ = 350;
  public static final double PILOT_EVERY_SECONDS = 2.2;
  public static final double PILOT_TALKS_SECONDS = 1.4;

  /** Who else an aerial on the quay hears near the pilot boat; its channels are 25 kHz apart. */
  public static final double PORT_HZ = 164.25e6;

  public static final double PORT_DBM = -88;
  public static final double TUG_HZ = 164.175e6;
  public static final double TUG_DBM = -97;
  public static final double TUG_EVERY_SECONDS = 5;
  public static final double TUG_TALKS_SECONDS = 1;
  public static final double OTHER_VOICES_TONE_HZ = 700;
  public static final double OTHER_VOICES_DEVIATION_HZ = 2000;

  /** Logger board: bursts over its regulator, as a probe has them. */
  public static final double LOGGER_HZ = 212e6;

  public static final double LOGGER_DBM = -47;
  public static final double LOGGER_EVERY_SECONDS = 3.1e-3;
  public static final double LOGGER_LENGTH_SECONDS = 14e-6;

  /** After the strobe that causes it. */
  public static final double LOGGER_LAG_SECONDS = 0.3e-6;

  /** What a probe has less of the bursts at other places than over the regulator, dB. */
  public static final Map<String, Double> LOGGER_PLACES_DB = Collections.unmodifiableMap(places());

  private static Map<String, Double> places() {
    Map<String, Double> out = new LinkedHashMap<>();
    out.put("regulator", 0.0);
    out.put("flash", 6.0);
    out.put("processor", 9.5);
    out.put("radio module", 12.0);
    out.put("clock", 15.0);
    out.put("connector", 18.0);
    out.put("battery", 22.0);
    out.put("display", 25.0);
    return out;
  }

  /** Its other nets: what the strobe could be taken for. */
  public static final double LOGGER_CLOCK_SECONDS = 1e-3;

  public static final double LOGGER_SLEEP_AFTER_STROBE_SECONDS = 40e-6;
  public static final double LOGGER_WATCHDOG_SLOT_SECONDS = 5e-3;

  /** The oscilloscope beside the fast receiver. */
  public static final double SCOPE_TRIGGER_DELAY_SECONDS = 183e-9;

  public static final double SCOPE_TRIGGER_JITTER_SECONDS = 1e-9;
  public static final double SCOPE_CLOCK_FAST = 3e-6;
  public static final double SCOPE_RATE_HZ = 200e6;
  public static final double SCOPE_NOISE_VOLTS = 0.03;
  public static final double SCOPE_GAIN = 1.01;
  public static final double SCOPE_OUT_DELAY_SECONDS = 62e-9;

  /** Dock oscillator: a part for 5 V whose output follows its supply from 1.2 V on. */
  public static final double OSCILLATOR_HZ = 64e6;

  public static final double OSCILLATOR_ERROR = -3.1e-6;
  public static final double OSCILLATOR_DBM = 7;
  public static final double OSCILLATOR_VOLTS = 5;
  public static final double OSCILLATOR_STARTS_VOLTS = 1.2;
  public static final double OSCILLATOR_DAMAGE_VOLTS = 6;
  public static final double OSCILLATOR_PUSHING_HZ_PER_VOLT = 18;
  public static final double OSCILLATOR_HARMONIC_DBC = -28;

  /** Level error of the receiver, in dB, at a frequency and attenuation. */
  public static double receiverErrorDb(double hz, double attenuationDb) {
    return 0.06 * Math.sin(hz / 37e6) + 0.002 * attenuationDb;
  }

  /** kT at 290 K, dBm/Hz. */
  public static final double THERMAL_DBM_PER_HZ = -173.975;

  /** Quay link: while it sends; levels are against that. */
  public static final double QUAY_HZ = 5.5e9;

  public static final double QUAY_DBM = 18;
  public static final double QUAY_REFERENCE_ERROR = 2.3e-6;
  public static final double QUAY_LEAKAGE_DBC = -31;
  public static final double QUAY_TRIMMED_LEAKAGE_DBC = -52;
  public static final double QUAY_IMBALANCE_DB = 0.04;
  public static final double QUAY_QUADRATURE_DEGREES = 0.25;
  public static final double QUAY_OIP3_DBM = 60;
  public static final double QUAY_PHASE_NOISE_DBC_PER_HZ_AT_10_KHZ = -98;
  public static final double QUAY_PHASE_NOISE_CORNER_HZ = 50e3;
  public static final double QUAY_NOISE_DBC_PER_HZ = -128.9;

  /** EVM of all that in 320 MHz, the phases of symbols taken out. */
  public static final double QUAY_EVM_DB = -42;

  public static final double QUAY_PAD_DB = 30;
}
