import { dayAt } from '@/core/calendar/calendar-date';
import { type CaseRecord, caseState } from '@/core/diagnose/case-log';
import type { Machine } from '@/core/machine/machine';
import { pathDifferences, type PathEditRecord, reshapes } from '@/core/machine/path-edit';
import type { ChangeRecord, TestRecord, WorkRecord } from '@/core/record/records';
import { type JobRecord, jobState } from '@/core/procedure/job-log';
import { METHODS } from '@/core/measure/methods';
import { reduceAny } from '@/core/measure/reduce-any';
import { isSeries } from '@/core/record/series';
import { judgeTest } from '@/core/status/judge-test';
import { show, type UnitSystem } from '@/core/units';
import { PROCEDURE_WORDS } from '@/messages/procedure';
import { sayDifference } from '@/messages/path-edits';
import { sayMass, sayOther } from '@/messages/outcomes';
import { sayBaseline } from '@/messages/verdicts';
import { sayCaseEnd, sayComplaint } from '@/messages/case-report';
import { counted, capital, METHOD_WORDS, PLACE_WORDS, PRECONDITION_WORDS, REASON_WORDS } from '@/messages/words';
import type { Bench } from '@/server/services/measuring/bench';
import { type Maker, type EntryText, type LogEntry, plainEntry } from './log-entry';
import { screeningEntries, proofEntries, dustEntries } from './log-proofs';

