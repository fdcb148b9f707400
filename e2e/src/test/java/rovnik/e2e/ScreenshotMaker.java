package rovnik.e2e;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.nio.file.Path;
import org.testng.annotations.Test;

/** Makes the pictures of docs/screenshots from the demo data; run by ./rovnik shots only. */
public class ScreenshotMaker {
  private final Path folder = Path.of(System.getProperty("rovnik.shots", "target/shots"));

  private void shoot(Page page, String name) {
    page.mouse().move(2, 2);
    page.waitForTimeout(300);
    page.screenshot(new Page.ScreenshotOptions().setPath(folder.resolve(name + ".png")));
  }

  private static void type(Page page, String entry) {
    page.keyboard().press("/");
    page.locator("input[aria-label='Quick entry']").fill(entry);
    page.keyboard().press("Enter");
    page.waitForTimeout(400);
  }

  private static void wait(Page page, int millis) {
    page.waitForTimeout(millis);
  }

  @Test
  public void makePictures() {
    try (Processes rovnik = new Processes(30);
        Browser browser = new Browser()) {
      Page page = browser.window(rovnik.url() + "/spectrum");
      wait(page, 3000); // until the instruments are connected
      page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Start")).click();
      page.getByTestId("reading-carrierPower").waitFor();
      wait(page, 1500);
      type(page, "458.525M");
      type(page, "span 4M");
      type(page, "average 50");
      wait(page, 2000);
      type(page, "keep TX on");
      rovnik.control(page, 2, "output", "off");
      wait(page, 2500);
      type(page, "keep TX off");
      rovnik.control(page, 2, "output", "on");
      type(page, "span 200k");
      type(page, "average 20");
      wait(page, 1500);
      page.keyboard().press("m");
      page.keyboard().press("k");
      wait(page, 1200);
      shoot(page, "spectrum-live");
      page.getByLabel("Light or dark").click();
      type(page, "tiles 2");
      wait(page, 6000);
      shoot(page, "spectrum-tiles-dark");
      type(page, "tiles 1");
      page.getByLabel("Light or dark").click();
      emissions(rovnik, page);
      modulation(rovnik, page);
      networks(rovnik, page);
      page.navigate(rovnik.url() + "/bench");
      page.getByText("Pad switch").first().waitFor();
      wait(page, 1500);
      shoot(page, "bench");
    }
  }

  private void modulation(Processes rovnik, Page page) {
    rovnik.control(page, 2, "signal", "data");
    page.navigate(rovnik.url() + "/modulation");
    press(page, "Setups");
    page.getByText("Data, as the buoy sends them").click();
    page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Start")).click();
    page.getByTestId("reading-evm").waitFor();
    wait(page, 1500);
    type(page, "keep as sent");
    wait(page, 1200);
    shoot(page, "modulation");
    rovnik.control(page, 2, "signal", "carrier");
    page.keyboard().press("Space");
    generator(rovnik, page);
  }

  /** The generator: its waveform before it is sent, trimmed, and AM of it. */
  private void generator(Processes rovnik, Page page) {
    page.locator("input[aria-label=Job]").click();
    page.getByText("Vector generator, its own errors").click();
    press(page, "Setups");
    page.getByText("16-QAM, as the buoy receiver takes it").click();
    press(page, "Waveform ...");
    page.getByText("It repeats without a seam").waitFor();
    press(page, "Send it and play");
    rovnik.control(page, 12, "frequency", "458.525e6");
    rovnik.control(page, 12, "level", "0");
    rovnik.control(page, 12, "output", "on");
    type(page, "trim");
    page.getByTestId("finding").waitFor();
    wait(page, 1500);
    press(page, "Back to the live view");
    page.keyboard().press("Space");
    pulses(rovnik, page);
    oscillator(rovnik, page);
    receivers(rovnik, page);
    packets(rovnik, page);
    page.locator("input[aria-label=Job]").click();
    page.getByText("Outer buoy, yearly check").click();
  }

