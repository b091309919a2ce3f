import type { z } from 'zod';

/** What a JSON column holds, read into its shape; throws when it is not what the schema says, which is a bug of ours. */
export const readStored = <T>(schema: z.ZodType<T>, json: string): T => schema.parse(JSON.parse(json));
