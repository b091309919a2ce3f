import { dustParts } from '../../machine/dust-parts';
import { integrityTestsOf } from '../../machine/integrity';
import { wayOf } from '../../machine/kinds';
import type { CheckKind, StepKey } from '../step';
import { WAYS } from '../ways';
import { contained, containersOpen, guarded, type Walk } from './world';

import { GOALS } from './goals';

/** Steps that only a collector has: a bin under a cyclone in front of a vacuum has no gates and no canister. */
const OF_COLLECTORS: ReadonlySet<StepKey | CheckKind> = new Set<StepKey | CheckKind>([
  'closeGates',
  'cleanCanister',
  'openGates',
  'noEmbers',
  'ringTight',
]);
/** A collector drops its dust by its flaps while it is off, and not by pulses. */
const OF_PULSES: ReadonlySet<StepKey | CheckKind> = new Set<StepKey | CheckKind>(['pulse', 'switchOff']);

/** Whether this kind of machine has no such step in this procedure. */
const notHere = ({ facts, procedure }: Walk, what: StepKey | CheckKind): boolean => {
  if (procedure.id === 'collectorEmpty') return !facts.collector && (OF_COLLECTORS.has(what) || what === 'letSettle');
  const liner = procedure.id === 'endlessLiner' || procedure.id === 'linerSection';
  return liner && facts.emberLook && OF_PULSES.has(what);
};

const inOrder = (walk: Walk, steps: readonly { readonly key: StepKey; readonly check?: CheckKind }[]): void => {
  let from = 0;
  for (const what of GOALS[walk.procedure.id].order) {
    if (notHere(walk, what)) continue;
    const found = steps.findIndex((s, i) => i >= from && (s.key === what || s.check === what));
    if (found < 0) {
      const key = what as StepKey;
      walk.blame({ kind: 'missing', step: key });
      return;
    }
    from = found + 1;
  }
};

/** Checks that a seat asks for: by the stage's own data and the way its part sits. */
const wantedOf = (walk: Walk, i: number): readonly CheckKind[] => {
  const stage = walk.machine.stages[i];
  if (!stage) return [];
  if (stage.kind === 'hose') return ['hoseLocked'];
  const way = wayOf(walk.machine, stage);
  const { orientation, seals } = stage.spec.fit;
  return [
    ...(stage.kind === 'bag' ? (['collarStraight'] as const) : []),
    ...(orientation === 'unmarked' ? [] : (['arrowWithFlow', 'gasketSide'] as const)),
    ...(seals >= 1 ? (['seal1'] as const) : []),
    ...(seals >= 2 ? (['seal2'] as const) : []),
    ...(way ? [...WAYS[way].checks, ...WAYS[way].after] : []),
  ];
};

/** Every seat a part went into is seen; a machine that is commissioned has every seat seen. */
const seats = (walk: Walk): void => {
  const { world, machine, blame, procedure } = walk;
  const fitted = machine.stages.flatMap((_, i) =>
    world.fresh.get(i) === 'in' || (world.old.get(i) === 'in' && world.done.has('putOldBack')) ? [i] : [],
  );
  const sectioned = procedure.id === 'linerSection';
  const all =
    procedure.id === 'commissioning'
      ? machine.stages.flatMap((s, i) => (!s.missing && !s.doNotRemove && wayOf(machine, s) !== null ? [i] : []))
      : sectioned
        ? []
        : fitted;
  for (const i of all)
    for (const check of wantedOf(walk, i))
      // A tightened thread is seen when it is tightened; on a new machine nothing is undone.
      if (!world.seen.get(i)?.has(check) && !(procedure.id === 'commissioning' && check === 'threadFlush'))
        blame({ kind: 'checkMissing', check });
  if (procedure.id === 'fullSet' && machine.hasBrush) {
    if (!world.done.has('cutHair')) blame({ kind: 'missing', step: 'cutHair' });
    for (const check of ['bristlesFree', 'spinsFree'] as const)
      if (!world.checks.has(check)) blame({ kind: 'checkMissing', check });
  }
  if (procedure.id !== 'commissioning') return;
  const asks = (check: CheckKind, there: boolean): void => {
    if (there && !world.checks.has(check)) blame({ kind: 'checkMissing', check });
  };
  asks(
    'hoseLocked',
    machine.stages.some((s) => s.kind === 'hose' && !s.missing),
  );
  asks('selectorRight', machine.hoseSelectorM !== null);
};

const renewed = (walk: Walk): void => {
  const { world, procedure, blame, machine } = walk;
  const scope = procedure.stage === null ? procedure.goesWith : [procedure.stage, ...procedure.goesWith];
  for (const i of scope) {
    const stage = machine.stages[i];
    const rinsed = procedure.id === 'fullSet' && stage?.part === null && stage.kind !== 'bag';
    if (rinsed && !world.seen.get(i)?.has('preMotorClean')) blame({ kind: 'checkMissing', check: 'preMotorClean' });
    const kept = world.fresh.get(i) === 'returned' && world.old.get(i) === 'in';
    if (!rinsed && !kept && world.fresh.get(i) !== 'in') blame({ kind: 'partWithoutFate', part: 'new' });
  }
};