  /** Bursts: pulses of the generator, found again. */
  private void pulses(Processes rovnik, Page page) {
    page.navigate(rovnik.url() + "/time");
    press(page, "Waveform ...");
    page.getByLabel(java.util.regex.Pattern.compile("^Part")).click();
    page.getByRole(AriaRole.MENUITEM)
        .filter(new Locator.FilterOptions().setHasText(java.util.regex.Pattern.compile("^pulses$")))
        .click();
    Locator width = page.getByRole(AriaRole.DIALOG).getByLabel("Width");
    width.fill("100u");
    width.press("Enter");
    page.getByText("It repeats without a seam").waitFor();
    rovnik.control(page, 12, "level", "-10");
    press(page, "Send it and play");
    rovnik.control(page, 12, "output", "on");
    type(page, "band 1M");
    type(page, "length 20m");
    type(page, "reference 5");
    page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Start")).click();
    page.getByTestId("reading-period").waitFor();
    wait(page, 1500);
    shoot(page, "bursts");
    type(page, "density");
    page.getByLabel("Span", new Page.GetByLabelOptions().setExact(true)).waitFor();
    type(page, "centre 458.525M");
    type(page, "span 2M");
    type(page, "reference 5");
    page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Start")).click();
    page.getByTestId("reading-highestLevel").waitFor();
    wait(page, 1500);
    shoot(page, "density");
    type(page, "amplitude");
    page.getByLabel("Instant", new Page.GetByLabelOptions().setExact(true)).waitFor();
    type(page, "centre 458.525M");
    type(page, "band 1M");
    type(page, "length 20m");
    type(page, "reference 5");
    page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Start")).click();
    page.getByTestId("reading-lineLevel").waitFor();
    wait(page, 1500);
    shoot(page, "amplitude");
    page.keyboard().press("Space");
    rovnik.control(page, 12, "output", "off");
    hops(rovnik, page);
    nets(rovnik, page);
    watch(page);
    page.navigate(rovnik.url() + "/modulation");
  }

  /** Four nets of the logger board, two at a time. */
  private void nets(Processes rovnik, Page page) {
    rovnik.control(page, 20, "part", "probe over the logger board");
    job(page, "Logger board, bursts");
    page.getByLabel("Channels apart", new Page.GetByLabelOptions().setExact(true)).waitFor();
    type(page, "nets");
    page.getByLabel("Net at channel 1", new Page.GetByLabelOptions().setExact(true)).waitFor();
    press(page, "Setups");
    page.getByText("Which net is it?").last().click();
    press(page, "Start");
    page.getByTestId("reading-lag2").waitFor();
    page.keyboard().press("Space");
    rovnik.control(page, 22, "part", "flash write strobe");
    rovnik.control(page, 23, "part", "watchdog");
    type(page, "channel 1 flash write strobe");
    type(page, "channel 2 watchdog");
    page.keyboard().press("Space");
    page.getByTestId("reading-lag1").waitFor();
    wait(page, 3000);
    shoot(page, "nets");
    page.keyboard().press("Space");
    places(rovnik, page);
  }

  /** Where on the logger board it is strongest, and what a shield changes. */
  private void places(Processes rovnik, Page page) {
    type(page, "places");
    page.getByLabel("State of the board", new Page.GetByLabelOptions().setExact(true)).waitFor();
    press(page, "Setups");
    page.getByText("212 MHz over the board").click();
    String[] places = {
      "flash, 20, 15",
      "processor, 42, 24",
      "radio module, 74, 12",
      "clock, 30, 42",
      "regulator, 62, 38"
    };
    for (String place : places) {
      rovnik.control(page, 24, "part", place.substring(0, place.indexOf(',')));
      type(page, "place " + place);
      page.keyboard().press("Space");
      wait(page, 2500);
      page.keyboard().press("Space");
      wait(page, 800);
    }
    wait(page, 1500);
    shoot(page, "places");
    rovnik.control(page, 24, "part", "regulator");
  }

  /** A day of the buoy. */
  private void watch(Page page) {
    job(page, "Outer buoy, yearly check");
    type(page, "watch");
    page.getByTestId("reading-seen").waitFor();
    wait(page, 1500);
    shoot(page, "watch");
  }

  /** The crane remote and its neighbour, over some looks. */
  private void hops(Processes rovnik, Page page) {
    rovnik.control(page, 20, "part", "aerial on the quay");
    job(page, "Crane remote, hops");
    page.getByLabel("Instant", new Page.GetByLabelOptions().setExact(true)).waitFor();
    type(page, "hops");
    page.getByLabel("Channels apart", new Page.GetByLabelOptions().setExact(true)).waitFor();
    press(page, "Setups");
    page.getByText("40 channels of 2 MHz").click();
    press(page, "Start");
    page.getByTestId("reading-intervalB").waitFor();
    wait(page, 20_000);
    shoot(page, "hops");
    page.keyboard().press("Space");
  }

