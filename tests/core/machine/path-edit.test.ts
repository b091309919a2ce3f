import { describe, expect, it } from 'vitest';
import {
  type EditedMachine,
  type EditedStage,
  type PathDifference,
  pathDifferences,
  type PathSnapshot,
  reshapes,
  snapshotOf,
} from '@/core/machine/path-edit';
import { templateMachine } from '../../support/machines';

const BEFORE = snapshotOf(templateMachine('mExtractor'));
const named = (name: string) => BEFORE.stages.findIndex((s) => s.name === name);
const edited = (
  change: (stages: EditedStage[], machine: EditedMachine) => EditedStage[] | EditedMachine,
): PathSnapshot => {
  const made = change([...BEFORE.stages], BEFORE.machine);
  return Array.isArray(made) ? { ...BEFORE, stages: made } : { ...BEFORE, machine: made };
};
const differs = (after: PathSnapshot) => pathDifferences(BEFORE, after);
const set = (name: string, over: Partial<EditedStage>) =>
  edited((stages) => stages.map((s) => (s.name === name ? { ...s, ...over } : s)));
const machine = (over: Partial<EditedMachine>) => edited((_, m) => ({ ...m, ...over }));
const added: EditedStage = {
  id: null,
  kind: 'prefilter',
  name: 'fleece wrap',
  partId: null,
  missing: false,
  doNotRemove: false,
  spec: BEFORE.stages[named('mainFilter')]?.spec ?? (undefined as never),
};

describe('a machine as the editor holds it', () => {
  it('keeps every field of the machine and each stage in its order, without its records', () => {
    const whole = templateMachine('mExtractor', {
      name: 'Plover',
      wetSet: true,
      nominalVolts: 115,
      hoseSelectorM: null,
    });
    const s = snapshotOf(whole);
    expect(s.machine).toEqual({
      name: 'Plover',
      maker: 'Maker A',
      place: 'here',
      machineClass: 'M',
      hasBrush: false,
      wetSet: true,
      hoseBoreM: 0.036,
      hoseLengthM: 4,
      hoseSelectorM: null,
      nominalVolts: 115,
    });
    expect(s.stages.map((x) => x.id)).toEqual(whole.stages.map((x) => x.id));
    expect(Object.keys(s.stages[0] ?? {}).sort()).toEqual(
      ['doNotRemove', 'id', 'kind', 'missing', 'name', 'partId', 'spec'].sort(),
    );
  });
});

describe('what an edit changed', () => {
  it('nothing, where nothing was changed', () => {
    expect(differs(BEFORE)).toEqual([]);
    expect(reshapes([])).toBe(false);
  });

  const bag = BEFORE.stages[named('bag')];
  it.each<[string, PathSnapshot, readonly PathDifference[], boolean]>([
    [
      'a stage added',
      edited((s) => [...s.slice(0, 3), added, ...s.slice(3)]),
      [{ kind: 'added', stage: 'fleece wrap' }],
      true,
    ],
    ['a stage taken away', edited((s) => s.filter((x) => x.name !== 'bag')), [{ kind: 'removed', stage: 'bag' }], true],
    ['a stage noted missing', set('bag', { missing: true }), [{ kind: 'missing', stage: 'bag' }], false],
    ['another name', set('bag', { name: 'paper bag' }), [{ kind: 'renamed', stage: 'paper bag', was: 'bag' }], false],
    ['another part', set('bag', { partId: 7 }), [{ kind: 'refitted', stage: 'bag' }], false],
    ['do not remove', set('bag', { doNotRemove: true }), [{ kind: 'refitted', stage: 'bag' }], false],
    ['a wider hose', machine({ hoseBoreM: 0.05 }), [{ kind: 'machine', field: 'hoseBoreM' }], true],
    ['a longer hose', machine({ hoseLengthM: 10 }), [{ kind: 'machine', field: 'hoseLengthM' }], true],
    ['another place', machine({ place: 'barge' }), [{ kind: 'machine', field: 'place' }], false],
    ['another class', machine({ machineClass: null }), [{ kind: 'machine', field: 'machineClass' }], false],
  ])('%s', (_what, after, differences, reshaped) => {
    expect(differs(after)).toEqual(differences);
    expect(reshapes(differs(after))).toBe(reshaped);
  });

  it('a stage that was missing and is back', () => {
    const gone = set('bag', { missing: true });
    expect(pathDifferences(gone, BEFORE)).toEqual([{ kind: 'restored', stage: 'bag' }]);
  });

  it('a medium of another area, a seat of another fit, both at once', () => {
    if (bag?.spec.air.form !== 'medium') throw new Error('no medium');
    const larger = { ...bag.spec, air: { ...bag.spec.air, areaM2: bag.spec.air.areaM2 * 2 } };
    const sealed = { ...bag.spec, fit: { ...bag.spec.fit, seals: bag.spec.fit.seals + 1 } };
    expect(differs(set('bag', { spec: larger }))).toEqual([{ kind: 'resized', stage: 'bag' }]);
    expect(differs(set('bag', { spec: sealed }))).toEqual([{ kind: 'refitted', stage: 'bag' }]);
    expect(differs(set('bag', { spec: { air: larger.air, fit: sealed.fit } }))).toEqual([
      { kind: 'resized', stage: 'bag' },
      { kind: 'refitted', stage: 'bag' },
    ]);
    expect(reshapes(differs(set('bag', { spec: sealed })))).toBe(false);
  });

  it('two stages that changed places are moved, and adding or removing one moves nothing', () => {
    const swapped = edited((s) => {
      const [a, b] = [named('bag'), named('mainFilter')];
      const [x, y] = [s[a], s[b]];
      return s.map((stage, i) => (i === a && y ? y : i === b && x ? x : stage));
    });
    expect(differs(swapped)).toEqual([{ kind: 'moved' }]);
    expect(reshapes(differs(swapped))).toBe(true);
    const both = edited((s) => [added, ...s.filter((x) => x.name !== 'bag')]);
    expect(differs(both).map((d) => d.kind)).toEqual(['added', 'removed']);
    // Swapped as one is added: still moved.
    expect(pathDifferences(BEFORE, { ...swapped, stages: [added, ...swapped.stages] }).map((d) => d.kind)).toEqual([
      'added',
      'moved',
    ]);
  });

  it('two stages that are new are two added ones, whatever their names', () => {
    const twice = edited((s) => [...s, added, added]);
    expect(differs(twice)).toEqual([
      { kind: 'added', stage: 'fleece wrap' },
      { kind: 'added', stage: 'fleece wrap' },
    ]);
    // A stage that was not there before and had no number either is no older one.
    expect(
      pathDifferences({ ...BEFORE, stages: [added] }, { ...BEFORE, stages: [added] }).map((d) => d.kind),
    ).toContain('added');
  });

  it.each([
    'name',
    'maker',
    'place',
    'machineClass',
    'hasBrush',
    'wetSet',
    'hoseBoreM',
    'hoseLengthM',
    'hoseSelectorM',
    'nominalVolts',
  ] as const)('sees another %s of the machine', (field) => {
    expect(differs(machine({ [field]: 'other' as never }))).toEqual([{ kind: 'machine', field }]);
  });
});
