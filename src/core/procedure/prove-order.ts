import type { DustHazard } from '../dust/level';
import type { Machine, Stage } from '../machine/machine';
import { feedOf, ISOLATION, ISOLATIONS } from './feed';
import { DOFF, opensContainer } from './containment';
import { hasCleanSide } from './method';
import type { CheckKind, Procedure, Step, StepKey } from './step';
import type { Violation } from './violation';

// Rules about what comes before what, each of its own. Source: HSE and OSHA guidance (undressing), 29 CFR 1910.147
// (isolation), EN 60335-2-69 instructions (plug, waste, proof), from memory; common practice where none is named.

const firstOf = (steps: readonly Step[], key: StepKey): number => steps.findIndex((s) => s.key === key);
const lastOf = (steps: readonly Step[], want: (s: Step) => boolean): number => steps.findLastIndex(want);

const touching = (s: Step): boolean => s.opens !== undefined || s.dusty === true;

/** Dressed, then undressed in order: nothing dusty after the respirator is off, and it comes off after all that carries dust. */
export const undressed = ({ steps }: Procedure, hazard: DustHazard): readonly Violation[] => {
  if (hazard === 'plain' || !steps.some(touching)) return [];
  const order = DOFF[hazard].map((key) => firstOf(steps, key));
  const missing = DOFF[hazard].filter((_, i) => (order[i] ?? -1) < 0);
  if (missing.length > 0) return missing.map((step): Violation => ({ kind: 'hazardStepMissing', step }));
  const inOrder = order.every((at, i) => i === 0 || at > (order[i - 1] ?? -1));
  const off = firstOf(steps, 'offRespirator');
  const dustAfter = lastOf(steps, touching) > (order[0] ?? 0);
  const on = firstOf(steps, 'putOnRespirator');
  return inOrder && !dustAfter && on < off ? [] : [{ kind: 'undressOrder' }];
};

/** Cut off from its own feed before hands go in, and again after every run; a change made while it runs is the maker's own way. */
export const isolatedAgain = ({ steps, school }: Procedure, { kind }: Pick<Machine, 'kind'>): readonly Violation[] => {
  const [own] = ISOLATION[feedOf(kind)];
  const wrong = steps.some((s) => ISOLATIONS.has(s.key) && s.key !== own);
  if (wrong) return [{ kind: 'wrongIsolation' }];
  if (school !== 'off') return [];
  let cut = false;
  return steps.flatMap((s, at): readonly Violation[] => {
    if (s.run !== 'off') cut = false;
    if (s.key === own) cut = true;
    return s.dusty && !cut ? [{ kind: 'notIsolated', at }] : [];
  });
};

/** The plug holds the dust until the machine is closed, latched and off; whoever opens it again plugs it again. */
export const plugLast = ({ steps, id }: Procedure): readonly Violation[] => {
  const plugged = firstOf(steps, 'plugInlet');
  if (
    plugged >= 0 &&
    lastOf(steps, (s) => s.key === 'unplugInlet') < lastOf(steps, (s) => s.key === 'plugInlet') &&
    id !== 'service'
  )
    return [{ kind: 'leftOpen', opening: 'inlet' }];
  const early = steps.some((out, at) => {
    if (out.key !== 'unplugInlet') return false;
    const again = steps.findIndex((s, i) => i > at && s.key === 'plugInlet');
    const open = steps.slice(at + 1, again < 0 ? steps.length : again);
    return (
      out.run !== 'off' ||
      open.some(
        (s) =>
          s.key === 'latch' ||
          s.opens === 'lid' ||
          (s.closes !== undefined && s.closes !== 'inlet') ||
          s.moves === 'fitNew',
      )
    );
  });
  return early ? [{ kind: 'unplugEarly' }] : [];
};

/** Old part bagged, tied, wiped, second bag, label, then away; the wipes with it. */
export const wasted = ({ steps }: Procedure, hazard: DustHazard): readonly Violation[] => {
  if (hazard === 'plain') return [];
  const contained = hazard === 'contained';
  const wanted: readonly StepKey[] = contained ? ['tieBag', 'wipeBag'] : ['tieBag'];
  const bags = steps.flatMap((s, at): readonly Violation[] => {
    if (s.moves !== 'bagOld' && s.moves !== 'holdOld') return [];
    const next = steps
      .slice(at + 1)
      .findIndex((x) => x.moves === 'bagOld' || x.moves === 'fitNew' || x.moves === 'disposeOld');
    const until = next < 0 ? steps.slice(at + 1) : steps.slice(at + 1, at + 1 + next);
    return wanted
      .filter((key) => !until.some((x) => x.key === key))
      .map((step): Violation => ({ kind: 'hazardStepMissing', step }));
  });
  const gone = steps.findIndex((s) => s.moves === 'disposeOld');
  const wiped = steps.some((s) => s.key === 'wipe' || s.key === 'decontaminate');
  const packing: readonly StepKey[] = [
    ...(wiped ? (['wipesIntoWaste'] as const) : []),
    ...(contained ? (['secondBag', 'labelWaste'] as const) : []),
  ];
  const packed =
    gone < 0
      ? []
      : packing.flatMap((step): readonly Violation[] =>
          firstOf(steps, step) < 0
            ? [{ kind: 'hazardStepMissing', step }]
            : firstOf(steps, step) > gone
              ? [{ kind: 'tooLate', step }]
              : [],
        );
  return [...bags, ...packed];
};

