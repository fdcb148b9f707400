package rovnik.core.modulation.ofdm;

import java.util.List;

/** What HE and EHT packets of one user that has the whole channel have alike. */
interface UserStream extends OneStream, HeBody {
  /** In the last symbol one to three parts of the tones carry coded bits, or all at 0. */
  int partOfLast();

  /** All of the channel. */
  default ResourceUnit unit() {
    return ResourceUnit.whole(width());
  }

  @Override
  default List<HePlan.Share> shares() {
    return List.of(new HePlan.Share(unit(), coding(), 1));
  }

  @Override
  default double reach() {
    return unit().reach(width());
  }

  @Override
  default int[] tones() {
    return unit().data();
  }

  @Override
  default Interleaver interleaver() {
    return unit().interleaver();
  }

  @Override
  default int bits(int symbols) {
    return HeCodings.bits(unit(), coding(), symbols, partOfLast());
  }
}
