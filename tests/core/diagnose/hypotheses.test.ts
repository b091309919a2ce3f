import { describe, expect, it } from 'vitest';
import { type FaultKind, type FaultPlace, faultPlaces } from '@/core/diagnose/fault';
import { type Hypothesis, hypothesesOf } from '@/core/diagnose/hypotheses';
import { MACHINE_KINDS, type MachineKind } from '@/core/machine/kinds';
import { modelOf, templateMachine } from '../../support/machines';

const place = (kind: FaultKind, position: number, over: Partial<FaultPlace> = {}): FaultPlace => ({
  kind,
  position,
  severities: [0.3, 0.8],
  weight: 1,
  ...over,
});
const names = (h: Hypothesis) => h.faults.map((f) => `${f.kind} ${f.position}`).join(' + ');
const shareOf = (all: readonly Hypothesis[], of: (h: Hypothesis) => boolean) =>
  all.filter(of).reduce((sum, h) => sum + h.prior, 0);
const single = (all: readonly Hypothesis[], name: string) =>
  shareOf(all, (h) => h.faults.length === 1 && names(h) === name);

/** nozzle, bag, filter: the mouth in front, a bag that may let dust past, a filter behind it. */
const NOZZLE = place('blocked', 0);
const SEAT = place('misseated', 2);
const TEAR = place('torn', 2);
const FILTER = place('blocked', 3);

describe('every explanation before any evidence', () => {
  const all = hypothesesOf([NOZZLE, SEAT, FILTER]);

  it('adds up to 1, with nothing wrong, one fault, two, and the chain in shares of their own', () => {
    expect(shareOf(all, () => true)).toBeCloseTo(1, 12);
    expect(shareOf(all, (h) => h.faults.length === 0)).toBeCloseTo(0.05, 12);
    expect(shareOf(all, (h) => h.faults.length === 1)).toBeCloseTo(0.6, 12);
    expect(shareOf(all, (h) => h.faults.length === 2)).toBeCloseTo(0.32, 12);
    expect(shareOf(all, (h) => h.faults.length === 3)).toBeCloseTo(0.03, 12);
  });

  it('shares a fault evenly between its severities and the places of its hole', () => {
    const holed = hypothesesOf([place('hoseHoled', 1, { nodes: [1, 2] })]);
    const singles = holed.filter((h) => h.faults.length === 1);
    expect(singles.map((h) => [h.faults[0]?.node, h.faults[0]?.severity])).toEqual([
      [1, 0.3],
      [1, 0.8],
      [2, 0.3],
      [2, 0.8],
    ]);
    expect(new Set(singles.map((h) => h.prior.toFixed(12))).size).toBe(1);
  });

  it('weighs faults alone by their own weight, the record and the complaint', () => {
    const heavier = hypothesesOf([{ ...NOZZLE, weight: 4 }, FILTER]);
    expect(single(heavier, 'blocked 0') / single(heavier, 'blocked 3')).toBeCloseTo(4, 9);
    const spoken = hypothesesOf([NOZZLE, FILTER], {
      record: (p) => (p.position === 0 ? 2 : 1),
      complaint: (p) => (p.position === 3 ? 5 : 1),
    });
    expect(single(spoken, 'blocked 3') / single(spoken, 'blocked 0')).toBeCloseTo(2.5, 9);
  });

  it('takes the complaint once for a pair: one of the two explains it, the other need not', () => {
    const places = [NOZZLE, SEAT, place('weakFan', 4)];
    const said = hypothesesOf(places, { record: () => 1, complaint: (p) => (p.kind === 'weakFan' ? 3 : 1) });
    const pairOf = (name: string) => shareOf(said, (h) => names(h) === name);
    // What nobody feels stands beside a complaint twice as often as by chance; two that are felt do not.
    expect(pairOf('blocked 0 + weakFan 4') / pairOf('blocked 0 + misseated 2')).toBeCloseTo(3 / 2, 9);
    expect(pairOf('misseated 2 + weakFan 4') / pairOf('blocked 0 + misseated 2')).toBeCloseTo(3, 9);
  });

  it('keeps what the record rules out alone, and says only "nothing" where nothing is possible', () => {
    const ruled = hypothesesOf([NOZZLE, FILTER], { record: (p) => (p.position === 0 ? 0 : 1), complaint: () => 1 });
    expect(ruled.some((h) => h.faults.some((f) => f.position === 0))).toBe(false);
    expect(shareOf(ruled, () => true)).toBeCloseTo(1, 12);
    expect(hypothesesOf([])).toEqual([{ faults: [], prior: 1 }]);
    expect(hypothesesOf([NOZZLE], { record: () => -1, complaint: () => 1 })).toEqual([{ faults: [], prior: 1 }]);
    expect(hypothesesOf([NOZZLE], { record: () => 1, complaint: () => 0 })).toEqual([{ faults: [], prior: 1 }]);
  });
});

