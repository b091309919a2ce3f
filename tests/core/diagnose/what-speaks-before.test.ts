import { describe, expect, it } from 'vitest';
import type { CaseEvent, CaseRecord } from '@/core/diagnose/case-log';
import { caseOfSetup, caseSetup, type SetupInput, traitsOf } from '@/core/diagnose/case-setup';
import { subjectOf } from '@/core/diagnose/subject';
import { complainedOf, complaintFactor, inBand, wordsFactor } from '@/core/diagnose/complaint';
import type { FaultKind, FaultPlace } from '@/core/diagnose/fault';
import { NO_RECORD, recordFactor } from '@/core/diagnose/record-prior';
import type { StageDue } from '@/core/interval/due';
import { templateParameters } from '@/core/path/pressure-profile';
import type { ChangeRecord } from '@/core/record/records';
import { modelOf, templateMachine } from '../../support/machines';

// What speaks for a fault before anything is tested: the record, the complaint, the words (common practice, no
// published source; the weights are Moorwind defaults, their order is the trade's).

const place = (kind: FaultKind, position: number): FaultPlace => ({ kind, position, severities: [1], weight: 1 });
const machine = templateMachine('mExtractor', { machineClass: 'M' });
const model = modelOf(machine);
const at = (kind: string) => model.stages.findIndex((s) => s.kind === kind);
const medium = (position: number) => model.stages[position]?.spec.air.form === 'medium';
const NOW = '2026-11-24T10:00:00.000Z';

describe('the record of the machine', () => {
  const stages = (over: Partial<{ lifeUsed: number | null; justOpened: boolean }>) => ({
    ...NO_RECORD,
    stages: model.stages.map((_, i) => ({ lifeUsed: null, justOpened: false, ...(i === at('bag') ? over : {}) })),
  });
  const factor = (record: Parameters<typeof recordFactor>[0], kind: FaultKind, position = at('bag')) =>
    recordFactor(record, medium)(place(kind, position));

  it('says nothing where nothing is known', () => {
    for (const kind of ['blocked', 'torn', 'misseated', 'weakFan'] as const) expect(factor(NO_RECORD, kind)).toBe(1);
    expect(factor(stages({}), 'blocked')).toBe(1);
  });

  it('a bag at the start of its life is seldom blocked, one at its end often, and no surer after that', () => {
    const used = (lifeUsed: number) => factor(stages({ lifeUsed }), 'blocked');
    expect(used(0)).toBeCloseTo(0.35, 9);
    expect(used(1.2)).toBeCloseTo(3, 9);
    expect(used(5)).toBe(used(1.2));
    expect(used(-1)).toBe(used(0));
    // Straight on a logarithm: the middle of its life is the geometric mean.
    expect(used(0.6)).toBeCloseTo(Math.sqrt(0.35 * 3), 9);
    // A life says nothing of a hose, nor of a tear.
    expect(factor(stages({ lifeUsed: 1 }), 'torn')).toBe(1);
    expect(factor(stages({ lifeUsed: 1 }), 'blocked', at('hose'))).toBe(1);
  });

  it('what was just opened was done wrong more often: seat, seal, arrow, missing part; not torn, not blocked', () => {
    const just = stages({ justOpened: true });
    for (const kind of ['misseated', 'missing', 'reversed', 'leakingSeal', 'wrongSelector'] as const)
      expect(factor(just, kind)).toBeCloseTo(3.5, 9);
    for (const kind of ['torn', 'blocked', 'weakFan'] as const) expect(factor(just, kind)).toBe(1);
    expect(factor(just, 'misseated', at('mainFilter'))).toBe(1);
  });

  it('wet work and filler block a medium, and no hose', () => {
    expect(factor({ ...NO_RECORD, wet: true }, 'blocked')).toBeCloseTo(2, 9);
    expect(factor({ ...NO_RECORD, blinding: true }, 'blocked')).toBeCloseTo(1.5, 9);
    expect(factor({ ...NO_RECORD, wet: true, blinding: true }, 'blocked')).toBeCloseTo(3, 9);
    expect(factor({ ...NO_RECORD, wet: true }, 'blocked', at('hose'))).toBe(1);
    expect(factor({ ...NO_RECORD, wet: true }, 'torn')).toBe(1);
  });

  it('what was the cause before comes again, up to three times over', () => {
    const again = (weight: number, over = {}) =>
      factor({ ...NO_RECORD, causes: [{ kind: 'blocked', position: at('bag'), weight, ...over }] }, 'blocked');
    expect(again(1)).toBeCloseTo(2.2, 9);
    expect(again(0.5)).toBeCloseTo(1.6, 9);
    expect(again(9)).toBeCloseTo(1 + 1.2 * 3, 9);
    expect(again(1, { position: at('hose') })).toBe(1);
    expect(again(1, { kind: 'torn' })).toBe(1);
  });
});

