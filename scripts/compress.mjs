// Compresses what a build made for browsers, once and hard, so that serving it costs nothing.
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { brotliCompressSync, constants, gzipSync } from 'node:zlib';

const KINDS = /\.(js|css|svg|html|json|txt)$/;
/** Smaller files gain nothing. */
const LEAST_BYTES = 1024;

for (const entry of readdirSync('dist/client', { withFileTypes: true, recursive: true })) {
  if (!entry.isFile() || !KINDS.test(entry.name)) continue;
  const file = join(entry.parentPath, entry.name);
  const bytes = readFileSync(file);
  if (bytes.length < LEAST_BYTES) continue;
  writeFileSync(`${file}.gz`, gzipSync(bytes, { level: 9 }));
  writeFileSync(
    `${file}.br`,
    brotliCompressSync(bytes, { params: { [constants.BROTLI_PARAM_QUALITY]: constants.BROTLI_MAX_QUALITY } }),
  );
}
