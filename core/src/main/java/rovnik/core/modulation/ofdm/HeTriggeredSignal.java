package rovnik.core.modulation.ofdm;

import java.util.List;

/**
 * HE-SIG-A of a packet that answers a trigger (IEEE 802.11ax-2021, 27.3.11.7; from memory), with
 * what that trigger asked for.
 */
record HeTriggeredSignal(HeSignal said, Trigger trigger) implements PacketHeader, HeBody {
  @Override
  public PacketFormat format() {
    return PacketFormat.HE;
  }

  @Override
  public String wrong() {
    return said.wrong();
  }

  @Override
  public String unread() {
    return "";
  }

  @Override
  public PacketBody data() {
    return this;
  }

  @Override
  public int width() {
    return said.widthOfAnswer();
  }

  @Override
  public List<SharedUser> users() {
    return trigger.in(width());
  }

  @Override
  public List<ResourceUnit> watched() {
    return ResourceUnit.of(PacketFormat.HE, width(), ResourceUnit.SMALLEST);
  }

  @Override
  public HePlan layout() {
    return trigger.layout(width());
  }

  /** A trigger may tell that, too; a packet without an extension never has it. */
  @Override
  public boolean oneLess() {
    return false;
  }

  @Override
  public List<HePlan.Share> shares() {
    return users().stream().map(SharedUser::share).toList();
  }

  /** All of the channel: what is on its unused tones is looked at, too. */
  @Override
  public double reach() {
    return ResourceUnit.whole(width()).reach(width());
  }

  @Override
  public List<OfdmPacket.Field> fields() {
    int symbol = LegacyPacket.SYMBOL;
    return List.of(
        OfdmPacket.Field.of("SIGNAL again", symbol),
        OfdmPacket.Field.of("HE-SIG-A", 2 * symbol),
        OfdmPacket.Field.of("Short training, HE", 2 * symbol),
        OfdmPacket.Field.of("Training, HE", layout().ofTraining()));
  }

  @Override
  public List<HeaderBits.Part> parts() {
    return said.parts();
  }
}
