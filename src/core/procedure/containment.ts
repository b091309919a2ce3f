import type { DustHazard } from '../dust/level';
import { machineStep, plugInlet, unplugInlet } from './method';
import type { OpenedPart, RunState, Step, StepKey } from './step';

type Guarded = Exclude<DustHazard, 'plain'>;

const insertAt = (steps: readonly Step[], at: number, more: readonly Step[]): readonly Step[] =>
  at < 0 ? steps : [...steps.slice(0, at), ...more, ...steps.slice(at)];

const runBefore = (steps: readonly Step[], at: number): RunState => steps[at - 1]?.run ?? 'off';

/** What holds dust when it is shut; an inlet is only a way in. */
const CONTAINERS: ReadonlySet<OpenedPart> = new Set<OpenedPart>([
  'lid',
  'door',
  'head',
  'fixings',
  'can',
  'oldPart',
  'disposalBag',
]);
export const opensContainer = (steps: readonly Step[]): boolean =>
  steps.some((s) => s.opens !== undefined && CONTAINERS.has(s.opens));

/** What already holds the inlet: a plug of the method's own, a second vacuum, or the suction of a machine changed while it runs. */
const INLET_HELD: ReadonlySet<StepKey> = new Set<StepKey>(['plugInlet', 'connectSecond', 'breakSuction']);

/** The inlet is stopped before anything is opened; its plug comes out when all is closed, latched and off. */
const withPlug = (steps: readonly Step[]): readonly Step[] => {
  const at = steps.findIndex((s) => s.opens !== undefined || s.dusty === true);
  if (at < 0 || !opensContainer(steps) || steps.some((s) => INLET_HELD.has(s.key))) return steps;
  const plugged = insertAt(steps, at, [{ ...plugInlet(runBefore(steps, at)), because: 'contained' }]);
  const end = plugged.findLastIndex((s) => s.closes !== undefined || s.key === 'latch' || s.key === 'switchOff');
  return insertAt(plugged, end + 1, [{ ...unplugInlet(), because: 'contained' }]);
};

/** A hose that comes off in the worst dust is capped at both ends. */
const withCaps = (steps: readonly Step[]): readonly Step[] => {
  const at = steps.findIndex((s) => s.key === 'takeOut' && s.opens === 'inlet');
  return insertAt(steps, at < 0 ? -1 : at + 1, [
    machineStep('capHose', steps[at]?.run ?? 'off', { dusty: true, because: 'contained' }),
  ]);
};

/** What came loose is wiped up before the new part goes in. */
const withWipe = (steps: readonly Step[], contained: boolean): readonly Step[] => {
  const at = steps.findIndex((s) => s.moves === 'fitNew' || s.moves === 'putOldBack');
  if (at < 0) return steps;
  const run = steps[at]?.run ?? 'off';
  const has = (key: StepKey) => steps.slice(0, at).some((s) => s.key === key);
  const wipe = machineStep('wipe', run, { dusty: true, caution: 'noBrushNoAir', because: 'controlled' });
  const clean = machineStep('decontaminate', run, { dusty: true, because: 'contained' });
  return insertAt(steps, at, [...(has('wipe') ? [] : [wipe]), ...(contained && !has('decontaminate') ? [clean] : [])]);
};

/** Each old part is tied in its bag at once, and in the worst dust wiped; a part that is held is tied too. */
const withTies = (steps: readonly Step[], contained: boolean): readonly Step[] =>
  steps.flatMap((s): readonly Step[] => {
    if (s.moves !== 'bagOld' && s.moves !== 'holdOld') return [s];
    const more = (key: StepKey): Step => ({
      key,
      run: s.run,
      stage: s.stage,
      because: contained ? 'contained' : 'controlled',
      dusty: true,
    });
    return [s, more('tieBag'), ...(contained ? [more('wipeBag')] : [])];
  });