  /** Packets of the quay link, 320 MHz wide. */
  private void packets(Processes rovnik, Page page) {
    rovnik.control(page, 28, "output", "on");
    page.navigate(rovnik.url() + "/modulation");
    job(page, "Quay link, packets");
    type(page, "packets");
    page.getByLabel("Channel width").waitFor();
    press(page, "Setups");
    page.getByText("Packets in 320 MHz").click();
    press(page, "Start");
    page.getByTestId("reading-evmDb").waitFor();
    wait(page, 1500);
    shoot(page, "ofdm");
    page.keyboard().press("Space");
  }

  /** AM of an oscillator by its supply. */
  private void oscillator(Processes rovnik, Page page) {
    job(page, "Dock oscillator, AM by its supply");
    type(page, "analog");
    press(page, "Setups");
    page.getByText("AM by the supply").click();
    page.getByText("Use all of it").click();
    page.getByText("swings 4.565 to 5.435 V").waitFor();
    rovnik.control(page, 17, "output", "on");
    press(page, "Start");
    page.getByTestId("reading-sinad").waitFor();
    wait(page, 1500);
    shoot(page, "analog");
    page.keyboard().press("Space");
    rovnik.control(page, 17, "output", "off");
  }

  /** Sensitivity of the buoy's receiver, and what the voice radio's loudspeaker gives. */
  private void receivers(Processes rovnik, Page page) {
    page.navigate(rovnik.url() + "/receiver");
    page.locator("input[aria-label=Job]").click();
    page.getByText("Buoy receiver, sensitivity").click();
    press(page, "Setups");
    page.getByText("As its data sheet says").click();
    press(page, "Waveform ...", 0);
    press(page, "Send it and play");
    rovnik.control(page, 12, "frequency", "458.525e6");
    rovnik.control(page, 12, "output", "on");
    rovnik.control(page, 12, "adjust", "");
    rovnik.control(page, 15, "sequence", "PN15");
    type(page, "level -99");
    press(page, "Start");
    page.getByTestId("reading-loss").waitFor();
    type(page, "sensitivity");
    page.keyboard().press("Enter");
    page.getByTestId("finding").waitFor();
    wait(page, 1000);
    shoot(page, "sensitivity");
    page.keyboard().press("Space");
    page.locator("input[aria-label=Job]").click();
    page.getByText("Voice radio, receiving").click();
    press(page, "Waveform ...", 0);
    press(page, "Send it and play");
    rovnik.control(page, 12, "frequency", "164.2e6");
    rovnik.control(page, 12, "adjust", "");
    type(page, "level -116");
    press(page, "Start");
    page.getByTestId("reading-sinad").waitFor();
    wait(page, 6000);
    shoot(page, "receiver-voice");
    page.keyboard().press("Space");
    rovnik.control(page, 12, "output", "off");
  }

