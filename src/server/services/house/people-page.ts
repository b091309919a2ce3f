import { type PaperGap, paperGaps } from '@/core/people/person';
import {
  type AccessKey,
  type AuditLine,
  loadAudit,
  loadKeys,
  loadPeople,
  type PersonOnFile,
} from '../../repositories/people';
import type { Context } from '../yard/user-action';

export interface PeoplePage {
  readonly people: readonly (PersonOnFile & { readonly gaps: readonly PaperGap[] })[];
  readonly keys: readonly AccessKey[];
}

/** Everybody on file with missing proofs, and the keys of programs. */
export const loadPeoplePage = async ({ db }: Pick<Context, 'db'>, today: string): Promise<PeoplePage> => ({
  people: (await loadPeople(db)).map((p) => ({ ...p, gaps: paperGaps(p.person, today) })),
  keys: await loadKeys(db),
});

/** A part of the access log, newest first. */
export const loadAuditPage = (
  { db }: Pick<Context, 'db'>,
  part: { readonly from: number; readonly most: number },
): Promise<{ readonly lines: readonly AuditLine[]; readonly total: number }> => loadAudit(db, part);
