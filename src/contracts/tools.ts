import { z } from 'zod';
import { TOOL_KEYS } from '@/core/for-work/tools';
import { Day } from './day';
import { ClientId, Initials } from './requests';

// The yard's own tools, and the continuity readings of its machines.

/** A key of an own tool: made by the server, so it never equals a shipped kind. */
export const OWN_TOOL_KEY = /^own[0-9a-f]{8}$/;

const said = {
  name: z.string().trim().min(2).max(60),
  like: z.enum(TOOL_KEYS),
  sizeM: z.number().min(0.005).max(1).nullable(),
  airM3s: z.number().min(0.0005).max(2).nullable(),
  amps: z.number().min(0.1).max(63).nullable(),
  retired: z.boolean(),
};
export const ToolJson = z.strictObject({ key: z.string().regex(OWN_TOOL_KEY), ...said });

export const ToolBody = z.strictObject({
  clientId: ClientId,
  by: Initials,
  /** null for a new one. */
  key: z.string().regex(OWN_TOOL_KEY).nullable(),
  ...said,
});
export type ToolBody = z.infer<typeof ToolBody>;

export const BondingBody = z.strictObject({
  clientId: ClientId,
  by: Initials,
  on: Day,
  /** null where the meter read open. */
  ohm: z.number().min(0).max(1e12).nullable(),
  between: z.string().trim().min(2).max(120),
});
export type BondingBody = z.infer<typeof BondingBody>;
