import { describe, expect, it } from 'vitest';
import { type CaseEvent, type CaseRecord, caseState } from '@/core/diagnose/case-log';
import { swapStep, type SwapSoFar } from '@/core/diagnose/swap-steps';
import { findReducer, startFind } from '@/islands/find/state';

const record = (...events: readonly CaseEvent[]): CaseRecord => ({
  id: 1,
  machineId: 1,
  openedAt: '2026-11-24T08:00:00.000Z',
  by: 'MK',
  complaint: 'noSuction',
  words: '',
  hazard: 'plain',
  lastCollected: 'dust',
  school: 'best',
  events: events.map((event, i) => ({ id: i + 1, at: '2026-11-24T08:05:00.000Z', by: 'MK', event })),
});
const flow = (valueSi: number): CaseEvent => ({
  kind: 'saw',
  operation: { kind: 'flow', place: 'toolEnd' },
  outcome: { kind: 'number', valueSi },
  typed: '',
  note: '',
});
const out = (position: number): CaseEvent => ({
  kind: 'saw',
  operation: { kind: 'takeOut', position },
  outcome: { kind: 'number', valueSi: 0.02 },
  typed: '',
  note: '',
});
const part = (position: number) => ({ kind: 'newPart', position });

describe('the log of a case', () => {
  it('keeps track of what is out: each removal is seen with what was out before it, and comes back when it is said', () => {
    const s = caseState(record(flow(0.01), out(3), out(4), { kind: 'putBack', position: 3 }, flow(0.03)));
    expect(s.progress.evidence.map((e) => e.interventions.out)).toEqual([[], [], [3], [4]]);
    expect(s.progress.interventions.out).toEqual([4]);
  });

  it('a struck line stays and counts for nothing; a later one is not touched', () => {
    const s = caseState(record(flow(0.01), flow(0.02), { kind: 'struck', eventId: 1, because: 'kinked hose' }));
    expect(s.progress.evidence.map((e) => e.struck)).toEqual([true, false]);
    expect(s.evidenceIds).toEqual([1, 2]);
  });

  it('a repair is evidence of the machine before it, and changes the machine after it', () => {
    const s = caseState(
      record(
        flow(0.01),
        {
          kind: 'repaired',
          repair: { kind: 'newPart', position: 4 },
          fault: { kind: 'blocked', position: 4 },
          found: 'yes',
          changeId: null,
        },
        flow(0.03),
      ),
    );
    expect(s.progress.evidence.map((e) => [e.operation.kind, e.interventions.repairs.length])).toEqual([
      ['flow', 0],
      ['found', 0],
      ['flow', 1],
    ]);
    expect(s.progress.state).toBe('running');
    expect(
      caseState(
        record({
          kind: 'repaired',
          repair: { kind: 'clear', position: 0 },
          fault: { kind: 'blocked', position: 0 },
          found: 'unseen',
          changeId: null,
        }),
      ).progress.evidence,
    ).toEqual([]);
  });

  it('a trial part is a new part while it is in, and the original again when it went back to stock', () => {
    const tried = record(
      flow(0.01),
      { kind: 'trialIn', position: 2 },
      flow(0.011),
      { kind: 'trialBack', position: 2 },
      { kind: 'trialIn', position: 3 },
      flow(0.03),
      { kind: 'trialKept', position: 3, changeId: 9 },
    );
    const s = caseState(tried);
    expect(s.progress.evidence.map((e) => e.interventions.repairs)).toEqual([[], [part(2)], [part(3)]]);
    expect(s).toMatchObject({ trials: [], failedTrials: [2], progress: { interventions: { repairs: [part(3)] } } });
    expect(s.ended).toBeNull();
  });

  it('what was out and is repaired is in again; what else is out stays out, and the machine stands open or off by the repair', () => {
    const repaired = (repair: Extract<CaseEvent, { kind: 'repaired' }>['repair'], position: number): CaseEvent => ({
      kind: 'repaired',
      repair,
      fault: { kind: 'blocked', position },
      found: 'no',
      changeId: null,
    });
    const fitted = caseState(record(out(3), out(4), repaired({ kind: 'newPart', position: 3 }, 3)));
    expect(fitted.progress.interventions).toEqual({ out: [4], repairs: [part(3)] });
    // A compartment that was opened stays open until somebody runs the machine; what is done outside it leaves it off.
    expect(fitted.progress.state).toBe('open');
    expect(caseState(record(repaired({ kind: 'clear', position: 0 }, 0))).progress.state).toBe('off');
    expect(caseState(record(flow(0.02))).progress.state).toBe('running');
    // It looked right: that is evidence too, of the part as it was found, with what was out at that moment.
    expect(fitted.progress.evidence.at(-1)).toMatchObject({
      operation: { kind: 'found', fault: 'blocked', position: 3 },
      outcome: { kind: 'word', word: 'no' },
      interventions: { out: [3, 4], repairs: [] },
      struck: false,
    });
  });

  it('a part put back is open and in again; a part taken out twice is out once', () => {
    const s = caseState(record(out(3), out(3), { kind: 'putBack', position: 3 }));
    expect(s.progress.interventions.out).toEqual([]);
    expect(s.progress.state).toBe('open');
    expect(caseState(record(out(3), out(3))).progress.interventions.out).toEqual([3]);
  });

  it('a trial part counts as the only new part at its place, and leaves others alone', () => {
    const s = caseState(
      record(
        out(2),
        { kind: 'trialIn', position: 2 },
        { kind: 'trialIn', position: 3 },
        { kind: 'trialBack', position: 2 },
      ),
    );
    expect(s.progress.interventions).toEqual({ out: [], repairs: [part(3)] });
    expect(s.progress.state).toBe('open');
    expect([s.trials, s.failedTrials]).toEqual([[3], [2]]);
    const kept = caseState(
      record(
        { kind: 'trialIn', position: 2 },
        { kind: 'trialIn', position: 3 },
        { kind: 'trialKept', position: 3, changeId: 1 },
      ),
    );
    expect(kept.trials).toEqual([2]);
  });

  it('follows the school that was chosen last, and keeps what was skipped', () => {
    const s = caseState(
      record(
        { kind: 'school', school: 'swap' },
        { kind: 'skipped', operation: { kind: 'listen' } },
        { kind: 'school', school: 'takeOut' },
      ),
    );
    expect(s.school).toBe('takeOut');
    expect(s.progress.skipped).toEqual([{ kind: 'listen' }]);
    expect(caseState(record()).school).toBe('best');
  });

  it('ends with its closing line', () => {
    const closed: CaseEvent = { kind: 'closed', rootCause: 'not found', root: null, followUp: '', snapshot: [] };
    expect(caseState(record(flow(0.03), closed)).ended?.event).toEqual(closed);
  });
});

