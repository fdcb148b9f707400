package rovnik.standins;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import rovnik.standins.rf.PartBench;
import rovnik.standins.scpi.ScpiInstrument;
import rovnik.standins.scpi.ScpiServer;
import rovnik.standins.world.BoardNets;
import rovnik.standins.world.BoardScope;
import rovnik.standins.world.DataReceiver;
import rovnik.standins.world.ExciterTap;
import rovnik.standins.world.FastInput;
import rovnik.standins.world.FunctionOutput;
import rovnik.standins.world.GeneratorLine;
import rovnik.standins.world.NoiseBench;
import rovnik.standins.world.OscillatorLine;
import rovnik.standins.world.QuayLink;
import rovnik.standins.world.ReceiverFrontEnd;
import rovnik.standins.world.ReceiverTruth;
import rovnik.standins.world.TriggerCable;
import rovnik.standins.world.VoiceReceiver;
import rovnik.standins.world.WideInput;
import rovnik.standins.world.World;

/** All stand-ins around one world, each on its own loopback port. */
public final class Bench implements AutoCloseable {
  private static final List<String> TRIMS = List.of("as delivered", "leakage trimmed");

  private final World world;
  private final List<ScpiServer> servers = new ArrayList<>();

  /**
   * @param basePort first of a row of ports, in the order of the getters; or 0 for any free ones
   * @param seed of everything random
   * @param paced true if records take as long as they last
   */
  public Bench(int basePort, long seed, boolean paced) throws IOException {
    world = new World(seed);
    NoiseBench noise = new NoiseBench(world);
    PartBench parts = new PartBench();
    FunctionOutput supply = new FunctionOutput();
    QuayLink link = new QuayLink(seed + 53);
    FastInput toFast = new FastInput(world, link);
    WideInput toWide = new WideInput(world, link);
    BoardScope scope = new BoardScope(toFast.field(), seed + 47);
    TriggerCable cable = new TriggerCable(toFast.field(), scope::pulses);
    List<ScpiInstrument> instruments =
        List.of(
            new ReceiverStandin(world, paced),
            new TransmitterStandin(world),
            new PadSwitchStandin(world),
            new SweptStandin(world, paced),
            new TwoInputStandin(world, noise, new ExciterTap(world), paced),
            new NoiseSourceStandin(noise),
            new PartHolderStandin(
                "Part behind the noise source",
                () -> NoiseBench.PARTS,
                noise::plug,
                noise::plugged),
            new NetworkStandin(parts, seed + 7, paced),
            new PartHolderStandin(
                "Part between the ports", parts.parts()::names, parts::plug, parts::part) {
              {
                set("ROUTe:PART:LOAD", p -> PartLoad.into(parts.parts(), p));
              }
            },
            new PartHolderStandin(
                "Pad at port 1", () -> PartBench.PADS, parts::plugAt1, parts::padAt1),
            new PartHolderStandin(
                "Pad at port 2", () -> PartBench.PADS, parts::plugAt2, parts::padAt2),
            new GeneratorStandin("Rovnik,Vector generator stand-in,1,1.0", world.generator()),
            new ReceiverStandin(
                "Rovnik,IQ receiver stand-in,2,1.0",
                new ReceiverFrontEnd(world, new GeneratorLine(world)),
                paced),
            new GeneratorStandin("Rovnik,Vector generator stand-in,2,1.0", world.secondGenerator()),
            new DataReceiverStandin(new DataReceiver(world, seed + 41), paced),
            new VoiceReceiverStandin(new VoiceReceiver(world, seed + 43), paced),
            new FunctionSourceStandin(supply),
            new ReceiverStandin(
                "Rovnik,IQ receiver stand-in,3,1.0",
                new ReceiverFrontEnd(world, new OscillatorLine(world, supply)),
                paced),
            new ReceiverStandin(
                "Rovnik,Fast digitizer stand-in,1,1.0",
                new ReceiverFrontEnd(world, toFast, ReceiverTruth.FAST).triggering(scope::trigger),
                cable,
                paced),
            new PartHolderStandin(
                "Input of the fast receiver",
                () -> FastInput.CHOICES,
                toFast::plug,
                toFast::plugged),
            new ScopeStandin(scope),
            probe("First probe of the oscilloscope", scope, 0),
            probe("Second probe of the oscilloscope", scope, 1),
            new PartHolderStandin(
                "Place of the near-field probe",
                () -> FastInput.PLACES,
                toFast::hold,
                toFast::place),
            new PartHolderStandin(
                "Trigger input of the fast receiver",
                () -> TriggerCable.NAMES,
                cable::touch,
                cable::net),
            new ReceiverStandin(
                "Rovnik,Wide receiver stand-in,1,1.0",
                new ReceiverFrontEnd(world, toWide, ReceiverTruth.WIDE),
                paced),
            new PartHolderStandin(
                "Input of the wide receiver",
                () -> WideInput.CHOICES,
                toWide::plug,
                toWide::plugged),
            new QuayLinkStandin(link),
            new PartHolderStandin(
                "Packets of the quay link", link::choices, link::send, link::sent),
            new PartHolderStandin(
                "Trim of the quay link",
                () -> TRIMS,
                how -> link.trim(how.equals(TRIMS.get(1))),
                () -> TRIMS.get(link.trimmed() ? 1 : 0)));
    for (ScpiInstrument i : instruments) {
      servers.add(new ScpiServer(i, basePort == 0 ? 0 : basePort + servers.size()));
    }
  }

