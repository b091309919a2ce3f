import { toDigits } from '@/core/units';
import type { FailureCode } from '@/core/failure/failure';
import { type Facts, text, type Text } from './facts';

const RING_FIELDS: Readonly<Record<string, string>> = {
  filter: 'The diameter of the canister',
  rim: 'The inner diameter of the rim',
  bead: 'The diameter inside the bead',
  gasket: 'The diameter of the gasket',
  gasketWidth: 'The width of the gasket',
  sheet: 'The thickness of the sheet',
  brackets: 'The number of brackets',
  screw: 'The thread of the screws',
  boardWidth: 'The width of the board',
  boardHeight: 'The height of the board',
};

const CHANGE_FIELDS: Readonly<Record<string, string>> = {
  stageId: 'The stage',
  medium: 'The medium',
  areaM2: 'The area',
  inletBoreM: 'The bore of its inlet',
  lossK: 'Its loss',
  share: 'The share of the dust it takes',
  boreM: 'The bore',
  lengthM: 'The length',
  leakM2: 'The leak that is left',
  volumeM3: 'The volume',
};

const mm = (fact: Facts[string] | undefined): string => `${toDigits(1000 * Number(fact), 4)} mm`;
const limit = (f: Facts, key: string): string => (text(f['field']) === 'brackets' ? text(f[key]) : mm(f[key]));

/** Refusals of the upgrade desk. */
export const UPGRADE_TEXTS = {
  'upgrade.no-place': () => [
    'No place for it',
    'This change does not fit the present path of the machine.',
    'Look at its air path: the stage it wants is not there, or is there already.',
  ],
  'upgrade.keep': (f) => [
    'Must stay in',
    f['level'] === 'plain' || f['level'] === undefined
      ? `${text(f['stage'])} must not come out: the machine never runs without its filter.`
      : `${text(f['stage'])} must not come out: it holds ${text(f['level'])} dust, or guards the room from it.`,
    'Leave it in, or put another one in its place.',
  ],
  'upgrade.stale': () => [
    'Changed meanwhile',
    'The machine was changed after this was planned: what was predicted no longer holds. Nothing was changed.',
    'Plan it again for the present machine.',
  ],
  'upgrade.unknown': () => ['No such upgrade', 'That upgrade is not on file.', 'Open the list of upgrades.'],
  'upgrade.phase': () => [
    'Not now',
    'Somebody was here before you: this upgrade has moved on. Nothing was changed.',
    'Reload the page.',
  ],
  'upgrade.measure-first': (f) => [
    'Measure first',
    `${text(f['tag'])} has no usable flow test since it was last changed, or no baseline: without one nothing can be predicted, and nothing proven afterwards.`,
    'Measure the machine before the change. This cannot be done later.',
  ],
  'upgrade.change': (f) => [
    'Not believed',
    `${CHANGE_FIELDS[text(f['field'])] ?? 'A figure'} is missing, or is not believed.`,
    'Type it with its unit.',
  ],
  'ring.missing': (f) => [
    'Missing',
    `${RING_FIELDS[text(f['field'])] ?? 'A figure'} is missing.`,
    'Measure it and type it with its unit.',
  ],
  'ring.figure': (f) => [
    'Not believed',
    `${RING_FIELDS[text(f['field'])] ?? 'A figure'} lies between ${limit(f, 'low')} and ${limit(f, 'high')}.`,
    'Measure it again.',
  ],
  'ring.no-gap': () => [
    'Nothing to bridge',
    'The canister is as wide as the rim: it does not go in, and it does not sit on top.',
    'Measure both again, at three places each.',
  ],
  'ring.thin': (f) => [
    'Too narrow for the screws',
    `The screws have ${mm(f['haveM'])} of wood beside them; they need ${mm(f['needM'])}, in a sheet of ${mm(f['sheetM'])} or more.`,
    'Take a thinner screw or a thicker sheet, or hold the canister with latches on the drum.',
  ],
  'ring.gasket': () => [
    'Gasket off the ring',
    'The hole of the ring would not stay inside the gasket, or the gasket reaches past the ring: it would leak.',
    'Measure the gasket again: its middle diameter, and its width.',
  ],
  'ring.board': () => ['Board too small', 'The rings do not come out of this board.', 'Take a larger board.'],
} as const satisfies Partial<Record<FailureCode, (f: Facts) => Text>>;