const typedOf = (record: TestRecord): string =>
  record.readings
    .map((r) => {
      const text = /[a-z"'%]/i.test(r.typed) ? r.typed : `${r.typed} ${r.unit}`;
      return r.struckBecause === null ? text : `${text} (struck: ${r.struckBecause})`;
    })
    .join(', ');

/** A stage by its number, one that was taken out of the path too. */
const stageNamed = (machine: Machine, id: number | null): { readonly name: string } | null =>
  [...machine.stages, ...machine.retired].find((s) => s.id === id) ?? null;

/** A series test: its mean with its interval, and its verdict. */
const tellSeries = (record: TestRecord, { bench, units }: Maker): EntryText => {
  const { machine } = bench.status;
  const judged = judgeTest({ machine, tests: bench.tests, thresholds: bench.yard.site.thresholds, record });
  const { result, measurand } = METHODS[record.test.method];
  const { repeats } = judged.reduced;
  const stage = stageNamed(machine, judged.reduced.stageId);
  const where = stage ? `over the ${stage.name}` : `at the ${PLACE_WORDS[record.test.place]}`;
  const figure = `${show(result, repeats.mean, units)}${repeats.expanded === null ? '' : ` ± ${show(result, repeats.expanded, units)}`}`;
  const { detail } = record.test;
  if (detail.kind === 'mass') return { title: `${figure} ${where}`, said: sayMass(repeats.mean, detail.newMassKg) };
  return { title: `${figure} ${where}`, said: record.isBaseline ? null : sayBaseline(judged.baseline, measurand) };
};

const tellOther = (record: TestRecord, { bench, units }: Maker): EntryText => {
  const reduced = reduceAny(record.test);
  const { detail } = record.test;
  const stage = 'stageId' in detail ? stageNamed(bench.status.machine, detail.stageId) : null;
  const title = METHOD_WORDS[record.test.method];
  if (!reduced.ok || reduced.value.form === 'series') return { title, said: null };
  return { title, said: sayOther(reduced.value, units, stage?.name ?? 'stage') };
};

/** That a record was written down on a later day than the work was done; '' where it was not, or where it is a correction, which says so itself. */
const afterwards = (record: WorkRecord, timeZone: string): string => {
  const [done, written] = [dayAt(record.performedAt, timeZone), dayAt(record.recordedAt, timeZone)];
  return record.supersedesId === null && written > done ? ` Entered afterwards, on ${written}.` : '';
};

const testEntry = (record: TestRecord, maker: Maker): Omit<LogEntry, 'originals'> => {
  const { machine } = maker.bench.status;
  const failed = record.test.failedPreconditions.map((p) => PRECONDITION_WORDS[p].toLowerCase());
  const state = record.isBaseline ? 'new baseline' : record.bagState === 'asLeft' ? 'as left' : 'as found';
  const text = isSeries(record) ? tellSeries(record, maker) : tellOther(record, maker);
  const readings = record.test.readingsSi.length;
  return {
    key: `test-${record.id}`,
    day: dayAt(record.performedAt, maker.bench.yard.site.timeZone),
    at: record.performedAt,
    by: record.by,
    title: `${text.title}, ${record.configuration === '' ? state : `${state}, ${record.configuration}`}`,
    text: `${METHOD_WORDS[record.test.method]}${readings > 0 ? `, ${readings} readings` : ''}.${failed.length > 0 ? ` Not used: not ${failed.join(', ')}.` : ''}${afterwards(record, maker.bench.yard.site.timeZone)}`,
    typed: typedOf(record),
    note: record.note,
    said: text.said,
    href: null,
    correctHref: `/m/${encodeURIComponent(machine.tag)}/correct/test/${record.id}`,
    withdrawn: record.voided,
    correctedBecause: record.correctionReason,
  };
};

const changeEntry = (record: ChangeRecord, { bench }: Maker): Omit<LogEntry, 'originals'> => {
  const { machine } = bench.status;
  const stage = stageNamed(machine, record.stageId);
  const part = bench.parts.find((p) => p.id === record.partId);
  const base = `/m/${encodeURIComponent(machine.tag)}`;
  return {
    key: `change-${record.id}`,
    day: record.performedOn,
    at: record.performedAt,
    by: record.by,
    title: `${capital(stage?.name ?? 'part')} changed: ${REASON_WORDS[record.reason].toLowerCase()}`,
    text: `${part ? `${record.quantity} × ${part.name}.` : 'No new part from stock.'}${record.how ? ` Done without the guide: ${record.how.how} (${record.how.by}).` : ''}${afterwards(record, bench.yard.site.timeZone)}`,
    typed: '',
    note: record.note,
    said: null,
    href: `${base}/changes/${record.id}`,
    correctHref: `${base}/correct/change/${record.id}`,
    withdrawn: record.voided,
    correctedBecause: record.correctionReason,
  };
};

interface Chained {
  readonly id: number;
  readonly supersedesId: number | null;
  readonly supersededById: number | null;
}

const entriesOf = <T extends Chained>(
  records: readonly T[],
  make: (r: T) => Omit<LogEntry, 'originals'>,
): readonly LogEntry[] => {
  const byId = new Map(records.map((r) => [r.id, r]));
  const originals = (r: T): readonly LogEntry[] => {
    const earlier = r.supersedesId === null ? undefined : byId.get(r.supersedesId);
    return earlier ? [{ ...make(earlier), correctHref: null, originals: [] }, ...originals(earlier)] : [];
  };
  return records.filter((r) => r.supersededById === null).map((r) => ({ ...make(r), originals: originals(r) }));
};

const editEntry = (record: PathEditRecord, maker: Maker): LogEntry => {
  const differences = pathDifferences(record.before, record.after).map((d) =>
    sayDifference(d, record.after, maker.units),
  );
  return plainEntry(
    {
      key: `edit-${record.id}`,
      at: record.performedAt,
      by: record.by,
      title: `Air path changed: ${differences.slice(0, 3).join(', ')}${differences.length > 3 ? ` and ${differences.length - 3} more` : ''}`,
      text: `${differences.length > 3 ? `Also ${differences.slice(3).join(', ')}. ` : ''}${reshapes(pathDifferences(record.before, record.after)) ? 'Earlier baselines no longer count.' : ''}`,
      note: record.note,
    },
    maker,
  );
};

const caseEntry = (record: CaseRecord, { bench }: Maker): LogEntry => {
  const { ended, progress } = caseState(record);
  const base = `/m/${encodeURIComponent(bench.status.machine.tag)}`;
  return {
    key: `case-${record.id}`,
    day: dayAt(record.openedAt, bench.yard.site.timeZone),
    at: record.openedAt,
    by: record.by,
    title: `Case: ${sayComplaint(record)}`,
    text: `${capital(sayCaseEnd(ended))}. ${counted(progress.evidence.length, 'check')} made, ${progress.interventions.repairs.length === 0 ? 'nothing repaired yet' : counted(progress.interventions.repairs.length, 'repair')}.`,
    typed: '',
    note: ended?.event.kind === 'closed' && ended.event.followUp ? `Follow-up: ${ended.event.followUp}` : '',
    said: null,
    href: ended ? `${base}/cases/${record.id}` : `${base}/find`,
    correctHref: null,
    withdrawn: false,
    correctedBecause: null,
    originals: [],
  };
};

const jobEntry = (record: JobRecord, { bench }: Maker): LogEntry => {
  const { ended, leftOut, turnedAt } = jobState(record);
  const how =
    ended === null
      ? 'under way'
      : ended.event.kind === 'abandoned'
        ? `given up: ${ended.event.because}`
        : turnedAt === null
          ? 'finished'
          : 'the old part went back in';
  return {
    key: `job-${record.id}`,
    day: dayAt(record.startedAt, bench.yard.site.timeZone),
    at: record.startedAt,
    by: record.by,
    title: `Job: ${PROCEDURE_WORDS[record.procedure.id].toLowerCase()}, ${how}`,
    text:
      leftOut.size === 0
        ? 'Every check answered yes.'
        : `${leftOut.size} left out: ${[...leftOut.values()].join('; ')}.`,
    typed: '',
    note: '',
    said: null,
    href: `/m/${encodeURIComponent(bench.status.machine.tag)}/jobs/${record.id}`,
    correctHref: null,
    withdrawn: false,
    correctedBecause: null,
    originals: [],
  };
};

/** The machine's log, newest first: valid records, with the originals of every correction below. */
export const logEntries = (bench: Bench, units: UnitSystem): readonly LogEntry[] => {
  const maker = { bench, units };
  const edits = bench.pathEdits.map((r) => editEntry(r, maker));
  const cases = bench.cases.map((r) => caseEntry(r, maker));
  const jobs = bench.jobs.map((r) => jobEntry(r, maker));
  return [
    ...screeningEntries(maker),
    ...proofEntries(maker),
    ...dustEntries(maker),
    ...cases,
    ...jobs,
    ...entriesOf(bench.tests, (r) => testEntry(r, maker)),
    ...entriesOf(bench.changes, (r) => changeEntry(r, maker)),
    ...edits,
  ].sort((a, b) => (a.at === b.at ? (a.key < b.key ? 1 : -1) : a.at < b.at ? 1 : -1));
};
