import { z } from 'zod';
import { DATE_ORDERS } from '@/core/sheet/read';
import { SHEET_KINDS } from '@/core/sheet/fields';
import { ClientId, Initials } from './requests';

export const SheetKindName = z.enum(SHEET_KINDS);

/** The most rows of one spreadsheet; a longer one is split. */
export const MOST_SHEET_ROWS = 5000;
export const MOST_SHEET_COLUMNS = 60;
const Cell = z.string().max(2000);

/** A spreadsheet as the page read it: its rows, and the field of each column. */
export const SheetBody = z.strictObject({
  clientId: ClientId,
  by: Initials,
  /** True: only check it. */
  dryRun: z.boolean(),
  kind: SheetKindName,
  name: z.string().trim().max(120),
  order: z.enum(DATE_ORDERS),
  /** For tests: a person states that they were taken at full speed, with the bleed closed and all conditions met. */
  vouched: z.boolean(),
  columns: z
    .array(z.strictObject({ field: z.string().max(40).nullable(), unit: z.string().max(20).nullable() }))
    .max(MOST_SHEET_COLUMNS),
  rows: z.array(z.array(Cell).max(MOST_SHEET_COLUMNS)).min(1).max(MOST_SHEET_ROWS),
});
export type SheetBody = z.infer<typeof SheetBody>;

export const SheetAnswer = z.strictObject({ id: z.int(), rows: z.int() });
export type SheetAnswer = z.infer<typeof SheetAnswer>;

export const UndoSheetBody = z.strictObject({ clientId: ClientId, by: Initials, id: z.int().positive() });
export type UndoSheetBody = z.infer<typeof UndoSheetBody>;
