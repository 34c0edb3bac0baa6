// Packs what the build made for browsers, as small as it gets: it is packed once and sent often.
import { readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { promisify } from "node:util";
import { brotliCompress, constants } from "node:zlib";

const compress = promisify(brotliCompress);
const made = join(import.meta.dirname, "../apps/studio/.next/static");

/** Writes a packed copy, `*.br`, beside each file that is worth it. */
export async function packBuilt() {
  const files = readdirSync(made, { recursive: true, withFileTypes: true }).filter(({ name }) => /\.(js|css|wasm)$/.test(name));
  await Promise.all(
    files.map(async ({ parentPath, name }) => {
      const bytes = readFileSync(join(parentPath, name));
      const params = { [constants.BROTLI_PARAM_QUALITY]: constants.BROTLI_MAX_QUALITY, [constants.BROTLI_PARAM_SIZE_HINT]: bytes.length };
      writeFileSync(join(parentPath, `${name}.br`), await compress(bytes, { params }));
    }),
  );
}
