import { z } from 'zod';
import { COPY_REASONS } from '@/core/record/rotation';
import { ClientId, Initials } from './requests';

/** Facts written beside a backup after it has been checked. */
export const CopyFactsJson = z.strictObject({
  format: z.literal(1),
  at: z.iso.datetime(),
  why: z.enum(COPY_REASONS),
  bytes: z.int().min(0),
  sha256: z.string().regex(/^[0-9a-f]{64}$/),
  /** The newest migration it has. */
  schema: z.string(),
  /** Rows of each table of records. */
  rows: z.record(z.string(), z.int().min(0)),
});
export type CopyFacts = z.infer<typeof CopyFactsJson>;

/** The name of a copy on the list. */
export const RestoreBody = z.strictObject({ clientId: ClientId, by: Initials, name: z.string().min(1).max(200) });
export type RestoreBody = z.infer<typeof RestoreBody>;

export const TakeCopyBody = z.strictObject({ clientId: ClientId, by: Initials });
export type TakeCopyBody = z.infer<typeof TakeCopyBody>;