describe('the swap school, step by step (common practice, no published source)', () => {
  const at = (over: Partial<SwapSoFar>) => swapStep({ order: [2, 3], trials: [], failed: [], back: null, ...over });

  it('the pre-filter brings it back: keep it, the old one is spent', () => {
    expect(at({})).toEqual({ kind: 'fit', position: 2 });
    expect(at({ trials: [2] })).toEqual({ kind: 'watch' });
    expect(at({ trials: [2], back: true })).toEqual({ kind: 'keep', positions: [2] });
  });

  it('it does not: the ORIGINAL goes back before the HEPA is judged; the HEPA alone is kept', () => {
    expect(at({ trials: [2], back: false })).toEqual({ kind: 'putBack', position: 2, next: 3 });
    expect(at({ failed: [2] })).toEqual({ kind: 'fit', position: 3 });
    expect(at({ failed: [2], trials: [3], back: true })).toEqual({ kind: 'keep', positions: [3] });
  });

  it('neither alone: both are spent, or neither', () => {
    expect(at({ failed: [2], trials: [3], back: false })).toEqual({ kind: 'fitToo', position: 2 });
    expect(at({ failed: [2], trials: [3, 2], back: true })).toEqual({ kind: 'keep', positions: [3, 2] });
    expect(at({ failed: [2], trials: [3, 2], back: false })).toEqual({ kind: 'putAllBack', positions: [3, 2] });
    expect(at({ failed: [2, 3] })).toEqual({ kind: 'none' });
  });
});

describe('the Find page keeps what was typed', () => {
  it('through a refusal, and lets it go when the action is done', () => {
    const typed = findReducer(findReducer(startFind('MK'), { type: 'typed', value: '12 furlongs' }), {
      type: 'sending',
    });
    const refused = findReducer(typed, { type: 'refused', problems: [] });
    expect(refused).toMatchObject({ typed: '12 furlongs', sending: false, by: 'MK' });
    expect(findReducer(refused, { type: 'done' })).toMatchObject({ typed: '', picked: null, by: 'MK' });
  });
});
