import { describe, expect, it } from 'vitest';
import type { ChangeRecord } from '@/core/record/records';
import { changeOfRecord, changeReducer } from '@/islands/change/state';
import { findReducer, startFind } from '@/islands/find/state';

const LAMP = { kind: 'lamp' } as const;

describe('what is being done on the Find page', () => {
  const correcting = findReducer(startFind('MK'), { type: 'correct', eventId: 7, operation: LAMP });

  it('a correction is of one line, and another choice ends it', () => {
    expect(correcting).toMatchObject({ correcting: 7, picked: LAMP });
    expect(findReducer(correcting, { type: 'pick', operation: { kind: 'smoke' } })).toMatchObject({
      correcting: null,
      picked: { kind: 'smoke' },
    });
    expect(findReducer(correcting, { type: 'pick', operation: null }).correcting).toBeNull();
  });

  it('what was done leaves only the initials; what was refused keeps what was typed', () => {
    const typed = findReducer(findReducer(correcting, { type: 'typed', value: '31' }), { type: 'sending' });
    expect(findReducer(typed, { type: 'done' })).toEqual(startFind('MK'));
    const refused = findReducer(typed, { type: 'refused', problems: [] });
    expect(refused).toMatchObject({ typed: '31', correcting: 7, sending: false });
  });

  it('testing on shows the other tests', () => {
    expect(findReducer(startFind('MK'), { type: 'askOn' })).toMatchObject({ askOn: true, showOthers: true });
  });
});

describe('the correction of a change', () => {
  const record = (over: Partial<ChangeRecord>): ChangeRecord => ({
    id: 4,
    machineId: 1,
    performedAt: '2026-11-20T10:00:00.000Z',
    performedOn: '2026-11-20',
    recordedAt: '2026-11-20T10:00:00.000Z',
    by: 'MK',
    note: 'as it was',
    voided: false,
    supersedesId: null,
    supersededById: null,
    correctionReason: null,
    stageId: 3,
    reason: 'fill',
    partId: 9,
    quantity: 2,
    beforeTestId: 12,
    jobId: null,
    how: null,
    ...over,
  });

  it('begins with what was recorded: the part, or that none was taken', () => {
    const taken = changeOfRecord(record({}), 'c-1');
    expect(taken).toMatchObject({
      stageId: 3,
      reason: 'fill',
      fromStock: true,
      quantity: 2,
      beforeTestId: 12,
      note: 'as it was',
    });
    const samePart = changeOfRecord(record({ partId: null, quantity: 0 }), 'c-2');
    expect(samePart.fromStock).toBe(false);
    expect(samePart.quantity).toBe(1);
  });

  it('another stage is a new question: its own part is offered again', () => {
    const samePart = changeOfRecord(record({ partId: null }), 'c-3');
    expect(changeReducer(samePart, { type: 'stage', id: 5 })).toMatchObject({ stageId: 5, fromStock: true });
  });
});
