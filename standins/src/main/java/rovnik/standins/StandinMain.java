package rovnik.standins;

import java.io.IOException;

/** Runs the stand-ins in a process of their own until it is ended. */
public final class StandinMain {
  private StandinMain() {}

  /**
   * @param args {@code --base-port N} (default 5601), {@code --seed N} (default 1)
   */
  public static void main(String[] args) throws InterruptedException {
    int basePort = 5601;
    long seed = 1;
    for (int i = 0; i + 1 < args.length; i += 2) {
      switch (args[i]) {
        case "--base-port" -> basePort = Integer.parseInt(args[i + 1]);
        case "--seed" -> seed = Long.parseLong(args[i + 1]);
        default -> {
          System.err.println("Unknown option " + args[i] + "; use --base-port N or --seed N.");
          System.exit(2);
        }
      }
    }
    try (Bench bench = new Bench(basePort, seed, true)) {
      System.out.println("Stand-ins on 127.0.0.1, ports " + bench.ports());
      Thread.currentThread().join();
    } catch (IOException e) {
      System.err.println(
          "Ports " + basePort + " and up of 127.0.0.1 cannot be used: " + e.getMessage() + ".");
      System.exit(1);
    }
  }
}
