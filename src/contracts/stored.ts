import type { z } from 'zod';

/** Columns that say the same thing a thousand times (no detail, the same use, the same air) are read once. */
const MOST_HELD = 4000;
const LONGEST_HELD = 600;
const held = new WeakMap<z.ZodType, Map<string, unknown>>();

const frozen = <T>(value: T): T => {
  if (typeof value === 'object' && value !== null && !Object.isFrozen(value)) {
    Object.freeze(value);
    Object.values(value).forEach(frozen);
  }
  return value;
};

/**
 * Parses a JSON column by its schema; throws when it does not fit, which is a bug of ours. The value is shared by all
 * readers of the same text and must not be changed.
 */
export const readStored = <T>(schema: z.ZodType<T>, json: string): T => {
  if (json.length > LONGEST_HELD) return schema.parse(JSON.parse(json));
  const known = held.get(schema) ?? new Map<string, unknown>();
  held.set(schema, known);
  if (known.has(json)) return known.get(json) as T;
  const read = frozen(schema.parse(JSON.parse(json)));
  if (known.size >= MOST_HELD) known.clear();
  known.set(json, read);
  return read;
};
