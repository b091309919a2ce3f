import { z } from 'zod';

/**
 * One line of a streaming meter, as newline-delimited JSON. Open: a bridge of any real meter can send it.
 * `value` null is a dropped reading; the line still says that the meter is alive.
 */
export const MeterLine = z.strictObject({
  t: z.iso.datetime({ precision: 3 }),
  quantity: z.enum(['velocity', 'flow', 'pressure', 'count', 'voltage', 'current']),
  value: z.number().nullable(),
  unit: z.string().min(1).max(12),
});
export type MeterLine = z.infer<typeof MeterLine>;

/** Parses one line; null when it cannot be read. */
export const parseMeterLine = (text: string): MeterLine | null => {
  try {
    const parsed = MeterLine.safeParse(JSON.parse(text));
    return parsed.success ? parsed.data : null;
  } catch {
    return null;
  }
};

/** Answer to a bridge: how many lines were accepted and refused. */
export const MeterPosted = z.strictObject({ accepted: z.int().min(0), refused: z.int().min(0) });