describe('the complaint and its words', () => {
  const speaks = (complaint: Parameters<typeof complaintFactor>[0], kind: FaultKind, position = at('bag')) =>
    complaintFactor(complaint, model)(place(kind, position));
  it('a light speaks for the light, dust in the air for what lets dust past, a labouring motor for its bearings', () => {
    expect(speaks('light', 'indicatorOut')).toBeGreaterThan(speaks('noSuction', 'indicatorOut') * 10);
    expect(speaks('dust', 'torn', at('mainFilter'))).toBeGreaterThan(
      speaks('noSuction', 'torn', at('mainFilter')) * 10,
    );
    expect(speaks('labours', 'bearings', at('fan'))).toBeGreaterThan(speaks('round', 'bearings', at('fan')) * 5);
    expect(speaks('noSuction', 'blocked')).toBe(1);
    expect(speaks('round', 'blocked')).toBe(1);
  });

  it.each<[string, FaultKind, number]>([
    ['it rattles', 'bearings', 4],
    ['a hiss at the lid', 'leakingSeal', 2],
    ['weak since after the new bag', 'misseated', 2],
    ['weak after change', 'missing', 2],
    ['it sucked up a rag', 'torn', 1.5],
    ['the roller stands', 'brushJammed', 4],
    ['on a long extension lead', 'lowVoltage', 5],
    ['a second tool on the ring main', 'lowSupply', 3],
    ['with the other hose, borrowed', 'wrongSelector', 3],
    ['it stinks', 'spentGas', 3],
    ['smells hot, sparks', 'weakFan', 2],
    ['smells hot, sparks', 'spentGas', 3],
    ['nothing said of it', 'bearings', 1],
    ['it rattles', 'blocked', 1],
  ])('"%s" speaks for %s: %d', (words, kind, factor) => {
    expect(wordsFactor(words)(place(kind, 0))).toBeCloseTo(factor, 9);
  });

  it('two things said speak twice', () => {
    expect(wordsFactor('rattles, gets hot')(place('bearings', 0))).toBeCloseTo(8, 9);
  });

  it('a light that is only out of order is harmless, unless the light is what is complained of', () => {
    expect([complainedOf('light', 'indicatorOut'), complainedOf('light', 'bearings')]).toEqual([true, false]);
    expect([complainedOf('labours', 'bearings'), complainedOf('noSuction', 'bearings')]).toEqual([true, false]);
  });

  it('the flow is back from 90 % of the sound one; a word is back where it says so', () => {
    const flow = (share: number) =>
      inBand({ kind: 'flow', place: 'toolEnd' }, { kind: 'number', valueSi: share * 0.03 }, 0.03);
    const [back, short] = [flow(0.9), flow(0.8)];
    expect([back, short]).toEqual([true, false]);
    const word = (kind: 'lamp' | 'smell' | 'particles' | 'listen' | 'hand', said: string) =>
      inBand({ kind, place: 'inlet' } as never, { kind: 'word', word: said }, 0);
    expect([word('smell', 'none'), word('smell', 'smells')]).toEqual([true, false]);
    expect([word('particles', 'below'), word('particles', 'above')]).toEqual([true, false]);
  });
});

