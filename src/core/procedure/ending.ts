import type { DustHazard } from '../dust/level';
import type { IntegrityTest } from '../machine/integrity';
import { MACHINE_KINDS } from '../machine/kinds';
import { isolate, machineStep, type MethodContext, restore, step } from './method';
import type { ProcedureId, RunState, Step } from './step';

/** How a procedure ends once the machine is closed. `none`: its own steps end it. */
export const ENDINGS = ['run', 'baseline', 'packed', 'none'] as const;
export type Ending = (typeof ENDINGS)[number];

export const ENDING_OF: Record<ProcedureId, Ending> = {
  plainBag: 'run',
  safetyBag: 'run',
  endlessLiner: 'run',
  cycloneBag: 'run',
  filterBags: 'run',
  tankBagHeadAside: 'run',
  tankBagSecondVacuum: 'run',
  prefilterWrap: 'run',
  screwHepa: 'run',
  boltedMainFilter: 'run',
  stackedFilter: 'run',
  gasStage: 'run',
  purge: 'none',
  wash: 'run',
  collectorEmpty: 'run',
  centralCan: 'run',
  plainFilter: 'run',
  hosePlug: 'run',
  service: 'packed',
  indicatorCheck: 'none',
  commissioning: 'baseline',
  fullSet: 'run',
  linerSection: 'run',
  decontamination: 'run',
};

interface Fed {
  readonly run: RunState;
  readonly isolated: boolean;
}

const fedAfter = (steps: readonly Step[]): Fed => {
  const last = steps.at(-1)?.run ?? 'off';
  const cut = steps.findLastIndex((s) => s.key === 'isolate' || s.key === 'isolateBreaker' || s.key === 'isolateAir');
  const back = steps.findLastIndex(
    (s) => s.key === 'restorePlug' || s.key === 'restoreBreaker' || s.key === 'restoreAir',
  );
  return { run: last, isolated: cut > back };
};

/** Fed again if it was cut off, run and listened to, the ring of a collector smoked, measured. */
const ranAndMeasured = (c: MethodContext, { isolated }: Fed, ending: 'run' | 'baseline'): readonly Step[] => [
  ...(isolated ? [restore(c)] : []),
  machineStep('runAndListen', 'running', { because: 'proof' }),
  ...(MACHINE_KINDS[c.machine.kind].collector
    ? [machineStep('check', 'running', { check: 'ringTight', because: 'seat' })]
    : []),
  ...(ending === 'baseline'
    ? [
        machineStep('measureBaseline', 'running', { because: 'proof' }),
        machineStep('startTimer', 'running', { because: 'stock' }),
      ]
    : [machineStep('measureAfter', 'running', { because: 'proof' })]),
];
const off = (): Step => machineStep('switchOff', 'off', { because: 'safety' });

/** The clean side is seen with the machine off and cut off; smoke and counts while it runs closed; off at the end. */
const screened = (c: MethodContext, tests: readonly IntegrityTest[]): readonly Step[] =>
  tests.length === 0
    ? [off()]
    : [
        // Cutting it off says "switch off" too.
        ...(tests.includes('cleanSide')
          ? [isolate(c), step(c, ['screenCleanSide', 'off'], { because: 'proof' }), restore(c)]
          : []),
        step(c, ['integrityTest', 'running'], { because: 'proof' }),
        off(),
      ];

const packed = (level: DustHazard, wipes: boolean): readonly Step[] => {
  if (level === 'plain') return [];
  const because = level;
  return [
    ...(wipes ? [machineStep('wipesIntoWaste', 'off', { because })] : []),
    ...(level === 'contained'
      ? [machineStep('secondBag', 'off', { because }), machineStep('labelWaste', 'off', { because })]
      : []),
  ];
};

/** Waste leaves when all is measured and tested: wipes with the parts, in the worst dust in a second bag with its label. */
export const wasteOf = (steps: readonly Step[], level: DustHazard): readonly Step[] => {
  const out = [...new Set(steps.flatMap((s) => (s.moves === 'bagOld' || s.moves === 'holdOld' ? [s.stage] : [])))];
  const back = new Set(steps.flatMap((s) => (s.moves === 'putOldBack' ? [s.stage] : [])));
  const gone = out.filter((stage) => !back.has(stage));
  const wipes = steps.some((s) => s.key === 'wipe' || s.key === 'decontaminate' || s.key === 'wipeBag');
  if (gone.length === 0 && !wipes) return [];
  return [
    ...packed(level, wipes),
    ...gone.map((stage): Step => ({
      ...machineStep('disposeOld', 'off', {
        moves: 'disposeOld',
        caution: 'localWaste',
        because: level === 'contained' ? 'contained' : 'stock',
      }),
      stage,
    })),
  ];
};

/** From the closed machine to the end: run, measured, off, tested, waste away; or packed. */
export const endingOf = (
  id: ProcedureId,
  steps: readonly Step[],
  of: { readonly context: MethodContext; readonly tested: MethodContext; readonly tests: readonly IntegrityTest[] },
): readonly Step[] => {
  const { context, tests, tested } = of;
  const ending = ENDING_OF[id];
  switch (ending) {
    case 'run':
    case 'baseline':
      return [
        ...ranAndMeasured(context, fedAfter(steps), ending),
        ...screened(tested, tests),
        ...wasteOf(steps, context.level),
      ];
    case 'packed':
      return [
        ...wasteOf(steps, context.level),
        machineStep('decontaminationNote', 'off', { because: 'safety' }),
        machineStep('packMachine', 'off', { because: 'safety' }),
      ];
    case 'none':
      return [];
  }
};
