package rovnik.core.modulation.ofdm;

import java.util.List;

/** What HE and EHT packets of one user that has the whole channel have alike. */
interface UserStream extends OneStream {
  HePlan layout();

  /** In the last symbol one to three parts of the tones carry coded bits, or all at 0. */
  int partOfLast();

  /** There may be room for a symbol more than there is, which is told. */
  boolean oneLess();

  /** All of the channel. */
  default ResourceUnit unit() {
    return ResourceUnit.whole(width());
  }

  @Override
  default int training() {
    return layout().training();
  }

  @Override
  default boolean learned() {
    return true;
  }

  @Override
  default int symbols(int usual) {
    return Math.max(0, layout().room(usual) - (oneLess() ? 1 : 0));
  }

  @Override
  default FramePlan plan(int symbols) {
    return layout().of(List.of(new HePlan.Share(unit(), coding(), 1)), symbols);
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
