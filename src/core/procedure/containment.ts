import type { DustHazard } from '../machine/machine';
import { machineStep } from './method';
import type { RunState, Step } from './step';

const indexOf = (steps: readonly Step[], want: (s: Step) => boolean): number => steps.findIndex(want);

const insertAt = (steps: readonly Step[], at: number, more: readonly Step[]): readonly Step[] => (at < 0 ? steps : [...steps.slice(0, at), ...more, ...steps.slice(at)]);

const firstTouch = (steps: readonly Step[]): number => indexOf(steps, (s) => s.opens !== undefined || s.dusty === true);

const runBefore = (steps: readonly Step[], at: number): RunState => steps[at - 1]?.run ?? 'off';

/** The inlet is stopped before anything is opened, unless the method already does it or a second vacuum draws there. */
const withPlug = (steps: readonly Step[]): readonly Step[] => {
  const held = steps.some((s) => s.key === 'plugInlet' || s.key === 'connectSecond');
  const at = firstTouch(steps);
  if (held || at < 0) return steps;
  const run = runBefore(steps, at);
  const plugged = insertAt(steps, at, [machineStep('plugInlet', run, { opens: 'inlet', caution: 'plugFirst', because: 'contained' })]);
  const end = plugged.findLastIndex((s) => s.closes !== undefined);
  return insertAt(plugged, end + 1, [machineStep('unplugInlet', plugged[end]?.run ?? 'off', { closes: 'inlet', because: 'contained' })]);
};

/** What came loose is wiped up before the new part goes in. */
const withWipe = (steps: readonly Step[], contained: boolean): readonly Step[] => {
  const at = indexOf(steps, (s) => s.moves === 'fitNew' || s.moves === 'putOldBack');
  if (at < 0) return steps;
  const run = steps[at]?.run ?? 'off';
  const wiped = steps.slice(0, at).some((s) => s.key === 'wipe');
  const wipe = machineStep('wipe', run, { dusty: true, caution: 'noBrushNoAir', because: 'controlled' });
  const clean = machineStep('decontaminate', run, { dusty: true, because: 'contained' });
  return insertAt(steps, at, [...(wiped ? [] : [wipe]), ...(contained ? [clean] : [])]);
};

const withWear = (steps: readonly Step[], contained: boolean): readonly Step[] => {
  const at = firstTouch(steps);
  if (at < 0) return steps;
  const wear = [
    machineStep('putOnRespirator', 'off', { caution: 'respirator', because: 'controlled' }),
    ...(contained ? [machineStep('restrictArea', 'off', { because: 'contained' }), machineStep('putOnCoverall', 'off', { caution: 'suit', because: 'contained' })] : []),
  ];
  // Dressed before the machine is touched at all.
  return [...wear, ...steps];
};

const withLabel = (steps: readonly Step[]): readonly Step[] => {
  const at = steps.findLastIndex((s) => s.moves === 'disposeOld');
  return at < 0 ? steps : insertAt(steps, at + 1, [machineStep('labelWaste', steps[at]?.run ?? 'off', { because: 'contained' })]);
};

/**
 * Lays the containment of a hazard level around a method: nothing for a nuisance dust but the question; respirator,
 * bagged part and damp wipe for the controlled; area, coverall, plugged inlet, decontamination and labelled waste for
 * the contained. Source: EN 60335-2-69 instructions for M and H; 29 CFR 1926.1153 and 1910.242(b) for brushing and air.
 */
export const contain = (method: readonly Step[], hazard: DustHazard): readonly Step[] => {
  const asked: readonly Step[] = [machineStep('askHazard', 'off', { because: 'safety' })];
  if (hazard === 'plain') return [...asked, ...method];
  return [...asked, ...withWear(around(method, hazard), hazard === 'contained')];
};

const around = (method: readonly Step[], hazard: 'controlled' | 'contained'): readonly Step[] => {
  const contained = hazard === 'contained';
  const wiped = withWipe(method, contained);
  return contained ? withLabel(withPlug(wiped)) : wiped;
};

/** Lays the containment around an opening that follows in the same job: asked and dressed is one already. */
export const containAgain = (method: readonly Step[], hazard: DustHazard): readonly Step[] => (hazard === 'plain' ? method : around(method, hazard));
