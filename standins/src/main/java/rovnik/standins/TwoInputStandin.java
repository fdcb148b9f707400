package rovnik.standins;

import rovnik.standins.scpi.ScpiError;
import rovnik.standins.world.ExciterTap;
import rovnik.standins.world.PortSignal;
import rovnik.standins.world.ReceiverFrontEnd;
import rovnik.standins.world.World;

/**
 * IQ receiver with two inputs that take their records at the same time. Input 1 speaks as {@link
 * ReceiverStandin}; input 2 has an attenuator of its own, and FETCh2? answers its part of the
 * record that READ? took.
 */
final class TwoInputStandin extends ReceiverStandin {
  private static final int OVERLOAD_TWO = 1024;

  private final World world;
  private final ReceiverFrontEnd second;
  private double secondAttenuationDb;
  private float[] taken;

  TwoInputStandin(World world, PortSignal first, ExciterTap tap, boolean paced) {
    super("Rovnik,Two-input receiver stand-in,1,1.0", new ReceiverFrontEnd(world, first), paced);
    this.world = world;
    this.second = new ReceiverFrontEnd(world, tap);
    secondAttenuationDb = 40;
    both(
        "INPut2:ATTenuation",
        p -> secondAttenuationDb = 2 * Math.rint(number(p, 0, 40) / 2),
        () -> text(secondAttenuationDb));
    query(
        "[SENSe:]POWer2[:AC]:RANGe[:UPPer]",
        () -> text(second.truth().fullScaleDbm(secondAttenuationDb)));
    queryBytes("FETCh2", this::fetchSecond);
    // The switch on the probe, for tests that act as the hand at it.
    both(
        "SIMulation:PROBe",
        p -> tap.setDivides(integer(p, 1, 10) > 5 ? 10 : 1),
        () -> "" + tap.divides());
  }

  @Override
  protected void reset() {
    super.reset();
    secondAttenuationDb = 40;
    taken = null;
  }

  @Override
  protected void alsoTake(double centreHz, double rateHz, int points) {
    taken = second.record(centreHz, rateHz, points, secondAttenuationDb);
    world.pass(points / rateHz);
  }

  @Override
  protected int questionable() {
    return super.questionable() | (second != null && second.clipped() ? OVERLOAD_TWO : 0);
  }

  private byte[] fetchSecond() {
    if (taken == null) {
      throw new ScpiError(-230, "Data corrupt or stale; READ? comes first");
    }
    return block(taken);
  }
}
