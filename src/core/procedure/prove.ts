import type { Violation } from './violation';
import type { DustHazard } from '../dust/level';
import type { Machine, Stage } from '../machine/machine';
import {
  cleanSideSeen,
  isolatedAgain,
  ownOrder,
  plugLast,
  proofLast,
  stopped,
  tightenedLast,
  undressed,
  wasted,
} from './prove-order';
import {
  type CheckKind,
  type OpenedPart,
  type Procedure,
  PROOF_CHECKS,
  type RunState,
  type Step,
  type StepKey,
} from './step';

const at = (steps: readonly Step[], want: (s: Step) => boolean): number => steps.findIndex(want);
const keyAt = (steps: readonly Step[], key: StepKey): number => at(steps, (s) => s.key === key);

const openings = ({ steps, school }: Procedure): readonly Violation[] => {
  const stack: OpenedPart[] = [];
  const wrong: Violation[] = [];
  steps.forEach((s, i) => {
    if (s.closes !== undefined) {
      // A running machine draws through its inlets: they close by themselves while the door is still open.
      const drawn = school === 'running' && s.closes === 'inlet' ? stack.lastIndexOf('inlet') : -1;
      if (drawn >= 0) stack.splice(drawn, 1);
      else if (stack.at(-1) === s.closes) stack.pop();
      else wrong.push({ kind: 'closedOutOfOrder', opening: s.closes, at: i });
    }
    if (s.opens !== undefined) stack.push(s.opens);
  });
  return [...wrong, ...stack.map((opening): Violation => ({ kind: 'leftOpen', opening }))];
};

const DUSTY_IN: Record<Procedure['school'], readonly RunState[]> = {
  off: ['off'],
  running: ['running'],
  headAside: ['headAside'],
  secondVacuum: ['secondVacuum'],
};

/** What may be open while the machine runs in a change made off: the inlet, where the air goes in anyway. */
const HARMLESS: ReadonlySet<OpenedPart> = new Set<OpenedPart>(['inlet']);

const states = ({ steps, school }: Procedure): readonly Violation[] => {
  const stack: OpenedPart[] = [];
  const wrong: Violation[] = [];
  steps.forEach((s, i) => {
    if (s.closes !== undefined) stack.pop();
    if (s.dusty && !DUSTY_IN[school].includes(s.run)) wrong.push({ kind: 'dustyInWrongState', run: s.run, at: i });
    if (school === 'off' && s.run !== 'off' && stack.some((o) => !HARMLESS.has(o)))
      wrong.push({ kind: 'runWhileOpen', at: i });
    if (s.opens !== undefined) stack.push(s.opens);
  });
  return wrong;
};

const FATES = {
  new: { from: ['takeNew'], to: ['fitNew', 'returnNew'] },
  old: { from: ['bagOld', 'holdOld'], to: ['disposeOld', 'putOldBack'] },
} as const;

const parts = ({ steps }: Procedure): readonly Violation[] =>
  [...new Set(steps.flatMap((s) => (s.moves === undefined ? [] : [s.stage])))].flatMap((stage) =>
    (['new', 'old'] as const).flatMap((part): readonly Violation[] => {
      const { from, to } = FATES[part];
      const moved = (which: readonly string[]) => (s: Step) =>
        s.stage === stage && s.moves !== undefined && which.includes(s.moves);
      const taken = steps.findIndex(moved(from));
      // Where the old one went back in, the new one came out again: it goes back to the shelf.
      const back = part === 'new' ? steps.findLastIndex(moved(['putOldBack'])) : -1;
      const ends = back >= 0 ? ['returnNew'] : to;
      return taken >= 0 && steps.findLastIndex(moved(ends)) < Math.max(taken, back)
        ? [{ kind: 'partWithoutFate', part }]
        : [];
    }),
  );

/** Checks a fitted stage cannot do without, from its own data. */
const requiredChecks = ({ kind, spec }: Stage): readonly CheckKind[] => {
  const { orientation, seals } = spec.fit;
  return [
    ...(kind === 'bag' ? (['collarStraight'] as const) : []),
    ...(orientation === 'unmarked' ? [] : (['arrowWithFlow', 'gasketSide'] as const)),
    ...(seals >= 1 ? (['seal1'] as const) : []),
    ...(seals >= 2 ? (['seal2'] as const) : []),
  ];
};

