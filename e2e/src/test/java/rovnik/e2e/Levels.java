package rovnik.e2e;

import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import com.google.gson.JsonParser;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.RequestOptions;

/** What jobs say of the levels of their sources. */
final class Levels {
  private Levels() {}

  /** A signal with peaks: the job says that its source gives less than it could. */
  static void set(Page page, String url, String jobName, double outputLevelDbm) {
    String jobs = url + "/api/jobs";
    for (JsonElement j : JsonParser.parseString(page.request().get(jobs).text()).getAsJsonArray()) {
      JsonObject of = j.getAsJsonObject();
      if (of.get("name").getAsString().equals(jobName)) {
        JsonObject path = of.getAsJsonObject("path");
        JsonObject source = path.getAsJsonArray("elements").get(0).getAsJsonObject();
        source.addProperty("outputLevelDbm", outputLevelDbm);
        page.request()
            .put(
                jobs + "/" + of.get("id").getAsLong() + "/path",
                RequestOptions.create()
                    .setHeader("Content-Type", "application/json")
                    .setData(path.toString()));
      }
    }
  }
}
