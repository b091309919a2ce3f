import { dayAt } from '@/core/calendar/calendar-date';
import type { MachineStatus } from '@/core/status/machine-status';
import { showPercent } from '@/core/units';
import { sayDusts } from '@/messages/dust';
import { ROLE_WORDS } from '@/messages/people';
import { sayRule } from '@/messages/needs';
import { METHOD_WORDS } from '@/messages/words';
import type { CsvCell } from '@/server/services/house/csv';
import { loadPeoplePage } from '@/server/services/house/people-page';
import { loadMeters } from '@/server/services/yard/registers';
import { settingHistory } from '@/server/services/yard/site-settings';
import { loadStockDesk } from '@/server/services/stock/stock-desk';
import type { Context } from '@/server/services/yard/user-action';
import { wasteLog } from '@/server/services/jobs/waste-log';
import { loadYard, type Yard } from '@/server/services/yard/yard';
import { kindText } from './board-tags';

/** A list of the yard as a table, for paper and CSV. */
export interface List {
  readonly headings: readonly string[];
  readonly rows: readonly (readonly CsvCell[])[];
}

/** The first day a machine is due for anything; null where nothing has a date. */
export const nextDue = (status: MachineStatus): { readonly on: string; readonly what: string } | null => {
  const dated = status.due.flatMap((d) => {
    const on = d.binding.dueOn;
    const what = status.machine.stages.find((s) => s.id === d.stageId)?.name ?? '';
    return on === null ? [] : [{ on, what }];
  });
  return dated.sort((a, b) => (a.on < b.on ? -1 : 1))[0] ?? null;
};

/** When a machine was last measured, and by what; null where it never was. */
export const lastTest = (
  status: MachineStatus,
  timeZone: string,
): { readonly on: string; readonly what: string } | null =>
  status.latest && {
    on: dayAt(status.latest.record.performedAt, timeZone),
    what: METHOD_WORDS[status.latest.record.test.method],
  };

const byTag = (yard: Yard): readonly MachineStatus[] =>
  [...yard.machines].sort((a, b) => (a.machine.tag < b.machine.tag ? -1 : 1));

const machines = (yard: Yard): List => ({
  headings: [
    'tag',
    'name',
    'kind_and_class',
    'place',
    'maker',
    'dust',
    'dust_level',
    'in_use_since',
    'last_test',
    'next_due',
    'due_what',
  ],
  rows: byTag(yard).map((s) => {
    const { machine: m } = s;
    const due = nextDue(s);
    return [
      m.tag,
      m.name,
      kindText(s),
      m.place,
      m.maker,
      sayDusts(m.dust.standing),
      m.hazard,
      m.inServiceOn,
      lastTest(s, yard.site.timeZone)?.on ?? null,
      due?.on ?? null,
      due?.what ?? null,
    ];
  }),
});

const rules = (yard: Yard): List => ({
  headings: ['tag', 'stage', 'part', 'rule', 'school', 'due_on'],
  rows: byTag(yard).flatMap((s) =>
    s.machine.stages.flatMap((stage) =>
      stage.rules.map(({ rule, school }): readonly CsvCell[] => [
        s.machine.tag,
        stage.name,
        stage.part?.code ?? null,
        sayRule(rule),
        school,
        s.due.find((d) => d.stageId === stage.id)?.binding.dueOn ?? null,
      ]),
    ),
  ),
});

const parts = async (context: Context): Promise<List> => ({
  headings: [
    'code',
    'name',
    'on_hand',
    'pack_size',
    'bin',
    'supplier',
    'price_per_piece',
    'lead_days',
    'shelf_days',
    'minimum',
    'reorder_point',
    'for_machines',
  ],
  rows: (await loadStockDesk(context)).lines
    .filter((l) => !l.part.retired)
    .map(({ part: p, usedBy, reorder }) => [
      p.code,
      p.name,
      p.onHand,
      p.packSize,
      p.bin,
      p.supplier,
      p.price,
      p.leadDays,
      p.shelfDays,
      p.minimum,
      Math.ceil(reorder.point.point),
      usedBy.join(' '),
    ]),
});

const meters = async (context: Context): Promise<List> => ({
  headings: ['name', 'reads', 'of_reading', 'certificate', 'calibration_due', 'retired'],
  rows: (await loadMeters(context)).map((m) => [
    m.name,
    m.reads,
    showPercent(m.accuracy.relative),
    m.certificate,
    m.calibrationDueOn,
    m.retired ? 'yes' : 'no',
  ]),
});

const people = async (context: Context, yard: Yard): Promise<List> => ({
  headings: ['initials', 'name', 'role', 'contained_work', 'mask_fit_on', 'trained_on', 'here'],
  rows: (await loadPeoplePage(context, yard.today)).people.map(({ person: p }) => [
    p.initials,
    p.name,
    ROLE_WORDS[p.role],
    p.mayContain ? 'yes' : 'no',
    p.maskFitOn,
    p.trainedOn,
    p.active ? 'yes' : 'no',
  ]),
});

const FIRST_DAY = '0001-01-01';

const waste = async (context: Context, yard: Yard): Promise<List> => ({
  headings: ['day', 'machine', 'what', 'pieces', 'waste_kg', 'dust_on_record', 'by', 'how'],
  rows: (await wasteLog(context, { from: FIRST_DAY, to: yard.today })).lines.map((l) => [
    l.day,
    l.machine.tag,
    l.stage,
    l.pieces,
    l.wasteKg,
    sayDusts(l.machine.dust.standing),
    l.by,
    l.how ?? 'guided',
  ]),
});

const settings = async (context: Context): Promise<List> => ({
  headings: ['at', 'by', 'setting', 'from', 'to'],
  rows: (await settingHistory(context)).map((c) => [c.at, c.by, c.setting, c.before, c.after]),
});

const LISTS: Readonly<Record<string, (context: Context, yard: Yard) => List | Promise<List>>> = {
  machines: (_, yard) => machines(yard),
  rules: (_, yard) => rules(yard),
  parts,
  meters,
  people,
  waste,
  settings,
};

/** The names of the lists there are. */
export const LIST_NAMES = Object.keys(LISTS);

/** One list of the present records; null for an unknown name. */
export const listOf = async (context: Context, name: string): Promise<List | null> => {
  const list = Object.hasOwn(LISTS, name) ? LISTS[name] : undefined;
  return list ? list(context, await loadYard(context)) : null;
};
