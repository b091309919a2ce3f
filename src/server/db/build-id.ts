import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';

/** Set by the build to the hash of its sources; undefined where the code runs from its sources. */
declare const MOORWIND_BUILD_ID: string | undefined;

/** The code that digests depend on: a changed line in it makes every digest again. */
const MADE_FROM = ['src/core', 'src/contracts', 'src/server'];

const filesOf = (folder: string): readonly string[] =>
  existsSync(folder)
    ? readdirSync(folder, { withFileTypes: true, recursive: true })
        .filter((f) => f.isFile())
        .map((f) => join(f.parentPath, f.name))
        .sort()
    : [];

/** Returns 16 hex digits of the sources below a checkout; the same code gives the same digits in any folder. */
export const sourceHash = (root: string): string => {
  const hash = createHash('sha256');
  for (const file of MADE_FROM.flatMap((folder) => filesOf(join(root, folder))))
    hash.update(relative(root, file)).update(readFileSync(file));
  return hash.digest('hex').slice(0, 16);
};

let known: string | null = null;

/** The id of this build: stamped in by the build, else the hash of the sources this file belongs to. */
export const buildId = (): string =>
  typeof MOORWIND_BUILD_ID === 'string'
    ? MOORWIND_BUILD_ID
    : (known ??= sourceHash(fileURLToPath(new URL('../../..', import.meta.url))));
