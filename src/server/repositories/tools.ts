import { readStored } from '@/contracts/stored';
import { ToolJson } from '@/contracts/tools';
import type { BondingReading } from '@/core/for-work/bonding';
import type { OwnTool } from '@/core/for-work/own-tool';
import type { Db } from '../db/connect';

interface Signed {
  readonly at: string;
  readonly by: string;
}

/** The yard's own tools, the newest of each key, in the order they were first entered. */
export const loadTools = async (db: Db): Promise<readonly OwnTool[]> => {
  const rows = await db.selectFrom('tool_entry').selectAll().orderBy('id').execute();
  return [...new Map(rows.map((r) => [r.key, readStored(ToolJson, r.tool_json)])).values()];
};

export const insertTool = async (db: Db, tool: OwnTool, { at, by }: Signed): Promise<number> => {
  const { id } = await db
    .insertInto('tool_entry')
    .values({ key: tool.key, tool_json: JSON.stringify(tool), at, by_initials: by })
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
};

/** The continuity readings of each machine, by the day they were taken, oldest first; of one machine when it is named. */
export const loadBonding = async (
  db: Db,
  machineId?: number,
): Promise<ReadonlyMap<number, readonly BondingReading[]>> => {
  const rows = await db
    .selectFrom('bonding_reading')
    .selectAll()
    .$if(machineId !== undefined, (q) => q.where('machine_id', '=', machineId ?? 0))
    .orderBy('measured_on')
    .orderBy('id')
    .execute();
  const made = new Map<number, BondingReading[]>();
  for (const r of rows)
    made.set(r.machine_id, [
      ...(made.get(r.machine_id) ?? []),
      { id: r.id, on: r.measured_on, ohm: r.ohm, between: r.between_text, at: r.at, by: r.by_initials },
    ]);
  return made;
};

export const insertBonding = async (
  db: Db,
  machineId: number,
  { on, ohm, between, at, by }: Omit<BondingReading, 'id'>,
): Promise<number> => {
  const { id } = await db
    .insertInto('bonding_reading')
    .values({ machine_id: machineId, measured_on: on, ohm, between_text: between, at, by_initials: by })
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
};
