import { describe, expect, it } from 'vitest';
import { assemble } from '@/core/procedure/assemble';
import {
  changeMadeBy,
  doNotRun,
  type JobEvent,
  type JobRecord,
  jobState,
  refuseJobEvent,
} from '@/core/procedure/job-log';
import { templateMachine } from '../../support/machines';

const base = templateMachine('hExtractor', { machineClass: 'H' });
const machine = {
  ...base,
  stages: base.stages.map((s) => (s.kind === 'bag' ? { ...s, part: { id: 1, code: 'B', name: 'bag' } } : s)),
};
const assembled = assemble(
  machine,
  { kind: 'change', stage: machine.stages.findIndex((s) => s.kind === 'bag'), school: 'off' },
  'contained',
);
if (!assembled.ok) throw new Error('not assembled');
const procedure = assembled.value;

const NOW = '2026-11-24T08:10:00.000Z';
const job = (...events: readonly (JobEvent | readonly [by: string, event: JobEvent])[]): JobRecord => ({
  id: 1,
  machineId: 1,
  startedAt: '2026-11-24T08:00:00.000Z',
  by: 'MK',
  lastCollected: 'copper antifouling',
  hazard: 'contained',
  reason: 'fill',
  people: 1,
  stages: machine.stages.map(({ id, name }) => ({ id, name })),
  procedure,
  events: events.map((e, i) => {
    const [by, event] = 'kind' in e ? (['MK', e] as const) : e;
    return { id: i + 1, at: NOW, by, event };
  }),
});
/** Everything up to a step, each check answered as right. */
const through = (to: number): readonly JobEvent[] =>
  procedure.steps
    .slice(0, to)
    .map((s, step) =>
      s.check === undefined ? { kind: 'did', step } : { kind: 'answered', step, right: true, note: '' },
    );
const at = (key: string) => procedure.steps.findIndex((s) => s.key === key);
const refused = (record: JobRecord, event: JobEvent, by = 'MK') => refuseJobEvent(record, { by, event, at: NOW });

