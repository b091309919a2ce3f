import { MEDIA, type Medium } from '@/core/constants/media';
import { fromSi, show, type UnitSystem, toDigits } from '@/core/units';
import type { ClassStanding } from '@/core/machine/machine';
import type { UpgradeChange, UpgradeKind } from '@/core/upgrade/change';
import type { Between, UpgradeFigures } from '@/core/upgrade/gain';
import type { ParticleProof } from '@/core/upgrade/particles';
import type { LifeChange } from '@/core/upgrade/life';
import type { Proof, Unlike } from '@/core/upgrade/prove';
import type { UpgradePhase } from '@/core/upgrade/record';
import { sayGap } from './needs';
import { capital, CLASS_WORDS } from './words';
import type { Statement } from './verdicts';
import { sayShare, signedPercent } from './format';

// The words of the upgrade desk.

export const UPGRADE_WORDS: Readonly<Record<UpgradeKind, string>> = {
  medium: 'another filter or canister',
  bag: 'a bag in front',
  fineLayer: 'a fine-dust layer in front',
  hepa: 'a HEPA cartridge behind',
  separator: 'a cyclone in front',
  hose: 'another hose',
  exhaust: 'another exhaust',
  seal: 'a leak sealed',
  takeOut: 'a part taken out',
  container: 'another bottom container',
};

export const UPGRADE_HINTS: Readonly<Record<UpgradeKind, string>> = {
  medium: 'More area: the air goes slower through it, and it lasts longer.',
  bag: 'Keeps the filter behind it clean; costs a little suction, and bags.',
  fineLayer: 'Fleece before the last filter: fines blind it slower.',
  hepa: 'Holds back the finest; costs suction. It makes no class.',
  separator: 'Takes most of the coarse dust before the machine; costs suction and floor.',
  hose: 'Wider: more air, slower in the hose. Longer: less of both.',
  exhaust: 'Where it blows out: a larger outlet, a duct to the open air.',
  seal: 'What leaks in before the filter never came from the tool.',
  takeOut: 'This is a modification. Measure before and after, and put the part back if it does not help.',
  container: 'Bag with a clamp, pail with a ring, pan with a gasket: no air goes through it.',
};

export const CHANGE_LABELS: Readonly<Record<string, string>> = {
  stageId: 'Which stage',
  medium: 'Medium',
  areaM2: 'Area',
  inletBoreM: 'Bore of its inlet',
  lossK: 'Its loss, velocity heads',
  share: 'Takes, % of the dust',
  boreM: 'Bore',
  lengthM: 'Length',
  leakM2: 'Leak that is left, mm2',
  volumeM3: 'Volume',
};

export const size = (metres: number, units: UnitSystem): string =>
  units === 'us' ? `${toDigits(fromSi('length', metres, 'in'), 3)} in` : `${toDigits(1000 * metres, 3)} mm`;

const area = (m2: number, units: UnitSystem): string =>
  units === 'us' ? `${toDigits(fromSi('area', m2, 'ft2'), 3)} ft²` : `${toDigits(m2, 3)} m²`;

export const sayMedium = (medium: Medium): string => MEDIA[medium].label;

export const sayChange = (c: UpgradeChange, stageName: (id: number) => string, units: UnitSystem): string => {
  switch (c.kind) {
    case 'medium':
      return `${stageName(c.stageId)}: ${sayMedium(c.medium)}, ${area(c.areaM2, units)}`;
    case 'bag':
    case 'fineLayer':
    case 'hepa':
      return `${UPGRADE_WORDS[c.kind]}, ${area(c.areaM2, units)}`;
    case 'separator':
      return `${UPGRADE_WORDS.separator}, ${size(c.inletBoreM, units)} inlet, takes ${Math.round(100 * c.share)} %`;
    case 'hose':
      return `hose of ${size(c.boreM, units)}, ${show('length', c.lengthM, units)}`;
    case 'exhaust':
      return `exhaust of ${size(c.boreM, units)}`;
    case 'seal':
      return `leak sealed to ${toDigits(1e6 * c.leakM2, 3)} mm²`;
    case 'takeOut':
      return `${stageName(c.stageId)} taken out`;
    case 'container':
      return `bottom container of ${show('volume', c.volumeM3, units)}`;
  }
};

export const sayRatio = ({ value, low, high }: Between): string =>
  `${signedPercent(value)} (${signedPercent(low)} to ${signedPercent(high)})`;

export const sayFlowBetween = ({ value, low, high }: Between, units: UnitSystem): string =>
  `${show('flow', value, units)} (${show('flow', low, units)} to ${show('flow', high, units)})`;

/** The headline of a plan. */
export const sayGain = (figures: readonly UpgradeFigures[], units: UnitSystem): string => {
  const [first, last] = [figures[0], figures.at(-1)];
  if (!first || !last) return '';
  const flows = `${show('flow', first.flow.value, units)} becomes ${show('flow', last.flow.value, units)} at the tool`;
  const share = signedPercent(last.ratio.value);
  switch (last.air) {
    case 'more':
      return `More air: ${flows}, ${share}.`;
    case 'less':
      return `Less air: ${flows}, ${share}.`;
    case 'same':
      return 'The air does not change.';
    case 'unclear':
      return `Hardly a difference in the air: ${flows}, ${share}. It may be none.`;
  }
};