/** The wipes go with the waste; the worst goes into a second bag, is labelled, and waits at the edge until who did it is undressed. */
const withWaste = (steps: readonly Step[], contained: boolean): readonly Step[] => {
  const at = steps.findIndex((s) => s.moves === 'disposeOld');
  const run = steps[at]?.run ?? 'off';
  const wiped = steps.some((s) => s.key === 'wipe' || s.key === 'decontaminate');
  const packed = contained
    ? [
        machineStep('secondBag', run, { because: 'contained' }),
        machineStep('labelWaste', run, { because: 'contained' }),
      ]
    : [];
  const held = contained
    ? steps.map((s): Step => (s.moves === 'disposeOld' ? { ...s, because: 'contained' } : s))
    : steps;
  return insertAt(held, at, [
    ...(wiped ? [machineStep('wipesIntoWaste', run, { because: contained ? 'contained' : 'controlled' })] : []),
    ...packed,
  ]);
};

const touches = (steps: readonly Step[]): boolean => steps.some((s) => s.opens !== undefined || s.dusty === true);

const DON: Record<Guarded, readonly Step[]> = {
  controlled: [machineStep('putOnRespirator', 'off', { caution: 'respirator', because: 'controlled' })],
  contained: [
    machineStep('restrictArea', 'off', { because: 'contained' }),
    machineStep('putOnCoverall', 'off', { caution: 'suit', because: 'contained' }),
    machineStep('putOnRespirator', 'off', { caution: 'p3', because: 'contained' }),
  ],
};

/** The order things come off in: what carries dust first, the respirator last and outside. Source: HSE and OSHA guidance for lead and asbestos work, from memory. */
export const DOFF: Record<Guarded, readonly StepKey[]> = {
  controlled: ['offGloves', 'washHands', 'offRespirator', 'washFace'],
  contained: ['wipeSuit', 'offOvershoes', 'offCoverall', 'washHands', 'offRespirator', 'washFace', 'freeArea'],
};

/** Off first, if it still runs; then what was worn, in its order. */
const doffed = (hazard: Guarded, run: RunState): readonly Step[] => [
  ...(run === 'off' ? [] : [machineStep('switchOff', 'off', { because: hazard })]),
  ...DOFF[hazard].map((key) =>
    machineStep(key, 'off', {
      because: hazard,
      ...(key === 'offRespirator' && hazard === 'contained' ? { caution: 'respiratorLast' as const } : {}),
    }),
  ),
];

const around = (method: readonly Step[], hazard: Guarded): readonly Step[] => {
  const contained = hazard === 'contained';
  const packed = withWaste(withTies(withWipe(method, contained), contained), contained);
  return contained ? withCaps(withPlug(packed)) : packed;
};

/** Dressed before the machine is touched at all, undressed when all is proven. */
const worn = (steps: readonly Step[], hazard: Guarded): readonly Step[] =>
  touches(steps) ? [...DON[hazard], ...steps, ...doffed(hazard, steps.at(-1)?.run ?? 'off')] : steps;

/**
 * Lays the containment of a hazard level around a method: nothing for a nuisance dust but the question; mask and gloves,
 * tied bag and damp wipe for the controlled; area, coverall, respirator, plugged inlet, decontamination, second bag and
 * label for the contained; and everything off again in its order, the respirator last. Source: EN 60335-2-69
 * instructions for M and H; 29 CFR 1926.1153 and 1910.242(b) for brushing and air; HSE and OSHA for the order of undressing.
 */
export const contain = (method: readonly Step[], hazard: DustHazard): readonly Step[] => {
  const asked: readonly Step[] = [machineStep('askHazard', 'off', { because: 'safety' })];
  return hazard === 'plain' ? [...asked, ...method] : [...asked, ...worn(around(method, hazard), hazard)];
};

/** Lays the containment around an opening that follows in the same job, dressed already; undressed at its end. */
export const containAgain = (method: readonly Step[], hazard: DustHazard): readonly Step[] => {
  if (hazard === 'plain') return method;
  const steps = around(method, hazard);
  return [...steps, ...doffed(hazard, steps.at(-1)?.run ?? 'off')];
};
