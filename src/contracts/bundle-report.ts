import { z } from 'zod';
import { BUNDLE_TABLE_NAMES, type BundleTable } from './bundle';
import { ClientId, Initials } from './requests';

const TableName = z.enum(BUNDLE_TABLE_NAMES as [BundleTable, ...BundleTable[]]);

/** The result of an import or of its dry run. */
export const ImportReport = z.strictObject({
  id: z.int(),
  scope: z.discriminatedUnion('kind', [
    z.strictObject({ kind: z.literal('yard') }),
    z.strictObject({ kind: z.literal('machine'), tag: z.string() }),
  ]),
  /** Rows that are new here, by table. */
  added: z.partialRecord(TableName, z.int()),
  /** Rows that were here already. */
  known: z.int(),
  /** Machines that were edited elsewhere; their new form was imported. */
  taken: z.array(z.string()),
  /** Records that are here already and differ: they were not changed. */
  kept: z.array(z.strictObject({ table: TableName, name: z.string() })),
});
export type ImportReport = z.infer<typeof ImportReport>;

/** Names an import: the sender, the action, and whether it is a dry run. */
export const ImportAsk = z.strictObject({ clientId: ClientId, by: Initials, dryRun: z.boolean() });
export type ImportAsk = z.infer<typeof ImportAsk>;

/** The same, in an address. */
export const ImportAskQuery = ImportAsk.extend({ dryRun: z.enum(['yes', 'no']).transform((v) => v === 'yes') });