const seats = ({ steps }: Procedure, machine: Machine): readonly Violation[] =>
  steps.flatMap((fit, i) => {
    if (fit.moves !== 'fitNew' && fit.moves !== 'putOldBack') return [];
    const stage = fit.stage === null ? undefined : machine.stages[fit.stage];
    if (!stage) return [];
    const seen = (check: CheckKind) => steps.some((s, k) => k > i && s.stage === fit.stage && s.check === check);
    return requiredChecks(stage)
      .filter((check) => !seen(check))
      .map((check): Violation => ({ kind: 'checkMissing', check }));
  });

const BEFORE_TOUCH: Record<DustHazard, readonly StepKey[]> = {
  plain: ['askHazard'],
  controlled: ['askHazard', 'putOnRespirator'],
  contained: ['askHazard', 'putOnRespirator', 'restrictArea', 'putOnCoverall'],
};

const hazards = ({ steps }: Procedure, hazard: DustHazard): readonly Violation[] => {
  const touch = at(steps, (s) => s.opens !== undefined || s.dusty === true);
  const before = touch < 0 ? (['askHazard'] as const) : BEFORE_TOUCH[hazard];
  const wrong = before.flatMap((key): readonly Violation[] => {
    const i = keyAt(steps, key);
    if (i < 0) return [{ kind: 'hazardStepMissing', step: key }];
    return touch >= 0 && i > touch ? [{ kind: 'tooLate', step: key }] : [];
  });
  const fits = at(steps, (s) => s.moves === 'fitNew' || s.moves === 'putOldBack');
  const needs = (key: StepKey, when: boolean): readonly Violation[] =>
    when && keyAt(steps, key) < 0 ? [{ kind: 'hazardStepMissing', step: key }] : [];
  return [...wrong, ...needs('wipe', hazard !== 'plain' && fits >= 0)];
};

/** A second vacuum that was connected is taken off and stopped before the head goes on. */
const second = ({ steps }: Procedure): readonly Violation[] => {
  if (keyAt(steps, 'connectSecond') < 0) return [];
  const head = keyAt(steps, 'headOn');
  const ended = (['removeSecond', 'stopSecond'] as const).every(
    (key) => keyAt(steps, key) >= 0 && keyAt(steps, key) < head,
  );
  return ended ? [] : [{ kind: 'secondLeftOn' }];
};

/** The two ways with the head aside end in opposite order. */
const latches = ({ steps, school }: Procedure): readonly Violation[] => {
  const [latch, off] = [keyAt(steps, 'latch'), keyAt(steps, 'switchOff')];
  if (school === 'headAside') return latch >= 0 && latch < off ? [] : [{ kind: 'latchOrder' }];
  if (school === 'secondVacuum') return off >= 0 && off < latch ? [] : [{ kind: 'latchOrder' }];
  return [];
};

const tested = ({ steps, integrity }: Procedure): readonly Violation[] =>
  integrity.length > 0 && keyAt(steps, 'integrityTest') < 0 ? [{ kind: 'integrityMissing' }] : [];

const oneTrack = (procedure: Procedure, machine: Machine, hazard: DustHazard): readonly Violation[] => [
  ...openings(procedure),
  ...states(procedure),
  ...parts(procedure),
  ...seats(procedure, machine),
  ...hazards(procedure, hazard),
  ...second(procedure),
  ...latches(procedure),
  ...tested(procedure),
  ...undressed(procedure, hazard),
  ...isolatedAgain(procedure, machine),
  ...plugLast(procedure),
  ...wasted(procedure, hazard),
  ...cleanSideSeen(procedure, machine),
  ...tightenedLast(procedure),
  ...proofLast(procedure),
  ...ownOrder(procedure),
  ...stopped(procedure, hazard),
];

/** The other end of a procedure that may turn back: what was done until the proof, and from there the old part back in. */
export const turnedTrack = (procedure: Procedure): readonly Step[] | null => {
  const proof = procedure.steps.findIndex((s) => s.check !== undefined && PROOF_CHECKS.has(s.check));
  return procedure.turnBack.length === 0 || proof < 0
    ? null
    : [...procedure.steps.slice(0, proof), ...procedure.turnBack];
};

/**
 * Everything that is wrong with a procedure on its machine, down both its ends where it may turn back: what is left open
 * or closed out of order, dust in the open in the wrong state, parts without a fate, checks and hazard steps that are
 * missing or late. Empty for a sound one. Source: common practice, no published source.
 */
export const prove = (procedure: Procedure, machine: Machine, hazard: DustHazard): readonly Violation[] => {
  const other = turnedTrack(procedure);
  return [
    ...oneTrack(procedure, machine, hazard),
    ...(other ? oneTrack({ ...procedure, steps: other }, machine, hazard) : []),
  ];
};