/** The old element's clean side and what lies behind it are looked at before it is in its bag and the new one goes in. */
export const cleanSideSeen = ({ steps }: Procedure, machine: Pick<Machine, 'stages'>): readonly Violation[] =>
  steps.flatMap((s, at): readonly Violation[] => {
    const stage: Stage | undefined = s.stage === null ? undefined : machine.stages[s.stage];
    if (
      (s.moves !== 'bagOld' && s.moves !== 'holdOld') ||
      !stage ||
      !hasCleanSide(stage) ||
      steps.some((x) => x.key === 'wash')
    )
      return [];
    const seen = steps.findIndex((x) => x.stage === s.stage && x.check === 'cleanSideClean');
    return seen >= 0 && seen < at ? [] : [{ kind: 'checkMissing', check: 'cleanSideClean' }];
  });

const BEFORE_TIGHT: ReadonlySet<CheckKind> = new Set<CheckKind>([
  'arrowWithFlow',
  'gasketSide',
  'seal1',
  'seal2',
  'undersideClean',
]);

/** Arrow, gasket and seat are seen before anything is tightened over them. */
export const tightenedLast = ({ steps }: Procedure): readonly Violation[] =>
  steps.flatMap((s, at): readonly Violation[] =>
    s.key === 'tightenFixings' &&
    steps.some((x, k) => k > at && x.stage === s.stage && x.check !== undefined && BEFORE_TIGHT.has(x.check))
      ? [{ kind: 'tightenedUnseen' }]
      : [],
  );

/** Nothing is opened again after its proof. */
export const proofLast = ({ steps }: Procedure): readonly Violation[] => {
  const proof = firstOf(steps, 'integrityTest');
  return proof >= 0 && steps.some((s, i) => i > proof && touching(s)) ? [{ kind: 'openedAfterProof' }] : [];
};

/** What each method cannot do without, in its order. Source: handbook of the trade, section 11. */
const OWN_ORDER: Partial<Record<Procedure['id'], readonly (StepKey | CheckKind)[]>> = {
  safetyBag: ['plugInlet', 'open', 'closeBreathers', 'sealMouth', 'tieOff', 'bagOld', 'fitNew', 'breathersInside'],
  endlessLiner: [
    'switchOn',
    'plugInlet',
    'pulse',
    'letSettle',
    'switchOff',
    'isolate',
    'twistAndCut',
    'bagOld',
    'fitNew',
  ],
  linerSection: [
    'switchOn',
    'plugInlet',
    'pulse',
    'letSettle',
    'switchOff',
    'isolate',
    'twistAndCut',
    'bagOld',
    'drawDown',
  ],
  collectorEmpty: [
    'isolateBreaker',
    'closeGates',
    'cleanCanister',
    'letSettle',
    'noEmbers',
    'open',
    'emptyInto',
    'close',
    'openGates',
    'runAndListen',
  ],
  indicatorCheck: ['filtersFresh', 'switchOn', 'discOn', 'lightOn', 'discOff', 'lightOut', 'switchOff'],
  service: ['nameSpare', 'plugInlet', 'open', 'bagOld', 'decontaminate', 'close', 'decontaminationNote', 'packMachine'],
  cycloneBag: ['switchOn', 'breakSuction', 'open', 'letInletsClose', 'drawIntoBag'],
  filterBags: ['crackOpen', 'switchOn', 'drawIntoBag', 'bagCount', 'close', 'switchOff'],
  tankBagHeadAside: [
    'crackOpen',
    'switchOn',
    'setHeadAside',
    'drawIntoBag',
    'wipe',
    'fitNew',
    'headOn',
    'latch',
    'switchOff',
  ],
  tankBagSecondVacuum: [
    'connectSecond',
    'crackOpen',
    'switchOn',
    'setHeadAside',
    'startSecond',
    'drawIntoBag',
    'wipe',
    'fitNew',
    'removeSecond',
    'stopSecond',
    'headOn',
    'switchOff',
    'latch',
  ],
  centralCan: ['isolateBreaker', 'open', 'fitNew', 'seamRear', 'tabFlush', 'close'],
  fullSet: ['open', 'capOld', 'bagOld', 'fitNew'],
  purge: ['switchOn', 'plugInlet', 'pulse', 'readGauge', 'switchOff', 'unplugInlet'],
  decontamination: [
    'plugInlet',
    'wipeOutside',
    'open',
    'bagOld',
    'wipe',
    'decontaminate',
    'nothingLeft',
    'close',
    'unplugInlet',
  ],
};

export const ownOrder = (procedure: Procedure): readonly Violation[] => {
  const wanted = OWN_ORDER[procedure.id] ?? [];
  let from = 0;
  for (const what of wanted) {
    const at = procedure.steps.findIndex((s, i) => i >= from && (s.key === what || s.check === what));
    if (at < 0) return [{ kind: 'methodOrder', what }];
    from = at + 1;
  }
  return [];
};

/** In the worst dust the inlet is stopped before a container opens, and a hose that comes off is capped. */
export const stopped = ({ steps }: Procedure, hazard: DustHazard): readonly Violation[] => {
  if (hazard !== 'contained') return [];
  if (!opensContainer(steps)) {
    return steps.some((s) => s.key === 'takeOut' && s.opens === 'inlet') && firstOf(steps, 'capHose') < 0
      ? [{ kind: 'hazardStepMissing', step: 'capHose' }]
      : [];
  }
  // A machine that is changed while it runs draws through its inlets: there they close by themselves.
  if (firstOf(steps, 'breakSuction') >= 0) return [];
  const at = steps.findIndex((s) => s.key === 'plugInlet' || s.key === 'connectSecond');
  if (at < 0) return [{ kind: 'hazardStepMissing', step: 'plugInlet' }];
  const firstDust = steps.findIndex((s) => s.dusty === true);
  return firstDust >= 0 && at > firstDust ? [{ kind: 'tooLate', step: 'plugInlet' }] : [];
};
