import { z } from 'zod';
import { MEDIUM_NAMES } from '@/core/constants/media';
import { fail, failure, type Failure, ok, type Result } from '@/core/failure/failure';
import { parseQuantity, type QuantityKind } from '@/core/units';
import { UPGRADE_KINDS, type UpgradeChange, type UpgradeKind } from '@/core/upgrade/change';
import { ClientId, Initials, Note } from './requests';

// A planned upgrade, in an address and in the database.

const Area = z.number().min(0.001).max(200);
const Bore = z.number().min(0.005).max(1);
const Id = z.int().positive();

/** The believed range of each figure of a change, with what it is typed in where no unit is. SI. */
const CHANGE_SHAPES = {
  medium: z.strictObject({ kind: z.literal('medium'), stageId: Id, medium: z.enum(MEDIUM_NAMES), areaM2: Area }),
  bag: z.strictObject({ kind: z.literal('bag'), areaM2: Area }),
  fineLayer: z.strictObject({ kind: z.literal('fineLayer'), areaM2: Area }),
  hepa: z.strictObject({ kind: z.literal('hepa'), areaM2: Area }),
  separator: z.strictObject({
    kind: z.literal('separator'),
    lossK: z.number().min(0.5).max(40),
    inletBoreM: Bore,
    share: z.number().min(0).max(0.99),
  }),
  hose: z.strictObject({ kind: z.literal('hose'), boreM: Bore, lengthM: z.number().min(0.1).max(100) }),
  exhaust: z.strictObject({ kind: z.literal('exhaust'), lossK: z.number().min(0).max(100), boreM: Bore }),
  seal: z.strictObject({ kind: z.literal('seal'), leakM2: z.number().min(0).max(0.01) }),
  takeOut: z.strictObject({ kind: z.literal('takeOut'), stageId: Id }),
  container: z.strictObject({ kind: z.literal('container'), volumeM3: z.number().min(0.0005).max(2) }),
} as const satisfies Record<UpgradeKind, z.ZodType<UpgradeChange>>;

export const UpgradeChangeJson = z.discriminatedUnion('kind', [
  CHANGE_SHAPES.medium,
  CHANGE_SHAPES.bag,
  CHANGE_SHAPES.fineLayer,
  CHANGE_SHAPES.hepa,
  CHANGE_SHAPES.separator,
  CHANGE_SHAPES.hose,
  CHANGE_SHAPES.exhaust,
  CHANGE_SHAPES.seal,
  CHANGE_SHAPES.takeOut,
  CHANGE_SHAPES.container,
]);
export const UpgradeChangesJson = z.array(UpgradeChangeJson).min(1).max(6);

/** What each kind of change is asked for, in this order; a quantity with its unit where none is typed. */
export const CHANGE_FIELDS: Readonly<
  Record<
    UpgradeKind,
    readonly {
      readonly key: string;
      readonly kind: QuantityKind | 'share' | 'plain' | 'choice';
      readonly unit: string;
    }[]
  >
> = {
  medium: [
    { key: 'stageId', kind: 'choice', unit: '' },
    { key: 'medium', kind: 'choice', unit: '' },
    { key: 'areaM2', kind: 'area', unit: 'm2' },
  ],
  bag: [{ key: 'areaM2', kind: 'area', unit: 'm2' }],
  fineLayer: [{ key: 'areaM2', kind: 'area', unit: 'm2' }],
  hepa: [{ key: 'areaM2', kind: 'area', unit: 'm2' }],
  separator: [
    { key: 'inletBoreM', kind: 'length', unit: 'mm' },
    { key: 'lossK', kind: 'plain', unit: '' },
    { key: 'share', kind: 'share', unit: '%' },
  ],
  hose: [
    { key: 'boreM', kind: 'length', unit: 'mm' },
    { key: 'lengthM', kind: 'length', unit: 'm' },
  ],
  exhaust: [
    { key: 'boreM', kind: 'length', unit: 'mm' },
    { key: 'lossK', kind: 'plain', unit: '' },
  ],
  seal: [{ key: 'leakM2', kind: 'plain', unit: 'mm2' }],
  takeOut: [{ key: 'stageId', kind: 'choice', unit: '' }],
  container: [{ key: 'volumeM3', kind: 'volume', unit: 'L' }],
};

const Typed = z.string().trim().max(24).default('');

export const UpgradeQuery = z.object({
  /** Changes that are planned, as `readChanges` reads them. */
  c: z.string().max(600).default(''),
  price: Typed,
  added: Typed,
  part: Typed,
  /** For a bottom container: room under the machine, its height, and the volume of the present one. */
  under: Typed,
  tall: Typed,
  was: Typed,
  /** One more change, as typed. */
  add: z
    .enum(['', ...UPGRADE_KINDS])
    .catch('')
    .default(''),
  stageId: Typed,
  medium: Typed,
  areaM2: Typed,
  inletBoreM: Typed,
  lossK: Typed,
  share: Typed,
  boreM: Typed,
  lengthM: Typed,
  leakM2: Typed,
  volumeM3: Typed,
});
export type UpgradeQuery = z.infer<typeof UpgradeQuery>;

