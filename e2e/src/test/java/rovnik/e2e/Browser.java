package rovnik.e2e;

import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.options.ReducedMotion;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;

/** Debian's Chromium, headless, on loopback only. */
final class Browser implements AutoCloseable {
  private final Playwright playwright;
  private final com.microsoft.playwright.Browser browser;

  Browser() {
    playwright =
        Playwright.create(
            new Playwright.CreateOptions().setEnv(Map.of("PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD", "1")));
    browser =
        playwright
            .chromium()
            .launch(
                new BrowserType.LaunchOptions()
                    .setExecutablePath(chromium())
                    .setArgs(
                        List.of(
                            "--no-sandbox",
                            "--disable-gpu",
                            "--disable-quic",
                            "--no-first-run",
                            "--disable-background-networking",
                            "--disable-component-update",
                            "--disable-sync")));
  }

  private static Path chromium() {
    for (String place : List.of("/usr/bin/chromium", "/usr/bin/chromium-browser")) {
      if (Files.isExecutable(Path.of(place))) {
        return Path.of(place);
      }
    }
    throw new AssertionError("Chromium is missing; ./rovnik test installs it.");
  }

  /** A window that knows nothing of earlier ones, 1280 x 800. */
  Page window(String url) {
    BrowserContext context =
        browser.newContext(
            new com.microsoft.playwright.Browser.NewContextOptions()
                .setViewportSize(1280, 800)
                .setReducedMotion(ReducedMotion.REDUCE)
                .setAcceptDownloads(true));
    Page page = context.newPage();
    page.setDefaultTimeout(180_000);
    page.navigate(url);
    return page;
  }

  @Override
  public void close() {
    browser.close();
    playwright.close();
  }
}
