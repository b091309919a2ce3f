import { z } from 'zod';

/** The tests of fault finding by what they are done to: a place, a stage, or the whole machine. */

export const WherePlace = z.enum(['toolEnd', 'hoseEnd', 'inlet']);
export const PlacedTest = z.enum(['flow', 'hand', 'sealed']);
export const StagedTest = z.enum(['stageDp', 'gauge', 'purge', 'lookBag', 'weigh', 'takeOut', 'swap', 'cleanSide']);
export const BareTest = z.enum([
  'listen',
  'settings',
  'lookNozzle',
  'lookHose',
  'lamp',
  'lampCoverOff',
  'disc',
  'particles',
  'smell',
  'smoke',
  'voltage',
  'supply',
]);
