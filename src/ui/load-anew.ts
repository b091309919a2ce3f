import type { ZodType } from 'zod';

/** The present records in their shape; null when they cannot be loaded. Never throws. */
export const loadAnew = async <T>(url: string, shape: ZodType<T>): Promise<T | null> => {
  try {
    const read = shape.safeParse(await (await fetch(url)).json());
    return read.success ? read.data : null;
  } catch {
    return null;
  }
};
