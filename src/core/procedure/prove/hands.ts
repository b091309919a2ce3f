import type { Step } from '../step';
import type { Worn } from '../violation';
import { contained, containersOpen, guarded, type Walk } from './world';

const NEEDED: Record<'plain' | 'controlled' | 'contained', readonly Worn[]> = {
  plain: [],
  controlled: ['respirator', 'gloves'],
  contained: ['respirator', 'coverall', 'gloves'],
};

/** Blames a step that meets dust without the question, the protection of its level, or a closed area in contained dust. */
export const protectedNow = (walk: Walk): void => {
  const { world, level, blame } = walk;
  if (!world.asked) blame({ kind: 'hazardNotAsked' });
  for (const need of NEEDED[level]) if (!world.worn.has(need)) blame({ kind: 'unprotected', need });
  if (contained(walk) && world.area === 'open') blame({ kind: 'areaOpen' });
  if (world.undressed && guarded(walk)) blame({ kind: 'dustAfterUndressing' });
};

/** Hands in a machine: cut off from its feed, or in the one state its maker built for a change while it runs. */
export const handsIn = (walk: Walk, step: Step): void => {
  const { world, procedure, blame } = walk;
  protectedNow(walk);
  const { school } = procedure;
  if (school === 'off') {
    if (step.run !== 'off') blame({ kind: 'handsInRun' });
    if (world.fed) blame({ kind: 'notIsolated' });
    return;
  }
  if (step.run !== school) blame({ kind: 'wrongState' });
};

/** Before a container opens: embers looked for where fine dust burns, dust settled, the inlet stopped in the worst dust. */
export const beforeOpening = (walk: Walk): void => {
  const { world, facts, procedure, blame } = walk;
  if (facts.emberLook && !world.embersSeen) blame({ kind: 'embers' });
  if (facts.emberLook && !world.done.has('cleanCanister')) blame({ kind: 'missing', step: 'cleanCanister' });
  if (facts.emberLook && !world.settled) blame({ kind: 'notSettled' });
  if (facts.line === 'duct' && world.inlet !== 'stopped') blame({ kind: 'inletOpen' });
  const drawn = procedure.school === 'running' || world.port === 'connected';
  if (contained(walk) && world.inlet !== 'stopped' && !drawn) blame({ kind: 'inletOpen' });
  if (contained(walk) && world.hoseEnd === 'open') blame({ kind: 'hoseOpen' });
};

/** A proof or a job run: with feed, shut, latched, every part in, and an air inlet open. */
export const runsShut = (walk: Walk, { letIn }: { readonly letIn: boolean }): void => {
  const { world, blame } = walk;
  if (!world.fed) blame({ kind: 'noFeed' });
  const [opening] = containersOpen(world);
  if (opening) blame({ kind: 'runWhileOpen', opening });
  if (world.unlatched > 0) blame({ kind: 'runUnlatched' });
  if (letIn && world.inlet === 'stopped') blame({ kind: 'runBlind' });
  if (world.inlet === 'bare') blame({ kind: 'inletOpen' });
  if (world.loose.size > 0) blame({ kind: 'fixingLoose' });
  if (world.above !== 'in') blame({ kind: 'stackOpen' });
  for (const [stage, where] of world.old)
    if (where !== 'in' && where !== 'closed' && world.fresh.get(stage) !== 'in') blame({ kind: 'runWithout' });
};
