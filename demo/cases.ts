import type { CaseEvent } from '@/core/diagnose/case-log';
import type { Complaint } from '@/core/diagnose/complaint';
import type { Machine } from '@/core/machine/machine';
import { insertCase, insertCaseEvent } from '@/server/repositories/cases';
import { findMachine } from '@/server/repositories/machines';
import { CREW, momentOf, type Seeding } from './seeding';

interface DemoCase {
  readonly tag: string;
  readonly daysAgo: number;
  readonly complaint: Complaint;
  readonly words: string;
  readonly by: (typeof CREW)[number];
  readonly events: (at: (name: string) => number) => readonly CaseEvent[];
}

const litres = (n: number): number => n / 1000;
const flow = (n: number): CaseEvent => ({
  kind: 'saw',
  operation: { kind: 'flow', place: 'toolEnd' },
  outcome: { kind: 'number', valueSi: litres(n) },
  typed: `${n} L/s`,
  note: '',
});
const saw = (operation: Extract<CaseEvent, { kind: 'saw' }>['operation'], word: string, note = ''): CaseEvent => ({
  kind: 'saw',
  operation,
  outcome: { kind: 'word', word },
  typed: '',
  note,
});

const CASES: readonly DemoCase[] = [
  {
    tag: 'CR-04',
    daysAgo: 96,
    complaint: 'noSuction',
    words: 'weak at the laminate saw after the bag',
    by: CREW[0],
    events: (at) => [
      flow(7.1),
      saw({ kind: 'settings' }, 'right'),
      saw({ kind: 'lookBag', position: at('fleece bag') }, 'looseDirt', 'collar bent, the lid closed over it'),
      {
        kind: 'repaired',
        repair: { kind: 'newPart', position: at('fleece bag') },
        fault: { kind: 'misseated', position: at('fleece bag') },
        found: 'yes',
        changeId: null,
      },
      flow(12.6),
      {
        kind: 'closed',
        rootCause: 'the fleece bag does not sit: collar bent, lid closed over it',
        root: { kind: 'misseated', position: at('fleece bag') },
        followUp: 'Show the collar to the laminate crew.',
        snapshot: [{ kind: 'misseated', position: at('fleece bag'), probability: 0.97 }],
      },
    ],
  },
  {
    tag: 'CR-11',
    daysAgo: 41,
    complaint: 'light',
    words: 'the light never goes out on the barge',
    by: CREW[1],
    events: (at) => [
      flow(20.4),
      saw({ kind: 'lamp' }, 'lit'),
      saw({ kind: 'settings' }, 'selector', 'selector on 36, hose was the 27'),
      {
        kind: 'repaired',
        repair: { kind: 'settings', position: at('fan') },
        fault: { kind: 'wrongSelector', position: at('fan') },
        found: 'yes',
        changeId: null,
      },
      flow(20.6),
      saw({ kind: 'lamp' }, 'out'),
      {
        kind: 'closed',
        rootCause: 'the hose selector does not fit the hose: hose swapped between two machines',
        root: { kind: 'wrongSelector', position: at('fan') },
        followUp: '',
        snapshot: [{ kind: 'wrongSelector', position: at('fan'), probability: 0.98 }],
      },
    ],
  },
  {
    tag: 'CR-04',
    daysAgo: 2,
    complaint: 'noSuction',
    words: 'no suction at the laminate saw',
    by: CREW[0],
    events: () => [flow(8.6), saw({ kind: 'settings' }, 'right')],
  },
];

const positionIn =
  (machine: Machine) =>
  (name: string): number => {
    const position = machine.stages.findIndex((s) => s.name === name);
    if (position < 0) throw new Error(`${machine.tag} has no ${name}`);
    return position;
  };

/** Five minutes from one line of a log to the next. */
const LINE_DAYS = 5 / (24 * 60);

/** The cases of fault finding that the yard's story has: two that ended, and one on the bench. */
export const insertCases = async (s: Seeding): Promise<void> => {
  for (const c of CASES) {
    const machine = await findMachine(s.db, c.tag);
    if (!machine) throw new Error(`the demo has no ${c.tag}`);
    const { complaint, words, by } = c;
    const id = await insertCase(s.db, {
      machineId: machine.id,
      openedAt: momentOf(s, c.daysAgo),
      by,
      complaint,
      words,
      hazard: machine.hazard,
      lastCollected: machine.lastCollected,
      school: 'best',
    });
    for (const [i, event] of c.events(positionIn(machine)).entries())
      await insertCaseEvent(s.db, { caseId: id, at: momentOf(s, c.daysAgo - (i + 1) * LINE_DAYS), by, event });
  }
};
