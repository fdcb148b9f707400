package rovnik.server.spectrum;

import io.swagger.v3.oas.annotations.media.Schema;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import rovnik.core.spectrum.ResolutionAdviser;

/** Answers to questions that need no instrument. */
@RestController
@RequestMapping("/api/advice")
class AdviceController {
  /**
   * Whether two lines stand apart.
   *
   * @param words "clean", "just visible" or "not separated"
   * @param cleanRbwHz coarsest RBW that separates them cleanly
   */
  @Schema(name = "ResolutionAdvice")
  record ResolutionDto(ResolutionAdviser.Separation separation, String words, double cleanRbwHz) {}

  @GetMapping("/resolution")
  ResolutionDto resolution(
      @RequestParam double spacingHz,
      @RequestParam(defaultValue = "0") double differenceDb,
      @RequestParam double rbwHz,
      @RequestParam(defaultValue = "hann") String window) {
    ResolutionAdviser.Advice a =
        ResolutionAdviser.advise(spacingHz, differenceDb, rbwHz, SettingsDto.parseWindow(window));
    return new ResolutionDto(a.separation(), a.separation().label(), a.cleanRbwHz());
  }
}