/** That the dust would no longer move, said before anything is praised. */
export const sayTooSlow = (
  slow:
    | { readonly kind: 'class'; readonly velocityMs: number; readonly leastMs: number }
    | { readonly kind: 'duct'; readonly velocityMs: number; readonly lowMs: number; readonly highMs: number },
  units: UnitSystem,
): string => {
  const speed = (ms: number): string => show('velocity', ms, units);
  return slow.kind === 'class'
    ? `Not sure to keep ${speed(slow.leastMs)} in the hose: ${speed(slow.velocityMs)} by the model. Below that the machine must warn, and dust settles.`
    : `${speed(slow.velocityMs)} in the duct: chips want ${speed(slow.lowMs)} to ${speed(slow.highMs)} (ACGIH), and settle below it.`;
};

/** Both schools of a separator in front, and what this machine's own staircase says. */
export const saySeparator = ({
  shareOfLift,
  flowLost,
  toSpare,
}: {
  readonly shareOfLift: number;
  readonly flowLost: number;
  readonly toSpare: boolean;
}): string =>
  `Some fit a separator first of all, some say not on a machine with little suction. On this one it takes ${Math.round(100 * shareOfLift)} % of the fan's suction and ${toDigits(100 * flowLost, 2)} % of the air: ${toSpare ? 'there is suction to spare' : 'that is a lot here, look at filter area and hose first'}.`;

/** The class that may be claimed before and after. */
export const sayClassChange = ([before, after]: readonly [ClassStanding, ClassStanding]): string => {
  if (before.onPlate === null)
    return 'It carries no class, and this gives it none: only a test of the whole machine does.';
  if (after.gap) {
    const lost = sayGap(after.gap, after.onPlate);
    return before.gap
      ? `Its class is withdrawn already and stays so. ${lost}`
      : `It loses its ${CLASS_WORDS[before.onPlate]}: ${lost} It may not be used where that class is asked for.`;
  }
  return `Its ${CLASS_WORDS[before.onPlate]} does not change.`;
};

export const LIFE_WORDS: Readonly<Record<LifeChange['because'], string>> = {
  separator: 'less dust reaches it',
  layer: 'the layer in front keeps dust from it',
  area: 'it holds more before it costs the same air',
  calendar: 'a date decides: nothing is gained',
  same: 'as before',
  gone: 'goes out',
};

const UNLIKE: Readonly<Record<Unlike['what'], string>> = {
  voltage: 'another voltage',
  stageChanged: 'was changed in between',
  otherMeter: 'another meter',
  otherRig: 'another set-up of the meter',
  otherHose: 'another hose',
  maxHold: 'a reading at maximum hold',
  edited: 'the machine was changed in between',
  older: 'older by then',
};

/** One difference, and its possible effect. */
export const sayUnlike = ({ what, name, explains }: Unlike): string => {
  if (what === 'older') return `${name} days lie between the two: parts that load give less air by then, never more.`;
  const thing = name === '' ? UNLIKE[what] : `${name} ${UNLIKE[what]}`;
  const share =
    explains === null
      ? 'what that makes cannot be reckoned'
      : explains === 0
        ? 'its own doubt is in the interval'
        : `by the model that makes up to ${signedPercent(1 + explains)}`;
  return `${capital(thing)}: ${share}.`;
};

/** The verdict of a proof. */
export const sayProof = ({ outcome, measured, predicted, repeats }: Proof): Statement => {
  const said = `Predicted ${sayRatio(predicted)}${measured ? `, measured ${sayRatio(measured)}` : ''}.`;
  const more = repeats === null ? 'More readings will not help.' : `About ${repeats} readings before and after would.`;
  switch (outcome) {
    case 'asPredicted':
      return { tone: 'good', mark: 'As predicted', sentence: 'It did what was predicted.', detail: said };
    case 'more':
      return {
        tone: 'watch',
        mark: 'More than predicted',
        sentence: 'More air than predicted. Check for a torn or unseated filter before you trust it.',
        detail: said,
      };
    case 'less':
      return {
        tone: 'watch',
        mark: 'Less',
        sentence: 'It did less than predicted.',
        detail: `${said} Look at seals and seats, or undo it.`,
      };
    case 'worse':
      return {
        tone: 'stop',
        mark: 'Worse',
        sentence: 'There is less air than before.',
        detail: `${said} Undo it, unless it was not done for the air.`,
      };
    case 'cannotTell':
      return {
        tone: 'open',
        mark: 'Cannot tell',
        sentence: 'The readings cannot show a difference.',
        detail: `${said} ${more}`,
      };
    case 'unlike':
      return {
        tone: 'open',
        mark: 'Not like with like',
        sentence: 'Something other than the upgrade could explain it, so no verdict is given.',
        detail: `${said} Measure again with only the upgrade different.`,
      };
    case 'notComparable':
      return {
        tone: 'open',
        mark: 'Cannot compare',
        sentence: 'The two tests cannot be compared.',
        detail: 'Measure again at the same place, in the same way, with every condition ticked.',
      };
  }
};

/** The result of the particle counts in the exhaust. */
export const sayParticles = ({ before, after, times, outcome }: ParticleProof): string => {
  const shares = `${sayShare(before.ratio)} of the room’s particles came out before and ${sayShare(after.ratio)} after`;
  const to = Number.isFinite(times.high) ? `${toDigits(times.high, 2)}` : 'any number of';
  const range = `${toDigits(times.low, 2)} to ${to} times as many, 9 times in 10`;
  switch (outcome) {
    case 'more':
      return `${shares}: more, ${range}. Put it back, and look at the seats.`;
    case 'less':
      return `${shares}: fewer, ${range}.`;
    case 'cannotTell':
      return `${shares}: the counts cannot tell them apart (${range}). Count longer.`;
  }
};

export const PHASE_WORDS: Readonly<Record<UpgradePhase, string>> = {
  planned: 'planned',
  booked: 'made',
  undone: 'undone',
  dropped: 'dropped',
};
