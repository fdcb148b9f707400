package rovnik.standins.world;

/**
 * Falls in step with a test sequence of ITU-T O.150 in received bits and counts, packet by packet,
 * what differs. A packet that is out of step is not counted, and the step is sought again.
 */
final class TestSequence {
  /** Bits of one packet. */
  static final int PACKET = 1024;

  /** More wrong bits of a packet than this: it is out of step. */
  private static final int LOST = PACKET / 5;

  private static final int PROBE = 240;

  private int order = 23;
  private int tap = 18;
  private long register;
  private boolean inStep;
  private int inPacket;
  private int wrongInPacket;
  private long bits;
  private long errors;
  private long packets;
  private long wrongPackets;

  /** Chooses the sequence of so many stages: 9, 15 or 23. */
  void choose(int stages) {
    order = stages;
    tap = stages == 9 ? 5 : stages == 15 ? 14 : 18;
    inStep = false;
  }

  int stages() {
    return order;
  }

  boolean inStep() {
    return inStep;
  }

  /** Bits, errors, packets, wrong packets since the last time. */
  long[] take() {
    long[] now = {bits, errors, packets, wrongPackets};
    bits = 0;
    errors = 0;
    packets = 0;
    wrongPackets = 0;
    inPacket = 0;
    wrongInPacket = 0;
    return now;
  }

  /** Bits counted since the last time. */
  long bits() {
    return bits;
  }

  /** Whether the step is found in these bits; it is kept if so. */
  boolean hunt(boolean[] received, int count) {
    for (int at = 0; at + order + PROBE <= count; at += 61) {
      long r = 0;
      for (int i = 0; i < order; i++) {
        r = r << 1 | (received[at + i] ? 1 : 0);
      }
      if (r == 0) {
        continue;
      }
      long start = r;
      int wrong = 0;
      for (int i = 0; i < PROBE; i++) {
        r = next(r);
        wrong += (r & 1) == 1 == received[at + order + i] ? 0 : 1;
      }
      if (wrong < PROBE / 5) {
        // Up to the end of what was received; counting begins with what comes then.
        r = start;
        for (int i = at + order; i < count; i++) {
          r = next(r);
        }
        register = r;
        inStep = true;
        inPacket = 0;
        wrongInPacket = 0;
        return true;
      }
    }
    return false;
  }

  private long next(long r) {
    return (r << 1 | (r >>> order - 1 ^ r >>> tap - 1) & 1) & (1L << order) - 1;
  }

  /** Compares; ends where it falls out of step. */
  void count(boolean[] received, int count) {
    for (int i = 0; i < count; i++) {
      register = next(register);
      wrongInPacket += (register & 1) == 1 == received[i] ? 0 : 1;
      if (++inPacket == PACKET) {
        if (wrongInPacket > LOST) {
          inStep = false;
          return;
        }
        bits += PACKET;
        errors += wrongInPacket;
        packets++;
        wrongPackets += wrongInPacket > 0 ? 1 : 0;
        inPacket = 0;
        wrongInPacket = 0;
      }
    }
  }
}
