package rovnik.server.live;

import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;
import rovnik.core.emission.ViewPlan;
import rovnik.server.spectrum.SettingsDto;

/** The settings that Rovnik begins with. */
@RestController
class FirstSettingsController {
  @GetMapping("/api/live/first-settings")
  SettingsDto first() {
    return SettingsDto.of(LiveHub.firstLook(), ViewPlan.PLAIN);
  }
}