/** Writes changes for an address. */
export const writeChanges = (changes: readonly UpgradeChange[]): string =>
  changes
    .map((c) =>
      [c.kind, ...CHANGE_FIELDS[c.kind].map(({ key }) => String((c as unknown as Record<string, unknown>)[key]))].join(
        ':',
      ),
    )
    .join('~');

const valueOf = (text: string, kind: string): unknown =>
  kind === 'choice' && !/^\d+$/.test(text) ? text : Number(text);

/** Changes out of an address; what cannot be read is left out. */
export const readChanges = (text: string): readonly UpgradeChange[] =>
  text.split('~').flatMap((token) => {
    const [kind = '', ...args] = token.split(':');
    const known = UPGRADE_KINDS.find((k) => k === kind);
    if (!known) return [];
    const fields = CHANGE_FIELDS[known].map((f, i) => [f.key, valueOf(args[i] ?? '', f.kind)] as const);
    const read = UpgradeChangeJson.safeParse({ kind: known, ...Object.fromEntries(fields) });
    return read.success ? [read.data] : [];
  });

const SQUARE_MM = 1e-6;

const readFigure = (text: string, { kind, unit }: { kind: string; unit: string }): Result<number | string> => {
  if (kind === 'choice') return ok(/^\d+$/.test(text) ? Number(text) : text);
  if (kind === 'share') return ok(Number(text.replace('%', '').replace(',', '.').trim()) / 100);
  if (kind === 'plain') return ok(Number(text.replace(',', '.')) * (unit === 'mm2' ? SQUARE_MM : 1));
  const parsed = parseQuantity(text, kind as QuantityKind, unit);
  return parsed.ok ? ok(parsed.value.valueSi) : parsed;
};

/** The change that was typed into the form; null where none was. Returns `upgrade.change` for a figure that is missing or not believed. */
export const readTyped = (query: UpgradeQuery): Result<UpgradeChange | null> => {
  if (query.add === '') return ok(null);
  const kind = query.add;
  const failures: Failure[] = [];
  const entries = CHANGE_FIELDS[kind].map((field) => {
    const text = query[field.key as keyof UpgradeQuery];
    const read = readFigure(text, field);
    if (!read.ok) failures.push(...read.failures.map((f) => ({ ...f, path: field.key })));
    return [field.key, read.ok ? read.value : null] as const;
  });
  if (failures.length > 0) return fail(...failures);
  const read = UpgradeChangeJson.safeParse({ kind, ...Object.fromEntries(entries) });
  if (read.success) return ok(read.data);
  const field = String(read.error.issues[0]?.path[0] ?? 'kind');
  return fail(failure('upgrade.change', field, { field }));
};

/** An amount of the site's own money; null for none typed or none that can be read. */
export const readMoney = (text: string): number | null => {
  const value = Number(text.replace(',', '.'));
  return text !== '' && value >= 0 && value <= 1e7 ? value : null;
};

/** A length or a volume out of the address, in SI; null for none, or none that can be read or believed. */
export const readSize = (text: string, kind: 'length' | 'volume'): number | null => {
  if (text === '') return null;
  const parsed = parseQuantity(text, kind, kind === 'length' ? 'mm' : 'L');
  return parsed.ok && parsed.value.valueSi > 0 && parsed.value.valueSi < 10 ? parsed.value.valueSi : null;
};

export const PlanUpgradeBody = z.strictObject({
  clientId: ClientId,
  by: Initials,
  note: Note,
  changes: UpgradeChangesJson,
  price: z.number().min(0).max(1e7).nullable(),
});
export type PlanUpgradeBody = z.infer<typeof PlanUpgradeBody>;

export const UpgradeActionBody = z.strictObject({
  clientId: ClientId,
  by: Initials,
  note: Note,
  upgradeId: Id,
  action: z.enum(['book', 'undo', 'drop']),
});
export type UpgradeActionBody = z.infer<typeof UpgradeActionBody>;

/** The picture itself is the body. */
export const UpgradePhotoQuery = z.strictObject({
  clientId: ClientId,
  by: Initials,
  upgradeId: z.coerce.number().int().positive(),
});
export type UpgradePhotoQuery = z.infer<typeof UpgradePhotoQuery>;

/** The prediction at planning time: flow after over flow before. */
export const PredictedJson = z.strictObject({
  flowM3s: z.number(),
  ratio: z.strictObject({ value: z.number(), low: z.number(), high: z.number() }),
});

export const UpgradeEventJson = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('booked'), editId: Id.nullable(), beforeTestId: Id, note: z.string() }),
  z.strictObject({ kind: z.literal('undone'), editId: Id.nullable(), note: z.string() }),
  z.strictObject({ kind: z.literal('dropped'), note: z.string() }),
]);
