// Writes a gzip and a brotli form beside every text asset, so that the server never compresses on the fly.
import { readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { brotliCompressSync, gzipSync } from "node:zlib";

const folder = new URL("../../src/ohmcensus/web/static/", import.meta.url).pathname;
const texts = /\.(js|css|html|svg|json)$/;

function* files(at) {
  for (const name of readdirSync(at)) {
    const path = join(at, name);
    if (statSync(path).isDirectory()) yield* files(path);
    else if (texts.test(name)) yield path;
  }
}

let script = 0;
for (const path of files(folder)) {
  const bytes = readFileSync(path);
  const zipped = gzipSync(bytes, { level: 9 });
  writeFileSync(`${path}.gz`, zipped);
  writeFileSync(`${path}.br`, brotliCompressSync(bytes));
  if (path.endsWith(".js")) script += zipped.length;
}
process.stdout.write(`script, gzip: ${(script / 1000).toFixed(1)} kB\n`);
