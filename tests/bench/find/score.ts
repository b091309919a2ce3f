import type { Repair } from '@/core/diagnose/repair';
import { trueFlow } from './true-machine';
import { left, standing } from './watch';
import type { TrueCase } from './true-case';
import type { Ending } from './walk-case';

const SILENT = new Set(['torn', 'misseated', 'missing', 'reversed', 'spentGas']);
/** Below this share of its own sound flow a user feels it. */
const FELT_BELOW = 0.8;

export const endingOf = (c: TrueCase, repairs: readonly Repair[]): Ending => {
  const still = left(c, repairs);
  const ratio = trueFlow(standing(c, { out: [], repairs }), 'toolEnd') / trueFlow(c.machine, 'toolEnd');
  const silent = still.some((f) => SILENT.has(f.kind) || (f.kind === 'leakingSeal' && f.past > 0));
  const rest = still.filter((f) => !(SILENT.has(f.kind) || (f.kind === 'leakingSeal' && f.past > 0)));
  const felt = ratio < FELT_BELOW || rest.some((f) => f.kind === 'brushJammed');
  return { felt, root: !felt && rest.length > 0, silent };
};

/** A wrong closing costs this much in the done price. */
export const WRONG_MINUTES = 60;
export const isWrong = (e: Ending): boolean => e.felt || e.root || e.silent;
