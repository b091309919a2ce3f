import { describe, expect, it } from 'vitest';
import * as names from '@/contracts/enums';
import { PreconditionJson } from '@/contracts/json-columns';
import { MACHINE_KINDS } from '@/core/machine/kinds';
import { METHODS, preconditionsFor } from '@/core/measure/methods';
import { PLACES } from '@/core/measure/place';
import { STAGE_KINDS } from '@/core/path/stage-kinds';
import { CHANGE_REASONS } from '@/core/record/records';
import { UNITS } from '@/core/units';

const sorted = (list: readonly string[]) => [...list].sort();

describe('the names at the door are the names in the core', () => {
  it.each([
    ['machine kinds', names.MachineKindName.options, Object.keys(MACHINE_KINDS)],
    ['stage kinds', names.StageKindName.options, Object.keys(STAGE_KINDS)],
    ['methods', names.MethodName.options, Object.keys(METHODS)],
    ['places', names.PlaceName.options, PLACES],
    ['reasons', names.ChangeReasonName.options, CHANGE_REASONS],
    ['quantities', names.QuantityKindName.options, Object.keys(UNITS)],
    ['preconditions', PreconditionJson.options, preconditionsFor({ method: 'flowMeter', hasBrush: true })],
  ])('%s', (_name, door, core) => {
    expect(door.length).toBeGreaterThan(1);
    expect(sorted(door)).toEqual(sorted(core));
  });
});
