package rovnik.core.modulation.ofdm;

/**
 * A user that has one unit of a packet.
 *
 * @param station its number, as the packet has it
 * @param why its data are not read, "" if they are
 * @param told how its data are coded; null if that is not known
 * @param partOfLast in the last symbol one to three parts of the tones carry coded bits, or all at
 *     0
 */
record SharedUser(
    int station, ResourceUnit unit, String why, Coding told, boolean lowDensity, int partOfLast)
    implements UserData {

  /** The same in a packet that says how far its last symbol is filled. */
  SharedUser filled(int part) {
    return new SharedUser(station, unit, why, told, lowDensity, part);
  }

  HePlan.Share share() {
    return new HePlan.Share(unit, coding(), 1);
  }

  String name() {
    return "station " + station;
  }

  @Override
  public Coding coding() {
    return why.isEmpty() ? told : null;
  }

  @Override
  public int[] tones() {
    return unit.data();
  }

  @Override
  public Interleaver interleaver() {
    return unit.interleaver();
  }

  @Override
  public int bits(int symbols) {
    return HeCodings.bits(unit, told, symbols, partOfLast);
  }
}
