// Writes a Brotli copy beside each file of the build that is text; the server hands it to browsers
// that take it. The fonts are compressed already.
import { readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { extname, join } from "node:path";
import { brotliCompressSync, constants } from "node:zlib";

const TEXT = new Set([".js", ".css", ".html", ".svg"]);
const folders = ["dist"];
for (const folder of folders) {
  for (const name of readdirSync(folder)) {
    const path = join(folder, name);
    if (statSync(path).isDirectory()) {
      folders.push(path);
    } else if (TEXT.has(extname(name))) {
      const quality = { [constants.BROTLI_PARAM_QUALITY]: constants.BROTLI_MAX_QUALITY };
      writeFileSync(`${path}.br`, brotliCompressSync(readFileSync(path), { params: quality }));
    }
  }
}
