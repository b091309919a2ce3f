import { describe, expect, it } from 'vitest';
import { type Deed, entails } from '@/core/deed/entails';
import { snapshotOf } from '@/core/machine/path-edit';
import { assemble } from '@/core/procedure/assemble';
import { PART_MOVES, type PartMove, type Step } from '@/core/procedure/step';
import { machineOfKind } from '../../support/jobs';

// One account of what a thing done means. Facts: EN 60335-2-69 tests the appliance with its filter (from memory); handbook of
// the trade, sections 9 to 11, 13; common practice, no published source.

const h = machineOfKind('hExtractor');
const at = (kind: string) => h.stages.findIndex((s) => s.kind === kind);
const [bag, filter] = [at('bag'), at('mainFilter')];
const step = (moves: PartMove, stage: number): Deed => ({
  kind: 'step',
  step: { key: 'fitNew', run: 'off', stage, because: 'method', moves } satisfies Step,
});

describe('what a deed entails', () => {
  it('a seat that carries the class is screened again by whatever hands did to it; a bag is not', () => {
    for (const move of ['bagOld', 'holdOld', 'fitNew', 'putOldBack'] as const) {
      expect([move, entails(h, step(move, filter)).suspends]).toEqual([move, [filter]]);
      expect([move, entails(h, step(move, bag)).suspends]).toEqual([move, []]);
    }
    for (const move of ['takeNew', 'disposeOld', 'returnNew'] as const)
      expect([move, entails(h, step(move, filter)).seats]).toEqual([move, []]);
  });

  it('without a class the filter that guards the room is screened in contained dust only', () => {
    const shop = machineOfKind('shopVacuum');
    const cartridge = shop.stages.findIndex((s) => s.kind === 'mainFilter');
    const suspends = (hazard: 'plain' | 'controlled' | 'contained') =>
      entails({ ...shop, hazard }, step('fitNew', cartridge)).suspends;
    expect([suspends('plain'), suspends('controlled'), suspends('contained')]).toEqual([[], [], [cartridge]]);
  });

  it('the shelf: a part taken leaves it once, and comes back once, given up or returned', () => {
    const stock = (deed: Deed) => entails(h, deed).stock.map((s) => s.quantity);
    expect(PART_MOVES.map((m) => [m, ...stock(step(m, bag))]).filter((x) => x.length > 1)).toEqual([
      ['takeNew', -1],
      ['returnNew', 1],
    ]);
    const moved = (...moves: readonly PartMove[]) => ({
      kind: 'givenUp' as const,
      state: { moves: moves.map((move) => ({ move, stage: bag, at: '' })) },
    });
    expect(stock(moved('takeNew'))).toEqual([1]);
    // Taken and returned, or fitted, and then given up: nothing more comes back.
    expect(stock(moved('takeNew', 'returnNew'))).toEqual([]);
    expect(stock(moved('takeNew', 'fitNew'))).toEqual([]);
    expect(stock({ kind: 'changed', stage: bag, quantity: 2 })).toEqual([-2]);
    expect(stock({ kind: 'found', event: { kind: 'trialIn', position: filter } })).toEqual([-1]);
    expect(stock({ kind: 'found', event: { kind: 'trialBack', position: filter } })).toEqual([1]);
  });

  it('a decontamination clears only when nothing was left out, not even its screening; nothing else clears', () => {
    const ended = (kind: 'decontamination' | 'service', leftOut: number) => {
      const made = assemble(h, { kind }, 'contained');
      if (!made.ok) throw new Error(kind);
      const state = { leftOut: new Map(Array.from({ length: leftOut }, (_, i) => [i, 'no time'] as const)) };
      return entails(h, { kind: 'finished', procedure: made.value, state }).clears;
    };
    expect([ended('decontamination', 0), ended('decontamination', 1), ended('service', 0)]).toEqual([
      true,
      false,
      false,
    ]);
  });

  it('finding opens seats too: a filter weighed, taken out, seated again; a look at the bag does not', () => {
    const seats = (deed: Deed) => entails(h, deed).suspends;
    const saw = (kind: 'weigh' | 'takeOut' | 'cleanSide' | 'lookBag'): Deed => ({
      kind: 'found',
      event: {
        kind: 'saw',
        operation: { kind, position: filter },
        outcome: { kind: 'word', word: 'clear' },
        typed: '',
        note: '',
      } as never,
    });
    expect(['weigh', 'takeOut', 'cleanSide', 'lookBag'].map((k) => seats(saw(k as never)).length)).toEqual([
      1, 1, 1, 0,
    ]);
    const repaired = (kind: 'reseat' | 'newSeal' | 'clear'): Deed => ({
      kind: 'found',
      event: { kind: 'repaired', repair: { kind, position: filter } } as never,
    });
    expect(['reseat', 'newSeal', 'clear'].map((k) => seats(repaired(k as never)).length)).toEqual([1, 1, 0]);
  });

  it('an upgrade opens what it changes, and every filter that a new one is reached past', () => {
    const from = snapshotOf(h);
    const exchanged = {
      ...from,
      stages: from.stages.map((s, i) => (i === filter ? { ...s, missing: true } : s)),
    };
    expect(entails(h, { kind: 'rebuilt', from, to: exchanged }).seats).toEqual([filter]);
    const [first] = from.stages;
    const added = first && { ...first, id: null, kind: 'hepa' as const, spec: from.stages[filter]?.spec ?? first.spec };
    const more = { ...from, stages: added ? [...from.stages, added] : from.stages };
    expect(entails(h, { kind: 'rebuilt', from, to: more }).seats).toEqual([bag, filter]);
    expect(entails(h, { kind: 'rebuilt', from, to: from }).seats).toEqual([]);
  });
});
