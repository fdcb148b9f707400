package rovnik.server.modulation;

import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import rovnik.core.modulation.ofdm.ReadyDescriptions;

/** Descriptions of OFDM frames to begin with; others come as files. */
@RestController
@RequestMapping("/api/ofdm-descriptions")
class DescriptionController {
  @GetMapping
  List<OfdmDescriptionDto> all() {
    return ReadyDescriptions.all().stream().map(OfdmDescriptionDto::of).toList();
  }
}
