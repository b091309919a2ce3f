import { MACHINE_KIND_NAMES, MACHINE_KINDS, type MachineKind } from '../machine/kinds';
import { MACHINE_CLASSES } from '../filter/machine-class';
import { ROLES } from '../people/person';
import { CHANGE_REASONS } from '../record/records';
import type { QuantityKind } from '../units';

// Spreadsheet kinds that can be imported, with their fields and headings.

export const SHEET_KINDS = ['machines', 'parts', 'people', 'changes', 'tests', 'hours'] as const;
export type SheetKind = (typeof SHEET_KINDS)[number];

/** How a cell is read. */
export type Cell =
  | { readonly as: 'text'; readonly most: number }
  | { readonly as: 'day' }
  | { readonly as: 'whole'; readonly least: number; readonly most: number }
  | { readonly as: 'number'; readonly least: number; readonly most: number }
  /** `unit` is what a bare number is in, where neither the cell nor the heading says so. */
  | {
      readonly as: 'quantity';
      readonly of: QuantityKind;
      readonly unit: string;
      readonly low: number;
      readonly high: number;
    }
  /** Several readings in one cell, as typed; their unit is that of the heading where a reading has none. */
  | { readonly as: 'readings' }
  | { readonly as: 'choice'; readonly of: Readonly<Record<string, readonly string[]>> }
  | { readonly as: 'yesNo' };

export interface SheetField {
  readonly key: string;
  readonly label: string;
  /** Other headings of this field, in lower case. */
  readonly names: readonly string[];
  readonly needed: boolean;
  readonly cell: Cell;
}

const text = (most: number): Cell => ({ as: 'text', most });
const whole = (least: number, most: number): Cell => ({ as: 'whole', least, most });
const DAY: Cell = { as: 'day' };
const YES_NO: Cell = { as: 'yesNo' };

interface More {
  readonly names?: readonly string[];
  readonly needed?: boolean;
}
const field = (
  [key, label]: readonly [string, string],
  cell: Cell,
  { names = [], needed = false }: More = {},
): SheetField => ({
  key,
  label,
  names,
  needed,
  cell,
});

/** Words that mean a kind of machine, besides its label. */
const KIND_WORDS: Readonly<Record<MachineKind, readonly string[]>> = {
  shopVacuum: ['shop vac', 'workshop vacuum', 'vacuum', 'wet and dry vacuum', 'l extractor', 'l class extractor'],
  mExtractor: ['M extractor', 'm class extractor', 'extractor m', 'm-class', 'm class'],
  hExtractor: ['H extractor', 'h class extractor', 'extractor h', 'h-class', 'h class'],
  hepaTank: ['hepa vacuum', 'hepa vac', 'hepa'],
  grinderExtractor: ['floor grinder extractor'],
  pneumaticHepa: ['air vacuum', 'compressed air vacuum', 'pneumatic hepa'],
  singleStageCollector: ['dust collector', 'collector', 'chip collector', 'single stage collector'],
  cycloneCollector: ['cyclone', 'cyclone collector', 'two stage collector'],
  fumeExtractor: ['fume extractor', 'solder fume extractor'],
  floorCleaner: ['upright', 'household vacuum'],
  centralUnit: ['central vacuum', 'central'],
};
const KINDS: Cell = {
  as: 'choice',
  of: Object.fromEntries(
    MACHINE_KIND_NAMES.map((k) => {
      // Two kinds share a bare "extractor": which of them it is, its class has to say.
      const { label } = MACHINE_KINDS[k];
      return [k, label === 'extractor' ? KIND_WORDS[k] : [label, ...KIND_WORDS[k]]];
    }),
  ),
};
const CLASSES: Cell = {
  as: 'choice',
  of: {
    ...Object.fromEntries(MACHINE_CLASSES.map((c) => [c, [c, `${c} class`, `class ${c}`]])),
    none: ['none', 'no', '-'],
  },
};
const REASONS: Cell = {
  as: 'choice',
  of: Object.fromEntries(
    CHANGE_REASONS.map((r) => [
      r,
      r === 'fill' ? ['fill', 'full'] : r === 'damage' ? ['damage', 'damaged', 'torn'] : [r],
    ]),
  ),
};
const METHOD_WORDS: Cell = {
  as: 'choice',
  of: {
    flowMeter: ['flow', 'air flow', 'airflow', 'flow meter', 'volume flow'],
    anemometer: ['velocity', 'air velocity', 'anemometer', 'vane'],
    sealedSuction: ['suction', 'sealed suction', 'static suction', 'static lift', 'vacuum', 'water lift'],
    lineVoltage: ['voltage', 'line voltage', 'mains'],
    current: ['current', 'amps'],
  },
};
const PLACE_WORDS: Cell = {
  as: 'choice',
  of: {
    toolEnd: ['tool', 'tool end', 'at the tool'],
    hoseEnd: ['hose', 'hose end', 'end of the hose'],
    inlet: ['inlet', 'at the inlet', 'machine'],
    outlet: ['outlet', 'exhaust'],
  },
};
const TAG = field(['tag', 'Machine tag'], text(16), {
  names: ['tag', 'machine', 'machine no', 'asset', 'asset no', 'asset number', 'id', 'number'],
  needed: true,
});
const DAY_OF = field(['day', 'Day'], DAY, { names: ['date', 'on', 'done on', 'when', 'performed'], needed: true });
const BY = field(['by', 'Initials'], text(12), { names: ['by', 'who', 'technician', 'signed', 'person', 'done by'] });
const NOTE = field(['note', 'Note'], text(2000), { names: ['notes', 'remark', 'remarks', 'comment', 'comments'] });
const length = (unit: string, low: number, high: number): Cell => ({ as: 'quantity', of: 'length', unit, low, high });

