import type { z } from 'zod';
import { failureOfIssue } from '@/contracts/issues';
import { fail, failure, ok, type Result } from '@/core/failure/failure';

export const MAX_BODY_BYTES = 128 * 1024;
/** A bundle that a browser sends; a larger one is taken in at the command line. */
/** A spreadsheet of as many rows as one may have. */
export const MAX_SHEET_BYTES = 12 * 2 ** 20;
export const MAX_BUNDLE_BYTES = 64 * 2 ** 20;

/** Reads at most this many bytes, also with a false or missing content-length. */
export const readBytes = async (request: Request, most: number): Promise<Result<Uint8Array>> => {
  const tooLarge = () => fail(failure('request.too-large', '', { most }));
  if (Number(request.headers.get('content-length') ?? '0') > most) return tooLarge();
  if (!request.body) return ok(new Uint8Array());
  const chunks: Uint8Array[] = [];
  let size = 0;
  const reader = request.body.getReader();
  for (let next = await reader.read(); !next.done; next = await reader.read()) {
    size += next.value.byteLength;
    if (size > most) {
      // Not awaited: a sender that never stops must not hold the answer back.
      void reader.cancel();
      return tooLarge();
    }
    chunks.push(next.value);
  }
  return ok(Buffer.concat(chunks));
};

/** The body as text, of at most the size a form of ours can have. */
export const readText = async (request: Request, most = MAX_BODY_BYTES): Promise<Result<string>> => {
  const bytes = await readBytes(request, most);
  return bytes.ok ? ok(new TextDecoder().decode(bytes.value)) : bytes;
};

const parseJson = (text: string): Result<unknown> => {
  try {
    return ok(JSON.parse(text) as unknown);
  } catch {
    return fail(failure('request.malformed'));
  }
};

/** Parses a request's JSON body by its schema, or returns the failures. */
export const readJson = async <T>(
  request: Request,
  schema: z.ZodType<T>,
  most = MAX_BODY_BYTES,
): Promise<Result<T>> => {
  if (!/^application\/json\b/i.test(request.headers.get('content-type') ?? ''))
    return fail(failure('request.not-json'));
  const text = await readText(request, most);
  if (!text.ok) return text;
  const json = parseJson(text.value);
  if (!json.ok) return json;
  const parsed = schema.safeParse(json.value);
  return parsed.success ? ok(parsed.data) : fail(...parsed.error.issues.slice(0, 20).map(failureOfIssue));
};