describe('a job, step by step', () => {
  it('knows at every step what stands open, and says "do not run" from the first opening to the last closing', () => {
    const marks = procedure.steps.map((_, i) => doNotRun(jobState(job(...through(i)))));
    const [first, last] = [marks.indexOf(true), marks.lastIndexOf(true)];
    expect(first).toBe(at('open') + 1);
    expect(last).toBe(at('close'));
    expect(marks.slice(first, last + 1).every(Boolean)).toBe(true);
    expect(jobState(job(...through(at('bagOld') + 1))).moves.map((m) => m.move)).toEqual(['takeNew', 'bagOld']);
  });

  it('resumes where it stood: the state is the fold of what was written down, whatever was interrupted', () => {
    const whole = through(procedure.steps.length);
    whole.forEach((_, i) => {
      const cut = job(...whole.slice(0, i));
      expect(jobState(cut).at).toBe(i);
      expect(refused(cut, whole[i] as JobEvent)).toBeNull();
    });
    expect(refused(job(...whole), { kind: 'finished', wasteKg: null })).toBeNull();
  });

  it('takes no step out of order, no check as done, and no end before the end', () => {
    const check = procedure.steps.findIndex((s) => s.check !== undefined);
    expect(refused(job(), { kind: 'did', step: 2 })).toBe('notNext');
    expect(refused(job(...through(check)), { kind: 'did', step: check })).toBe('isCheck');
    expect(refused(job(), { kind: 'answered', step: 0, right: true, note: '' })).toBe('noCheck');
    expect(refused(job(...through(at('bagOld'))), { kind: 'finished', wasteKg: null })).toBe('unfinished');
    expect(refused(job(...through(at('bagOld'))), { kind: 'abandoned', because: 'fire alarm' })).toBe('openStill');
    expect(refused(job(), { kind: 'abandoned', because: 'called away' })).toBeNull();
    expect(refused(job({ kind: 'abandoned', because: 'called away' }), { kind: 'did', step: 0 })).toBe('ended');
  });

  it('a check that is not right is put right and asked again; one left out keeps its reason; back does it again', () => {
    const check = procedure.steps.findIndex((s) => s.check === 'collarStraight');
    const bent = job(...through(check), { kind: 'answered', step: check, right: false, note: 'bent' });
    expect(jobState(bent)).toMatchObject({ at: check, wrong: check });
    expect(refused(bent, { kind: 'answered', step: check, right: true, note: '' })).toBeNull();
    const left = job(...through(check), { kind: 'leftOut', step: check, because: 'cannot see it' });
    expect(jobState(left).leftOut.get(check)).toBe('cannot see it');
    const back = job(
      ...through(check),
      { kind: 'leftOut', step: check, because: 'cannot see it' },
      { kind: 'back', step: check - 1 },
    );
    expect(jobState(back)).toMatchObject({ at: check - 1, leftOut: new Map() });
    expect(refused(job(...through(3)), { kind: 'back', step: 5 })).toBe('notBack');
  });

  it('one has it in hand: a second tablet is told, and may take it over', () => {
    const mine = job(...through(2));
    expect(refused(mine, { kind: 'did', step: 2 }, 'TO')).toBe('notHolder');
    expect(refused(mine, { kind: 'tookOver' }, 'TO')).toBeNull();
    const theirs = job(...through(2), ['TO', { kind: 'tookOver' }]);
    expect(jobState(theirs).holder).toBe('TO');
    expect(refused(theirs, { kind: 'did', step: 2 }, 'TO')).toBeNull();
    expect(refused(theirs, { kind: 'did', step: 2 })).toBe('notHolder');
  });

  it('does not end while a part has no fate', () => {
    const short: JobRecord = {
      ...job(),
      procedure: { ...procedure, steps: procedure.steps.filter((s) => s.moves === 'takeNew') },
    };
    expect(
      refused(
        { ...short, events: [{ id: 1, at: '', by: 'MK', event: { kind: 'did', step: 0 } }] },
        { kind: 'finished', wasteKg: null },
      ),
    ).toBe('partOut');
  });

  it('washed, it is out of service until its time is up by the log, not by a tablet; who knows it is dry sooner says why', () => {
    const template = templateMachine('floorCleaner');
    const cleaner = {
      ...template,
      stages: template.stages.map((s) => ({ ...s, part: { id: 1, code: 'P', name: 'part' } })),
    };
    const wash = assemble(
      cleaner,
      { kind: 'wash', stage: cleaner.stages.findIndex((s) => s.kind === 'exhaustFilter') },
      'plain',
    );
    if (!wash.ok) throw new Error('no wash');
    const hung = wash.value.steps.findIndex((s) => s.key === 'startDrying');
    const wet: JobRecord = {
      ...job(),
      procedure: wash.value,
      events: wash.value.steps
        .slice(0, hung + 1)
        .map((_, step) => ({ id: step, at: NOW, by: 'MK', event: { kind: 'did', step } })),
    };
    expect(jobState(wet).driesUntil).toBe('2026-11-25T08:10:00.000Z');
    expect(doNotRun(jobState(wet))).toBe(true);
    const dry = { kind: 'answered', step: hung + 1, right: true, note: '' } as const;
    expect(refuseJobEvent(wet, { by: 'MK', at: '2026-11-25T08:09:59.000Z', event: dry })).toBe('wet');
    // A clock that was set back keeps it locked.
    expect(refuseJobEvent(wet, { by: 'MK', at: '2026-11-20T00:00:00.000Z', event: dry })).toBe('wet');
    expect(refuseJobEvent(wet, { by: 'MK', at: '2026-11-25T08:10:00.000Z', event: dry })).toBeNull();
    expect(
      refuseJobEvent(wet, { by: 'MK', at: NOW, event: { kind: 'leftOut', step: hung + 1, because: 'drying room' } }),
    ).toBeNull();
    expect(refuseJobEvent(wet, { by: 'MK', at: NOW, event: { kind: 'abandoned', because: 'home time' } })).toBe(
      'openStill',
    );
    const after: JobRecord = {
      ...wet,
      events: [...wet.events, { id: 99, at: '2026-11-25T08:10:00.000Z', by: 'MK', event: dry }],
    };
    expect(jobState(after).driesUntil).toBeNull();
  });

  it('turned back, the other end is walked: no way back over the turn, and no change is made', () => {
    const bare = templateMachine('fumeExtractor');
    const fume = {
      ...bare,
      stages: bare.stages.map((s) =>
        s.kind === 'prefilter' ? { ...s, part: { id: 2, code: 'P', name: 'pre-filter' } } : s,
      ),
    };
    const made = assemble(
      fume,
      { kind: 'change', stage: fume.stages.findIndex((s) => s.kind === 'prefilter'), school: 'off' },
      'controlled',
    );
    if (!made.ok) throw new Error('no stack');
    const { steps } = made.value;
    const proof = steps.findIndex((s) => s.check === 'lightOut');
    const upTo = steps
      .slice(0, proof)
      .map((s, step): JobEvent =>
        s.check === undefined ? { kind: 'did', step } : { kind: 'answered', step, right: true, note: '' },
      );
    const stack = (...more: readonly JobEvent[]): JobRecord => ({ ...job(...upTo, ...more), procedure: made.value });
    expect(refused(stack(), { kind: 'turnedBack', step: proof })).toBeNull();
    expect(refused(job(...through(3)), { kind: 'turnedBack', step: 3 })).toBe('noTurn');
    const turned = stack({ kind: 'turnedBack', step: proof });
    const { steps: walked, at: here } = jobState(turned);
    expect(
      walked
        .slice(proof)
        .map((s) => s.moves)
        .filter(Boolean),
    ).toEqual(['putOldBack', 'returnNew']);
    expect(here).toBe(proof);
    expect(refused(turned, { kind: 'back', step: proof - 1 })).toBe('notBack');
    expect(refused(turned, { kind: 'turnedBack', step: proof })).toBe('noTurn');
    // The new part that came out again must be back on the shelf before it ends.
    const lost = {
      ...turned,
      procedure: { ...made.value, turnBack: made.value.turnBack.filter((s) => s.moves !== 'returnNew') },
    };
    const walkedLost = jobState(lost)
      .steps.slice(proof)
      .map((s, i): JobEvent =>
        s.check === undefined
          ? { kind: 'did', step: proof + i }
          : { kind: 'answered', step: proof + i, right: true, note: '' },
      );
    expect(
      refused({ ...lost, events: [...lost.events, ...job(...walkedLost).events] }, { kind: 'finished', wasteKg: null }),
    ).toBe('partOut');
    expect(walked.flatMap((_, i) => changeMadeBy(walked, i, i >= proof) ?? [])).toEqual([]);
    // Straight on, the change is true only once the old part is let go.
    const changes = steps.flatMap((s, i) => (changeMadeBy(steps, i, false) ? [s.moves] : []));
    expect(changes).toEqual(['disposeOld']);
    expect(procedure.steps.flatMap((s, i) => (changeMadeBy(procedure.steps, i, false) ? [s.moves] : []))).toEqual([
      'fitNew',
    ]);
  });
});
