import { loadSite } from '../../repositories/site';
import type { Context } from '../yard/user-action';

/** Proof that the database answers. */
export const health = async ({ db }: Context): Promise<{ readonly status: 'ready'; readonly site: string }> => ({
  status: 'ready',
  site: (await loadSite(db)).name,
});