  private static void press(Page page, String name, int which) {
    page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name)).nth(which).click();
    wait(page, 1500);
  }

  private static void menu(Page page, String button, String item) {
    page.getByLabel(button).or(page.getByText(button, exactly())).first().click();
    page.locator("[role=menuitem]", new Page.LocatorOptions().setHasText(item)).first().click();
    wait(page, 500);
  }

  private static Page.GetByTextOptions exactly() {
    return new Page.GetByTextOptions().setExact(true);
  }

  private static void press(Page page, String name) {
    page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name)).last().click();
    wait(page, 400);
  }

  /** It may run on from the page before. */
  private static void running(Page page) {
    Locator hold =
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Hold").setExact(true));
    Processes.waitFor(
        "a running measurement",
        () -> {
          if (hold.isVisible()) {
            return true;
          }
          page.evaluate(
              "() => [...document.querySelectorAll('button')]"
                  + ".find(b => ['Start', 'Resume'].includes(b.textContent.trim()))?.click()");
          return false;
        });
  }

  private static void finding(Page page) {
    page.getByTestId("finding").waitFor(new Locator.WaitForOptions().setTimeout(60_000));
    wait(page, 800);
  }

  private void emissions(Processes rovnik, Page page) {
    page.navigate(rovnik.url() + "/spectrum");
    running(page);
    type(page, "span 4M");
    type(page, "459M");
    type(page, "average 64");
    menu(page, "Add a trace", "highest hold");
    page.keyboard().press("l");
    wait(page, 2500);
    page.keyboard().press("m");
    page.keyboard().press("d");
    page.keyboard().press("w");
    finding(page);
    press(page, "Keep as a run");
    press(page, "Back to the live view");
    page.keyboard().press("l");
    page.getByLabel("Take 1: highest hold away").click();
    type(page, "span 200k");
    type(page, "458.525M");
    rovnik.control(page, 2, "output", "on");
    rovnik.control(page, 2, "signal", "data");
    type(page, "span 400k");
    menu(page, "Add a reading", "Occupied bandwidth ...");
    page.getByLabel("Widest allowed (Hz)").fill("65k");
    press(page, "Read it");
    menu(page, "Add a reading", "Emission mask ...");
    press(page, "Judge by it");
    type(page, "average 100");
    wait(page, 2500);
    shoot(page, "spectrum-mask");
    type(page, "keep data with mask");
    wait(page, 1000);
    page.navigate(rovnik.url() + "/runs?all=1");
    page.getByTestId("run-grid").waitFor();
    wait(page, 800);
    shoot(page, "run-grid");
    rovnik.control(page, 2, "output", "on");
    rovnik.control(page, 2, "signal", "carrier");
  }

  private static void plug(Processes rovnik, Page page, int holder, String part) {
    rovnik.control(page, holder, "part", part);
  }

  private static void field(Page page, String label, String value) {
    page.getByLabel(label, new Page.GetByLabelOptions().setExact(true)).first().fill(value);
    page.keyboard().press("Enter");
    wait(page, 300);
  }

  private static void job(Page page, String name) {
    page.locator("input[aria-label=Job]").click();
    page.getByText(name, exactly()).click();
    wait(page, 800);
  }

  /** All standards in turn. */
  private void calibrate(Processes rovnik, Page page) {
    press(page, "Calibrate");
    press(page, "Begin");
    page.getByTestId("step-OPEN_1").waitFor();
    Locator off = page.getByText("the part is off, only standards");
    if (off.isVisible()) {
      off.click();
    }
    String[] steps = {"Open 1", "Short 1", "Load 1", "Open 2", "Short 2", "Load 2", "Through 0"};
    for (String s : steps) {
      String what = s.substring(0, s.length() - 2);
      boolean through = what.equals("Through");
      String key =
          through
              ? "THROUGH"
              : what.toUpperCase(java.util.Locale.ROOT) + "_" + s.charAt(s.length() - 1);
      Locator row = page.getByTestId("step-" + key);
      plug(rovnik, page, 9, what);
      row.locator("button").click();
      row.getByText("measured").waitFor();
    }
    press(page, "Keep and use it");
  }

  private void networks(Processes rovnik, Page page) {
    page.navigate(rovnik.url() + "/network");
    job(page, "Parts in store");
    page.locator("[data-only='Network analyzer']").click();
    wait(page, 800);
    field(page, "Start", "448M");
    field(page, "Stop", "469M");
    calibrate(rovnik, page);
    plug(rovnik, page, 9, "Cavity filter");
    page.keyboard().press("Space");
    type(page, "band from 457M");
    type(page, "band to 460M");
    type(page, "marker 458.5M");
    type(page, "marker 456.6M");
    wait(page, 1200);
    shoot(page, "network-filter");
    type(page, "clear");

    field(page, "Start", "1M");
    field(page, "Stop", "1G");
    field(page, "Points", "1000");
    calibrate(rovnik, page);
    plug(rovnik, page, 9, "Feeder");
    type(page, "distance");
    page.getByTestId("faults").waitFor();
    page.getByLabel("Response").click();
    page.getByText("impulse", exactly()).click();
    page.getByLabel("gate", new Page.GetByLabelOptions().setExact(true))
        .click(new Locator.ClickOptions().setForce(true));
    field(page, "Gate from", "16");
    field(page, "Gate to", "19");
    wait(page, 1500);
    shoot(page, "network-distance");
    type(page, "distance");
    page.keyboard().press("Space");
  }
}
