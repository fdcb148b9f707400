package rovnik.server.desk;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rovnik.core.Refusal;

/**
 * An arrangement of tiles.
 *
 * @param count tiles that are shown: 1, 2, 4 or 6
 * @param tiles at least as many, in the order of reading
 */
@Schema(name = "Tiles")
public record Tiles(int count, List<Tile> tiles) {
  private static final Set<Integer> COUNTS = Set.of(1, 2, 4, 6);
  private static final int MOST = 6;
  private static final int LONGEST = 60;

  /**
   * One tile.
   *
   * @param what it shows, such as "spectrum", "S21" or "table:lines"
   * @param view how, such as "curve" or "chart"
   */
  @Schema(name = "Tile")
  public record Tile(String what, String view) {}

  /**
   * These tiles, if they can be shown.
   *
   * @throws Refusal if not
   */
  public static Tiles checked(@Nullable Tiles wanted) {
    if (wanted == null || wanted.tiles == null) {
      throw new Refusal("tiles", "An arrangement needs a count and its tiles.");
    }
    if (!COUNTS.contains(wanted.count)) {
      throw new Refusal("count", "A desk shows 1, 2, 4 or 6 tiles.");
    }
    if (wanted.tiles.size() < wanted.count || wanted.tiles.size() > MOST) {
      throw new Refusal(
          "tiles", "Say what each of the " + wanted.count + " tiles shows, 6 at most.");
    }
    for (Tile t : wanted.tiles) {
      if (wrong(t.what) || wrong(t.view)) {
        throw new Refusal("tiles", "A tile has a \"what\" and a \"view\" of 1 to 60 letters.");
      }
    }
    return wanted;
  }

  private static boolean wrong(@Nullable String word) {
    return word == null || word.isBlank() || word.length() > LONGEST;
  }
}