  private static ScpiInstrument probe(String name, BoardScope scope, int channel) {
    return new PartHolderStandin(
        name, () -> BoardNets.NAMES, net -> scope.touch(channel, net), () -> scope.net(channel));
  }

  public World world() {
    return world;
  }

  private int port(int index) {
    return servers.get(index).port();
  }

  public int receiverPort() {
    return port(0);
  }

  public int transmitterPort() {
    return port(1);
  }

  public int padSwitchPort() {
    return port(2);
  }

  public int analyzerPort() {
    return port(3);
  }

  public int twoInputPort() {
    return port(4);
  }

  public int noiseSourcePort() {
    return port(5);
  }

  public int noisePartPort() {
    return port(6);
  }

  public int networkPort() {
    return port(7);
  }

  public int partPort() {
    return port(8);
  }

  public int pad1Port() {
    return port(9);
  }

  public int pad2Port() {
    return port(10);
  }

  public int generatorPort() {
    return port(11);
  }

  /** A receiver at the end of the generator's cable. */
  public int secondReceiverPort() {
    return port(12);
  }

  /** Its output meets that of the other generator before the receivers under test. */
  public int secondGeneratorPort() {
    return port(13);
  }

  public int dataReceiverPort() {
    return port(14);
  }

  public int voiceReceiverPort() {
    return port(15);
  }

  /** Feeds the dock oscillator. */
  public int functionSourcePort() {
    return port(16);
  }

  /** A receiver at the dock oscillator. */
  public int thirdReceiverPort() {
    return port(17);
  }

  /** A fast receiver, at the end of the generator's cable or somewhere in the field. */
  public int fastReceiverPort() {
    return port(18);
  }

  /** Says what the fast receiver is plugged into. */
  public int fastInputPort() {
    return port(19);
  }

  /** Beside the fast receiver, on its trigger. */
  public int oscilloscopePort() {
    return port(20);
  }

  /** Says what the oscilloscope's first probe touches. */
  public int firstProbePort() {
    return port(21);
  }

  public int secondProbePort() {
    return port(22);
  }

  /** Says where on the logger board the near-field probe is held. */
  public int probePlacePort() {
    return port(23);
  }

  /** Says what the fast receiver's trigger input touches. */
  public int triggerInputPort() {
    return port(24);
  }

  /** A receiver for 320 MHz, at the quay link or at the generator. */
  public int wideReceiverPort() {
    return port(25);
  }

  /** Says what the wide receiver is plugged into. */
  public int wideInputPort() {
    return port(26);
  }

  public int quayLinkPort() {
    return port(27);
  }

  /** Says what the quay link sends. */
  public int quayPacketsPort() {
    return port(28);
  }

  /** Says whether its leakage is trimmed. */
  public int quayTrimPort() {
    return port(29);
  }

  /** Ports in the order of the getters. */
  public List<Integer> ports() {
    return servers.stream().map(ScpiServer::port).toList();
  }

  @Override
  public void close() {
    servers.forEach(ScpiServer::close);
  }
}
