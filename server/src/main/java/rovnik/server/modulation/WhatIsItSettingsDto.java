package rovnik.server.modulation;

import io.swagger.v3.oas.annotations.media.Schema;
import rovnik.core.modulation.analysis.WhatIsIt;

/**
 * Where an unknown carrier is looked for.
 *
 * @param centreHz at the reading plane; 0 for anywhere in the record
 * @param bandHz how wide around there; 0 for all of the record
 */
@Schema(name = "WhatIsItSettings")
record WhatIsItSettingsDto(double centreHz, double bandHz) {
  static final WhatIsItSettingsDto FIRST = new WhatIsItSettingsDto(0, 0);

  WhatIsIt toCore() {
    return new WhatIsIt(centreHz, bandHz);
  }
}
