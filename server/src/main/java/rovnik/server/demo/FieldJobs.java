package rovnik.server.demo;

import java.util.List;
import rovnik.core.listening.ListenMeasurement;
import rovnik.core.nets.NetMeasurement;
import rovnik.core.path.ElementKind;
import rovnik.core.places.PlaceMeasurement;
import rovnik.core.time.BurstMeasurement;
import rovnik.core.time.ChannelMeasurement;
import rovnik.core.time.HopMeasurement;
import rovnik.core.time.TriggerMeasurement;
import rovnik.server.bench.InstrumentDto;
import rovnik.server.boards.Boards;
import rovnik.server.config.Json;
import rovnik.server.jobs.JobDto;
import rovnik.server.jobs.JobService;
import rovnik.server.jobs.KnownRateDto;
import rovnik.server.jobs.LimitsDto;
import rovnik.server.jobs.PathDto;
import rovnik.server.setups.Setups;
import rovnik.server.time.BurstSettingsDto;
import rovnik.server.time.ChannelSettingsDto;
import rovnik.server.time.HopSettingsDto;
import rovnik.server.time.ListenSettingsDto;
import rovnik.server.time.NetSettingsDto;
import rovnik.server.time.PlaceSettingsDto;
import rovnik.server.time.TriggerSettingsDto;

/**
 * Jobs of what the fast receiver hears where it is plugged into something else than the generator.
 */
final class FieldJobs {
  private final JobService jobs;
  private final Setups setups;
  private final Json json;
  private final Boards boards;

  FieldJobs(JobService jobs, Setups setups, Json json, Boards boards) {
    this.boards = boards;
    this.jobs = jobs;
    this.setups = setups;
    this.json = json;
  }

  void make(InstrumentDto receiver) {
    JobDto crane =
        job("Crane remote, hops", "Crane remote", "Aerial on the quay", 2.441e9, -38, receiver);
    setups.keep(
        crane.id(),
        HopMeasurement.KIND,
        "40 channels of 2 MHz",
        json.tree(HopSettingsDto.of(2.441e9, 2e6, 2.402e9, 40, -30)),
        null);
    JobDto logger =
        job("Logger board, bursts", "Logger board", "Near-field probe", 212e6, -47, receiver);
    jobs.saveRates(
        logger.id(),
        List.of(
            new KnownRateDto("core clock enable", 1000),
            new KnownRateDto("radio sleep", 1 / 3.1e-3),
            new KnownRateDto("flash write", 1 / 3.1e-3)));
    setups.keep(
        logger.id(),
        BurstMeasurement.KIND,
        "Bursts at 212 MHz",
        json.tree(BurstSettingsDto.of(212e6, 2e6, 0.05, -40)),
        null);
    setups.keep(
        logger.id(),
        NetMeasurement.KIND,
        "Which net is it?",
        json.tree(NetSettingsDto.of(212e6, 2e6, 0.062, "core clock enable", "radio sleep", -40)),
        null);
    setups.keep(
        logger.id(),
        PlaceMeasurement.KIND,
        "212 MHz over the board",
        json.tree(PlaceSettingsDto.of(212e6, 2e6, 0.05, "regulator", -40)),
        null);
    boards.take(logger.id(), DemoBoard.png(), DemoBoard.WIDTH_METRES);
    JobDto boat =
        job("Pilot boat, listening", "Voice radio", "Aerial on the quay", 164.2e6, -62, receiver);
    setups.keep(
        boat.id(),
        ListenMeasurement.KIND,
        "164.2 MHz with its tone",
        json.tree(ListenSettingsDto.of(164.2e6, 25e3, 123, -50)),
        null);
    setups.keep(
        boat.id(),
        TriggerMeasurement.KIND,
        "When the pilot boat talks",
        json.tree(TriggerSettingsDto.of(164.2e6, 25e3, -80, 0.05, -50)),
        null);
    setups.keep(
        boat.id(),
        ChannelMeasurement.KIND,
        "Who else is on the air",
        json.tree(ChannelSettingsDto.of(164.2e6, 400e3, 25e3, -50)),
        null);
  }

  private JobDto job(
      String name,
      String dut,
      String through,
      double hertz,
      double levelDbm,
      InstrumentDto receiver) {
    JobDto job = jobs.create(name, dut);
    jobs.saveLimits(job.id(), new LimitsDto(hertz, null, null, null, null));
    jobs.savePath(
        job.id(),
        new PathDto(
            List.of(
                DemoData.element(
                    through, ElementKind.SOURCE, 0.0, 0, null, null, 12.0, levelDbm, null),
                DemoData.element(
                    receiver.name() + " IN",
                    ElementKind.PORT,
                    0.0,
                    0,
                    10.0,
                    20.0,
                    18.0,
                    null,
                    receiver.id())),
            0,
            0));
    return job;
  }
}
