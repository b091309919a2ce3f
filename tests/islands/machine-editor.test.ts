import { freeName } from '@/core/machine/new-path';
import { describe, expect, it } from 'vitest';
import { EditPathBody } from '@/contracts/machine-edit';
import { pointedAt, previewOf } from '@/islands/edit/preview';
import { type Draft, type EditAction, editReducer, snapshotOfDraft, startEdit, startNew } from '@/islands/edit/state';
import { templateMachine } from '../support/machines';

const signed = { by: 'MK', clientId: 'editor-action-1' };
const names = (d: Draft) => d.stages.map((s) => s.name);
const run = (start: Draft, ...actions: readonly EditAction[]) => actions.reduce(editReducer, start);
const keyOf = (d: Draft, name: string) => d.stages.find((s) => s.name === name)?.key ?? '';

describe('the machine editor', () => {
  const start = startEdit(templateMachine('hepaTank'), signed);

  it('starts as the machine is, and what it sends is what the server takes', () => {
    expect(names(start)).toEqual(['nozzle', 'hose', 'inlet', 'bag', 'prefilter', 'hepa', 'fan', 'exhaust']);
    const body = { clientId: start.clientId, by: 'MK', note: '', seen: 0, path: snapshotOfDraft(start) };
    expect(EditPathBody.parse(body)).toEqual(body);
  });

  it("begins another like it with stages of its own, nothing missing and no tag; the hose is the kind's until it is typed", () => {
    const model = templateMachine('hepaTank');
    const lacking = { ...model, stages: model.stages.map((s) => ({ ...s, missing: s.kind === 'bag' })) };
    const other = startNew({ ...signed, like: lacking });
    expect(names(other)).toEqual(names(start));
    expect(other).toMatchObject({ tag: '', kind: 'hepaTank', machine: start.machine });
    expect(other.stages.every((s) => s.id === null && !s.missing)).toBe(true);
    const bore = (...actions: readonly EditAction[]) => run(startNew(signed), ...actions).machine.hoseBoreM;
    expect(bore({ type: 'kind', kind: 'cycloneCollector' })).toBe(0.15);
    expect(bore({ type: 'machine', change: { hoseBoreM: 0.04 } }, { type: 'kind', kind: 'cycloneCollector' })).toBe(
      0.04,
    );
  });

  it('moves a stage to where it is dropped, and not beyond the ends', () => {
    const key = keyOf(start, 'hepa');
    expect(names(run(start, { type: 'move', key, to: 3 }))).toEqual([
      'nozzle',
      'hose',
      'inlet',
      'hepa',
      'bag',
      'prefilter',
      'fan',
      'exhaust',
    ]);
    expect(names(run(start, { type: 'move', key, to: 99 })).at(-1)).toBe('hepa');
    expect(names(run(start, { type: 'move', key: 'no such', to: 0 }))).toEqual(names(start));
  });

  it('adds from the templates before a stage or at the end, named apart, chosen at once; takes off; and forgets its bad fields', () => {
    const added = run(start, { type: 'add', kind: 'bag', before: keyOf(start, 'fan') });
    expect(names(added)).toEqual(['nozzle', 'hose', 'inlet', 'bag', 'prefilter', 'hepa', 'bag 2', 'fan', 'exhaust']);
    expect(added.selected).toBe(keyOf(added, 'bag 2'));
    expect(names(run(start, { type: 'add', kind: 'muffler', before: null })).at(-1)).toBe('muffler');
    const bad = run(added, { type: 'bad', field: `${keyOf(added, 'bag 2')}-area`, bad: true });
    expect(bad.bad.length).toBe(1);
    const off = run(bad, { type: 'remove', key: keyOf(added, 'bag 2') });
    expect(off).toMatchObject({ bad: [], selected: null });
    expect(freeName('bag', ['Bag', 'bag 2'])).toBe('bag 3');
  });

  it('another kind lays out another path; a refused save keeps everything and gets a new id', () => {
    const fresh = run(startNew(signed), { type: 'kind', kind: 'singleStageCollector' }, { type: 'tag', tag: 'CR-40' });
    expect(names(fresh)).toEqual(['hood', 'duct', 'fan', 'ring', 'bag', 'canister', 'exhaust']);
    const refused = run(fresh, { type: 'sending' }, { type: 'refused', problems: [], clientId: 'editor-action-2' });
    expect(refused).toMatchObject({ tag: 'CR-40', sending: false, clientId: 'editor-action-2', stages: fresh.stages });
  });

  it('says at once whether the path can be and what it would move, and points at the stage that cannot stand there', () => {
    expect(previewOf(start).stairs?.toolFlowM3s).toBeGreaterThan(0.02);
    const wrong = previewOf(run(start, { type: 'move', key: keyOf(start, 'hepa'), to: 3 }));
    expect(wrong.stairs).toBeNull();
    expect([...pointedAt(wrong.failures)]).toEqual([3]);
    expect(previewOf({ ...start, stages: [] }).failures.map((f) => f.code)).toEqual(['path.empty']);
    const wet = previewOf(run(start, { type: 'machine', change: { wetSet: true } }));
    expect(wet.failures.every((f) => f.code === 'path.paper-wet')).toBe(true);
  });
});