describe('faults that follow from one another (common practice, no published source)', () => {
  it('are paired four times as often as by chance: dust past a bag loads what is behind, lost flow plugs what is in front', () => {
    const all = hypothesesOf([NOZZLE, SEAT, FILTER, place('weakFan', 4)]);
    const pair = (name: string) => shareOf(all, (h) => names(h) === name);
    const [unnoticed, felt] = [pair('misseated 2 + weakFan 4'), pair('blocked 0 + weakFan 4')];
    expect(unnoticed / felt).toBeCloseTo(2, 9);
    expect(pair('misseated 2 + blocked 3') / unnoticed).toBeCloseTo(4, 9);
    expect(pair('blocked 0 + blocked 3') / felt).toBeCloseTo(4, 9);
    expect(pair('blocked 0 + misseated 2') / unnoticed).toBeCloseTo(1, 9);
    // The bag behind the filter does not load it.
    const turned = hypothesesOf([place('blocked', 2), place('misseated', 3), place('weakFan', 4)]);
    const other = (name: string) => shareOf(turned, (h) => names(h) === name);
    expect(other('blocked 2 + misseated 3') / other('misseated 3 + weakFan 4')).toBeCloseTo(1, 9);
  });

  it('never pairs what cannot be together: a part that is missing is not blocked, and nothing is twice itself', () => {
    const all = hypothesesOf([place('missing', 2), place('blocked', 2), place('torn', 2), SEAT]);
    const pairs = all.filter((h) => h.faults.length === 2).map(names);
    expect(pairs.some((p) => p.includes('missing'))).toBe(false);
    expect(pairs).toContain('blocked 2 + torn 2');
    const twice = hypothesesOf([NOZZLE, NOZZLE]);
    expect(twice.some((h) => h.faults.length === 2)).toBe(false);
  });

  it('make the chain of the trade: a bag that lets dust past, the filter behind it loaded, the mouth plugged', () => {
    const all = hypothesesOf([NOZZLE, SEAT, TEAR, FILTER]);
    const chains = all.filter((h) => h.faults.length === 3);
    expect(new Set(chains.map(names))).toEqual(
      new Set(['misseated 2 + blocked 3 + blocked 0', 'torn 2 + blocked 3 + blocked 0']),
    );
    // Graded behind and in front, the cause half gone.
    expect(chains).toHaveLength(32);
    expect(new Set(chains.map((h) => h.faults[0]?.severity))).toEqual(new Set([0.55]));
    expect(new Set(chains.map((h) => `${h.faults[1]?.severity ?? 0}/${h.faults[2]?.severity ?? 0}`)).size).toBe(16);
  });

  it('weigh a chain by all three of its faults', () => {
    const share = (places: readonly FaultPlace[], name: string) =>
      shareOf(hypothesesOf(places), (h) => h.faults.length === 3 && names(h).startsWith(name));
    const heavier = [NOZZLE, { ...SEAT, weight: 3 }, TEAR, FILTER];
    expect(share(heavier, 'misseated') / share(heavier, 'torn')).toBeCloseTo(3, 9);
    // Two bags, two filters: the nearest filter behind each.
    const far = place('blocked', 5, { weight: 6 });
    const late = place('torn', 4);
    const both = [NOZZLE, { ...SEAT, weight: 1 }, FILTER, late, far];
    expect(share(both, 'torn 4 + blocked 5') / share(both, 'misseated 2 + blocked 3')).toBeCloseTo(6, 9);
    expect(share(both, 'misseated 2 + blocked 5')).toBe(0);
  });

  it.each([
    ['without a filter behind the bag', [NOZZLE, place('misseated', 4), FILTER]],
    ['without a mouth in front of the bag', [place('blocked', 2), place('misseated', 2), FILTER]],
    ['from a bag that is missing: the air simply goes by', [NOZZLE, place('missing', 2), FILTER]],
    ['with nothing that can be blocked', [SEAT, place('weakFan', 4)]],
  ])('makes no chain %s', (_what, places) => {
    expect(hypothesesOf(places).some((h) => h.faults.length === 3)).toBe(false);
  });
});

describe('on real machines', () => {
  it.each(Object.keys(MACHINE_KINDS) as MachineKind[])(
    '%s: no explanation twice, none outside its own path, priors to 1',
    (kind) => {
      const model = modelOf(templateMachine(kind));
      const all = hypothesesOf(
        faultPlaces(model, { hasLamp: true, hasBrush: false, selectorM: null, machineClass: null }),
      );
      const keys = all.map((h) =>
        h.faults
          .map((f) => `${f.kind} ${f.position} ${f.severity} ${f.node ?? ''}`)
          .sort()
          .join('+'),
      );
      expect(new Set(keys).size).toBe(keys.length);
      expect(
        all.every((h) => h.faults.every((f) => f.position >= 0 && f.position < model.stages.length && f.severity > 0)),
      ).toBe(true);
      expect(shareOf(all, () => true)).toBeCloseTo(1, 9);
      expect(all.every((h) => h.prior > 0)).toBe(true);
    },
  );
});
