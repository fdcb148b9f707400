package rovnik.server.demo;

import java.awt.Color;
import java.awt.Font;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import javax.imageio.ImageIO;

/** The logger board as it is drawn in the demo, in the place of a photograph. */
final class DemoBoard {
  static final double WIDTH_METRES = 0.09;

  private static final int PIXELS_A_MM = 10;
  private static final int WIDTH_MM = 90;
  private static final int HEIGHT_MM = 55;

  /** What is on it: middle from the left and up, width, height in mm. */
  private record Part(String name, int across, int up, int width, int height) {}

  private static final Part[] PARTS = {
    new Part("flash", 20, 15, 9, 7),
    new Part("processor", 42, 24, 14, 14),
    new Part("radio module", 74, 12, 18, 12),
    new Part("clock", 30, 42, 6, 4),
    new Part("regulator", 62, 38, 8, 8),
    new Part("battery", 12, 40, 14, 20),
  };

  private DemoBoard() {}

  static byte[] png() {
    BufferedImage image =
        new BufferedImage(
            WIDTH_MM * PIXELS_A_MM, HEIGHT_MM * PIXELS_A_MM, BufferedImage.TYPE_INT_RGB);
    Graphics2D g = image.createGraphics();
    g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
    g.scale(PIXELS_A_MM, PIXELS_A_MM);
    g.setColor(new Color(0x9db0a8));
    g.fillRect(0, 0, WIDTH_MM, HEIGHT_MM);
    g.setColor(new Color(0x8a9e96));
    for (Part a : PARTS) {
      for (Part b : PARTS) {
        g.drawLine(a.across, HEIGHT_MM - a.up, b.across, HEIGHT_MM - a.up);
        g.drawLine(b.across, HEIGHT_MM - a.up, b.across, HEIGHT_MM - b.up);
      }
    }
    for (Part p : PARTS) {
      int left = p.across - p.width / 2;
      int top = HEIGHT_MM - p.up - p.height / 2;
      g.setColor(new Color(0x4a5452));
      g.fillRoundRect(left, top, p.width, p.height, 1, 1);
      g.setColor(new Color(0xc8d0cb));
      g.setFont(new Font(Font.SANS_SERIF, Font.PLAIN, 1).deriveFont(1.7f));
      g.drawString(p.name, left, top - 0.6f);
    }
    g.dispose();
    try (ByteArrayOutputStream out = new ByteArrayOutputStream()) {
      ImageIO.write(image, "png", out);
      return out.toByteArray();
    } catch (IOException impossible) {
      throw new UncheckedIOException(impossible);
    }
  }
}