const parts = ({ world, blame }: Walk): void => {
  for (const where of world.fresh.values())
    if (where === 'hand' || where === 'shelf') blame({ kind: 'partWithoutFate', part: 'new' });
  for (const where of world.old.values())
    if (where !== 'away' && where !== 'in' && where !== 'closed') blame({ kind: 'partWithoutFate', part: 'old' });
};

/** Every place that holds dust is out or cleaned: nothing stays in a machine that is called clean. */
const cleared = (walk: Walk): void => {
  const { world, machine, blame } = walk;
  for (const part of dustParts(machine)) {
    const done =
      part.at === 'vessel'
        ? world.cleaned.has('vessel')
        : part.place === 'inside'
          ? world.cleaned.has(`stage ${part.stage}`)
          : world.old.get(part.stage) === 'away';
    if (!done) blame({ kind: 'dustLeft', part });
  }
};

const shut = (walk: Walk, packed: boolean): void => {
  const { world, blame } = walk;
  for (const opening of containersOpen(world)) blame({ kind: 'leftOpen', opening });
  if (world.unlatched > 0) blame({ kind: 'notLatched' });
  if (world.run !== 'off') blame({ kind: 'leftRunning' });
  if (world.second) blame({ kind: 'secondLeftOn' });
  if (world.port !== 'shut') blame({ kind: 'portOpen' });
  if (world.loose.size > 0) blame({ kind: 'fixingLoose' });
  if (world.above !== 'in') blame({ kind: 'stackOpen' });
  if (!packed && (world.inlet !== 'free' || world.hoseEnd !== 'on')) blame({ kind: 'hoseOpen' });
};

/** Blames an opened seat that guards the room and is not screened. It does not trust the procedure's own list. */
const tested = ({ world, machine, level, blame }: Walk): void => {
  const opened = machine.stages.filter(
    (_, i) => world.fresh.get(i) === 'in' || (world.old.get(i) === 'in' && world.done.has('putOldBack')),
  );
  const due = new Set(
    opened.flatMap((s) => integrityTestsOf({ machineClass: machine.machineClass, hazard: level }, s)),
  );
  for (const test of due) {
    const passed = test === 'cleanSide' ? world.screenedClean : world.screenedRunning;
    if (!passed) blame({ kind: 'notScreened', test });
  }
};

const undressed = (walk: Walk): void => {
  const { world, blame } = walk;
  if (world.worn.size > 0) blame({ kind: 'notUndressed' });
  if (world.area === 'closed') blame({ kind: 'areaLeftClosed' });
  if (contained(walk) && world.suit === 'off' && world.suitBag !== 'tied') blame({ kind: 'suitWithoutBag' });
  if (guarded(walk) && world.wipes === 'loose') blame({ kind: 'wipesLoose' });
  if (guarded(walk) && world.residue) blame({ kind: 'notWiped' });
  if (guarded(walk) && world.done.has('offRespirator') && !world.done.has('washFace'))
    blame({ kind: 'missing', step: 'washFace' });
  if (contained(walk) && world.wipes === 'tied' && !(world.secondBag && world.labelled))
    blame({ kind: 'wasteUnlabelled' });
};

/** Everything that a procedure must have reached when its last step is done. */
export const judgeEnd = (
  walk: Walk,
  steps: readonly { readonly key: StepKey; readonly check?: CheckKind }[],
  turned: boolean,
): void => {
  const { world, procedure, blame } = walk;
  const goal = GOALS[procedure.id];
  if (!world.asked) blame({ kind: 'hazardNotAsked' });
  if (!turned) inOrder(walk, steps);
  if (goal.renews === 'own') renewed(walk);
  seats(walk);
  parts(walk);
  shut(walk, goal.ends === 'packed');
  if (goal.ends === 'ready') {
    if (!world.ran) blame({ kind: 'notRun' });
    if (!world.measured) blame({ kind: 'notMeasured' });
    if (walk.facts.collector && !world.checks.has('ringTight')) blame({ kind: 'checkMissing', check: 'ringTight' });
  }
  const gauge =
    walk.facts.shows.gauge ||
    (procedure.stage !== null && walk.machine.stages[procedure.stage]?.spec.fit.gaugePa !== null);
  if (procedure.id === 'purge' && gauge && !world.done.has('readGauge')) blame({ kind: 'missing', step: 'readGauge' });
  if (goal.clears) cleared(walk);
  tested(walk);
  undressed(walk);
};
