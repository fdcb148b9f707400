package rovnik.server;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import javax.imageio.ImageIO;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** The photograph of a board: kept, sized, given back as it was, refused. */
public class BoardApiTest extends BuoyBench {
  private static byte[] image(String format, int width, int height) throws IOException {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    ImageIO.write(new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB), format, out);
    return out.toByteArray();
  }

  private String board(String rest) {
    return "/api/jobs/" + job + "/board" + rest;
  }

  private HttpResponse<String> take(byte[] file, String width) {
    String edge = "--rovnik-edge\r\n";
    byte[] head =
        (edge
                + "Content-Disposition: form-data; name=\"widthMetres\"\r\n\r\n"
                + width
                + "\r\n"
                + edge
                + "Content-Disposition: form-data; name=\"file\"; filename=\"board\"\r\n\r\n")
            .getBytes(StandardCharsets.UTF_8);
    byte[] tail = "\r\n--rovnik-edge--\r\n".getBytes(StandardCharsets.UTF_8);
    return server.send(
        server
            .request(board(""))
            .header("Content-Type", "multipart/form-data; boundary=rovnik-edge")
            .PUT(HttpRequest.BodyPublishers.ofByteArrays(Arrays.asList(head, file, tail))));
  }

  @Test
  public void aPhotographIsKeptAsItIs() throws IOException {
    assertEquals(server.get(board("")).statusCode(), 204);
    assertEquals(server.get(board("/picture")).statusCode(), 404);
    byte[] png = image("png", 400, 300);
    JsonNode taken = server.json(take(png, "0.1"), 200);
    assertEquals(taken.get("widthMetres").asDouble(), 0.1);
    assertEquals(taken.get("heightMetres").asDouble(), 0.075, 1e-12);
    assertEquals(server.bytes(board("/picture")), png);
    assertEquals(
        server.get(board("/picture")).headers().firstValue("Content-Type").orElse(""), "image/png");

    // Another one takes its place; a size that is mended keeps its shape.
    byte[] jpeg = image("jpg", 200, 200);
    assertEquals(server.json(take(jpeg, "0.08"), 200).get("heightMetres").asDouble(), 0.08);
    assertEquals(server.bytes(board("/picture")), jpeg);
    JsonNode wider = server.json(server.send("PATCH", board(""), "{\"widthMetres\":0.12}"), 200);
    assertEquals(wider.get("heightMetres").asDouble(), 0.12, 1e-12);
    assertEquals(server.json(server.get(board("")), 200), wider);

    server.json(server.send("DELETE", board(""), ""), 204);
    assertEquals(server.get(board("")).statusCode(), 204);
    assertEquals(server.send("DELETE", board(""), "").statusCode(), 404);
    assertEquals(server.send("PATCH", board(""), "{\"widthMetres\":0.12}").statusCode(), 404);
  }

  @Test
  public void whatIsNoPhotographChangesNothing() throws IOException {
    byte[] png = image("png", 40, 30);
    server.json(take(png, "0.1"), 200);
    byte[] cut = Arrays.copyOf(png, 20);
    Object[][] bad = {
      {"file", "<svg xmlns='http://www.w3.org/2000/svg'/>".getBytes(StandardCharsets.UTF_8), "0.1"},
      {"file", image("bmp", 4, 4), "0.1"},
      {"file", cut, "0.1"},
      {"file", new byte[0], "0.1"},
      {"file", image("png", 10_001, 2), "0.1"},
      {"widthMetres", png, "0"},
      {"widthMetres", png, "-1"},
      {"widthMetres", png, "3"},
      {"widthMetres", png, "NaN"},
      {"widthMetres", png, ""},
    };
    for (Object[] one : bad) {
      HttpResponse<String> reply = take((byte[]) one[1], (String) one[2]);
      assertEquals(reply.statusCode(), 400, one[0] + ": " + reply.body());
      assertTrue(reply.body().contains("\"field\":\"" + one[0] + "\""), reply.body());
    }
    assertEquals(server.bytes(board("/picture")), png);
    assertEquals(server.get("/api/jobs/999/board").statusCode(), 404);
  }
}
