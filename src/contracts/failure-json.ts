import { z } from 'zod';
import type { FailureCode } from '@/core/failure/failure';

/** A failure as it crosses a boundary: to a worker's page, or into the record of an action. */
export const FailureJson = z.strictObject({
  code: z.custom<FailureCode>((code) => typeof code === 'string'),
  path: z.string(),
  facts: z.record(z.string(), z.union([z.string(), z.number()])),
});
