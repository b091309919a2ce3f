import { fail, failure, ok, type Result } from '../failure/failure';
import type { Dust } from './dust';
import { isBelow } from './level';
import { builtIn } from './register';

/**
 * Whether an edit of the register is allowed. An own dust needs a name and a word. A shipped one is never weakened: its
 * level, its refusal and its questions stay. Returns `dust.name`, `dust.lower`.
 */
export const checkDust = (dust: Dust): Result<Dust> => {
  if (dust.name.trim() === '') return fail(failure('dust.name', 'dust.name'));
  const shipped = builtIn(dust.key);
  if (!shipped) return ok(dust);
  if (isBelow(dust.level, shipped.level))
    return fail(failure('dust.lower', 'dust.level', { name: shipped.name, level: shipped.level }));
  if (shipped.refused !== null && dust.refused === null)
    return fail(failure('dust.refusal', 'dust.refused', { name: shipped.name }));
  if (dust.retired) return fail(failure('dust.shipped', 'dust.retired', { name: shipped.name }));
  const lost = shipped.synonyms.find((s) => !dust.synonyms.includes(s));
  return lost === undefined
    ? ok({ ...dust, asks: [...new Set([...shipped.asks, ...dust.asks])] })
    : fail(failure('dust.word', 'dust.synonyms', { word: lost }));
};