/** The fields of each kind of spreadsheet. The first heading that fits wins. */
export const SHEETS: Readonly<Record<SheetKind, readonly SheetField[]>> = {
  machines: [
    TAG,
    field(['name', 'Name'], text(120), { names: ['machine name', 'description', 'model', 'title'], needed: true }),
    field(['kind', 'Kind'], KINDS, { names: ['type', 'machine type', 'kind of machine'], needed: true }),
    field(['place', 'Place'], text(80), { names: ['location', 'where', 'room', 'site', 'bay'], needed: true }),
    field(['dust', 'Collected'], text(120), {
      names: ['dust', 'last collected', 'material', 'materials', 'collects', 'what it collected'],
      needed: true,
    }),
    field(['maker', 'Maker'], text(60), { names: ['make', 'manufacturer', 'brand'] }),
    field(['machineClass', 'Class'], CLASSES, { names: ['dust class', 'machine class', 'filter class', 'rating'] }),
    field(['firstUsedOn', 'In use since'], DAY, {
      names: ['first use', 'in service', 'bought', 'commissioned', 'purchased'],
    }),
    field(['hoseBore', 'Hose bore'], length('mm', 0.005, 2), { names: ['hose', 'hose diameter', 'bore', 'duct'] }),
    field(['hoseLength', 'Hose length'], length('m', 0.05, 200), { names: ['length'] }),
    field(
      ['volts', 'Voltage'],
      { as: 'quantity', of: 'voltage', unit: 'V', low: 50, high: 600 },
      { names: ['volts', 'supply', 'v'] },
    ),
    field(['hasBrush', 'Has a brush'], YES_NO, { names: ['brush'] }),
  ],
  parts: [
    field(['code', 'Code'], text(24), {
      names: ['part', 'part no', 'part number', 'sku', 'article', 'item', 'item no'],
      needed: true,
    }),
    field(['name', 'Name'], text(80), { names: ['description', 'part name', 'title'], needed: true }),
    field(['onHand', 'On the shelf'], whole(0, 100_000), {
      names: ['stock', 'on hand', 'quantity', 'qty', 'in stock', 'count'],
    }),
    field(['packSize', 'Pack of'], whole(1, 1000), { names: ['pack', 'pack size', 'per pack', 'per box'] }),
    field(['bin', 'Bin'], text(24), { names: ['shelf', 'location', 'place', 'rack'] }),
    field(['supplier', 'Supplier'], text(80), { names: ['vendor', 'from', 'dealer'] }),
    field(
      ['price', 'Price a piece'],
      { as: 'number', least: 0, most: 1e6 },
      { names: ['price', 'cost', 'unit price', 'price each'] },
    ),
    field(['leadDays', 'Lead time, days'], whole(0, 730), {
      names: ['lead', 'lead time', 'lead days', 'delivery days'],
    }),
    field(['medium', 'Medium'], text(80), { names: ['media', 'filter medium', 'material'] }),
    field(
      ['areaM2', 'Area'],
      { as: 'quantity', of: 'area', unit: 'm2', low: 0.001, high: 1000 },
      { names: ['filter area', 'media area', 'surface'] },
    ),
    field(['rating', 'Rating'], text(80), { names: ['efficiency', 'filter class', 'grade'] }),
    field(['shelfDays', 'Shelf life, days'], whole(1, 7300), { names: ['shelf life', 'keeps'] }),
    field(['minimum', 'Minimum'], whole(0, 10_000), { names: ['min', 'min stock', 'minimum stock', 'reorder at'] }),
  ],
  people: [
    field(['initials', 'Initials'], text(12), { names: ['short', 'sign', 'signature'], needed: true }),
    field(['name', 'Name'], text(80), { names: ['full name', 'person'], needed: true }),
    field(
      ['role', 'Role'],
      {
        as: 'choice',
        of: Object.fromEntries(
          ROLES.map((r) => [
            r,
            r === 'look'
              ? ['look', 'viewer', 'read', 'guest']
              : r === 'lead'
                ? ['lead', 'manager', 'admin']
                : [r, 'tech', 'user'],
          ]),
        ),
      },
      { names: ['job', 'rights'] },
    ),
    field(['mayContain', 'May do contained work'], YES_NO, { names: ['contained', 'contained work'] }),
    field(['maskFitOn', 'Mask fit test on'], DAY, { names: ['fit test', 'face fit', 'mask fit'] }),
    field(['trainedOn', 'Trained on'], DAY, { names: ['training', 'trained'] }),
  ],
  changes: [
    TAG,
    DAY_OF,
    field(['stage', 'Stage'], text(40), { names: ['what', 'changed', 'filter', 'part changed', 'work'], needed: true }),
    field(['part', 'Part code'], text(24), { names: ['part', 'part no', 'code', 'spare'] }),
    field(['quantity', 'Pieces'], whole(0, 20), { names: ['quantity', 'qty', 'number of', 'pcs'] }),
    field(['reason', 'Reason'], REASONS, { names: ['why', 'because'] }),
    field(['how', 'How it was contained'], text(300), { names: ['how', 'containment', 'method'] }),
    BY,
    NOTE,
  ],
  tests: [
    TAG,
    DAY_OF,
    field(['method', 'Measured'], METHOD_WORDS, {
      names: ['what', 'measurement', 'test', 'method', 'quantity'],
      needed: true,
    }),
    field(
      ['readings', 'Readings'],
      { as: 'readings' },
      { names: ['reading', 'value', 'values', 'result', 'flow', 'suction'], needed: true },
    ),
    field(['place', 'Place'], PLACE_WORDS, { names: ['where', 'at', 'measured at'] }),
    field(['bore', 'Bore at the meter'], length('mm', 0.005, 2), { names: ['bore', 'pipe', 'diameter'] }),
    field(['meter', 'Meter'], text(80), { names: ['instrument', 'gauge', 'measured with'] }),
    field(['baseline', 'Baseline'], YES_NO, { names: ['is baseline', 'reference', 'new'] }),
    field(['asLeft', 'After the work'], YES_NO, { names: ['as left', 'after'] }),
    BY,
    NOTE,
  ],
  hours: [
    TAG,
    DAY_OF,
    field(
      ['hours', 'Run hours'],
      { as: 'number', least: 0, most: 24 },
      { names: ['hours', 'h', 'run time', 'hours run'], needed: true },
    ),
    field(['dust', 'Collected'], text(120), { names: ['dust', 'material'] }),
    BY,
  ],
};
