import { CrewEntryJson } from '@/contracts/crew';
import type { CrewEntry } from '@/core/plan/crew';
import type { Db } from '../db/connect';

/** The entries about people's time, by the person's number, oldest first. */
export const loadCrewEntries = async (db: Db): Promise<ReadonlyMap<number, readonly CrewEntry[]>> => {
  const rows = await db.selectFrom('crew_entry').select(['person_id', 'entry_json']).orderBy('id').execute();
  const of = new Map<number, CrewEntry[]>();
  for (const r of rows)
    of.set(r.person_id, [...(of.get(r.person_id) ?? []), CrewEntryJson.parse(JSON.parse(r.entry_json))]);
  return of;
};

export const insertCrewEntry = async (
  db: Db,
  e: { readonly personId: number; readonly entry: CrewEntry; readonly at: string; readonly by: string },
): Promise<number> => {
  const { id } = await db
    .insertInto('crew_entry')
    .values({ person_id: e.personId, at: e.at, by_initials: e.by, entry_json: JSON.stringify(e.entry) })
    .returning('id')
    .executeTakeFirstOrThrow();
  return id;
};