describe('what a case is set up from', () => {
  const closed = (root: { kind: FaultKind; position: number } | null, id = 1): CaseRecord => {
    const event: CaseEvent = { kind: 'closed', rootCause: 'x', root, followUp: '', snapshot: [] };
    return {
      id,
      machineId: 1,
      openedAt: NOW,
      by: 'MK',
      complaint: 'noSuction',
      words: '',
      hazard: 'plain',
      lastCollected: 'dust',
      school: 'best',
      events: [{ id: 1, at: NOW, by: 'MK', event }],
    };
  };
  const change = (stageId: number, performedAt: string, over: Partial<ChangeRecord> = {}): ChangeRecord =>
    ({ id: 1, stageId, performedAt, supersededById: null, voided: false, ...over }) as ChangeRecord;
  const input = (over: Partial<SetupInput> = {}): SetupInput => ({
    machine,
    modelled: { model, parameters: templateParameters(model, 12e-6), basis: { kind: 'calibrated' } as never },
    tests: [],
    changes: [],
    due: [],
    own: [],
    twins: [],
    at: NOW,
    ...over,
  });

  it('the traits of a machine decide which tests it has', () => {
    expect(traitsOf(machine)).toEqual({ hasLamp: true, hasBrush: false, selectorM: 0.027, machineClass: 'M' });
    expect(traitsOf(templateMachine('shopVacuum', { hasBrush: true, hoseSelectorM: null })).hasLamp).toBe(false);
  });

  it('says whether it stands on its own baselines, and what a stage has used of its life', () => {
    const bag = machine.stages[at('bag')];
    const due = [{ stageId: bag?.id, remaining: 0.25 }] as unknown as readonly StageDue[];
    const setup = caseSetup(input({ due }));
    expect(setup.calibrated).toBe(true);
    expect(
      caseSetup(input({ modelled: { ...input().modelled, basis: { kind: 'template' } as never } })).calibrated,
    ).toBe(false);
    expect(setup.record.stages[at('bag')]?.lifeUsed).toBe(0.75);
    expect(setup.record.stages[at('hose')]?.lifeUsed).toBeNull();
    const fresh = [{ stageId: bag?.id, remaining: 1.4 }] as unknown as readonly StageDue[];
    expect(caseSetup(input({ due: fresh })).record.stages[at('bag')]?.lifeUsed).toBe(0);
  });

  it('a stage was just opened if it was changed within four days before the complaint, and the change stands', () => {
    const { id } = machine.stages[at('bag')] ?? { id: 0 };
    const just = (performedAt: string, over: Partial<ChangeRecord> = {}) =>
      caseSetup(input({ changes: [change(id, performedAt, over)] })).record.stages[at('bag')]?.justOpened;
    expect(just('2026-11-23T10:00:00.000Z')).toBe(true);
    expect(just('2026-11-20T10:00:00.000Z')).toBe(true);
    expect(just('2026-11-20T09:59:59.000Z')).toBe(false);
    expect(just('2026-11-24T11:00:00.000Z')).toBe(false);
    expect(just('2026-11-23T10:00:00.000Z', { voided: true })).toBe(false);
    expect(
      caseSetup(input({ changes: [change(99, '2026-11-23T10:00:00.000Z')] })).record.stages[at('bag')]?.justOpened,
    ).toBe(false);
  });

  it('causes of its own closed cases count whole, those of its twins half; open ones and those without a root not', () => {
    const root = { kind: 'blocked' as const, position: at('bag') };
    const { causes } = caseSetup(
      input({
        own: [closed(root), { ...closed(root), events: [] }],
        twins: [closed({ ...root, position: at('hose') }), closed(null)],
      }),
    ).record;
    expect(causes).toEqual([
      { ...root, weight: 1 },
      { kind: 'blocked', position: at('hose'), weight: 0.5 },
    ]);
  });

  it('wet set or wet dust is wet; filler, gypsum and silica blind', () => {
    expect(caseSetup(input()).record).toMatchObject({ wet: false, blinding: false });
    expect(caseSetup(input({ machine: { ...machine, wetSet: true } })).record.wet).toBe(true);
    const collected = (key: string, properties: readonly string[]) =>
      caseSetup(
        input({
          machine: {
            ...machine,
            dust: { ...machine.dust, standing: { ...machine.dust.standing, dusts: [{ key, properties }] as never } },
          },
        }),
      ).record;
    expect(collected('slurry', ['wet'])).toMatchObject({ wet: true, blinding: false });
    for (const key of ['filler', 'gypsum', 'silica']) expect(collected(key, []).blinding).toBe(true);
    expect(collected('softwood', ['burns'])).toMatchObject({ wet: false, blinding: false });
  });

  it('opens the weighing with record, complaint and words together', () => {
    const setup = caseSetup(input());
    expect(subjectOf(setup)).toMatchObject({ hoseM: 0.036, nominalVolts: 230, calibrated: true, traits: setup.traits });
    const prior = (words: string, record = setup.record) => {
      const c = caseOfSetup({ ...setup, record }, { complaint: 'round', words });
      const of = (kind: FaultKind) =>
        c.hypotheses
          .filter((h) => h.faults.length === 1 && h.faults[0]?.kind === kind)
          .reduce((sum, h) => sum + h.prior, 0);
      return of('bearings') / of('weakFan');
    };
    expect(prior('it rattles') / prior('')).toBeCloseTo(4, 6);
    const before = [{ kind: 'bearings' as const, position: at('fan'), weight: 1 }];
    expect(prior('', { ...setup.record, causes: before }) / prior('')).toBeCloseTo(2.2, 6);
    expect(prior('it rattles', { ...setup.record, causes: before }) / prior('')).toBeCloseTo(8.8, 6);
  });
});
