import { wasteOf } from '@/core/dust/equipment';
import type { MachineStatus } from '@/core/status/machine-status';
import { sayDusts } from '@/messages/dust';
import { HAZARD_WORDS } from '@/messages/words';
import { qrSquare } from '@/server/services/house/qr';
import { loadStockDesk } from '@/server/services/stock/stock-desk';
import type { Context } from '@/server/services/yard/user-action';
import type { Yard } from '@/server/services/yard/yard';
import { kindText } from './board-tags';

/** How labels lie on a page: columns and rows, and the size of one, mm. */
export interface Sheet {
  readonly key: string;
  readonly words: string;
  readonly page: 'A4' | 'letter';
  readonly columns: number;
  readonly rows: number;
  readonly wideMm: number;
  readonly highMm: number;
}

/** Sizes that label sheets come in, and single labels on plain paper to be cut. Source: common practice, no published source. */
export const SHEETS: readonly Sheet[] = [
  { key: 'a4-24', words: 'A4, 24 of 70 × 37 mm', page: 'A4', columns: 3, rows: 8, wideMm: 70, highMm: 37 },
  { key: 'a4-8', words: 'A4, 8 of 105 × 74 mm', page: 'A4', columns: 2, rows: 4, wideMm: 105, highMm: 74 },
  {
    key: 'letter-20',
    words: 'Letter, 20 of 4 × 1 in',
    page: 'letter',
    columns: 2,
    rows: 10,
    wideMm: 101.6,
    highMm: 25.4,
  },
  {
    key: 'letter-6',
    words: 'Letter, 6 of 4 × 3 1/3 in',
    page: 'letter',
    columns: 2,
    rows: 3,
    wideMm: 101.6,
    highMm: 84.7,
  },
];

export const LABEL_KINDS = ['machines', 'waste', 'held'] as const;
export type LabelKind = (typeof LABEL_KINDS)[number];

/** Waste and held parts carry words that must not be cut: small labels are not offered for them. */
const LEAST_WORDS_MM = 70;
export const sheetsFor = (kind: LabelKind): readonly Sheet[] =>
  kind === 'machines' ? SHEETS : SHEETS.filter((s) => s.highMm >= LEAST_WORDS_MM);

export const LABEL_WORDS: Readonly<Record<LabelKind, string>> = {
  machines: 'Machines',
  waste: 'Waste',
  held: 'Held parts',
};

export interface Label {
  readonly key: string;
  /** The address its square leads to. */
  readonly address: string;
  readonly svg: string;
  readonly head: string;
  readonly lines: readonly string[];
}

interface LabelWorld {
  readonly context: Context;
  readonly yard: Yard;
  /** Where phones reach this Moorwind. */
  readonly origin: string;
  /** Only this machine; null for all. */
  readonly tag: string | null;
}

const addressOf = (origin: string, tag: string): string => `${origin}/m/${encodeURIComponent(tag)}`;

const wanted = ({ yard, tag }: LabelWorld): readonly MachineStatus[] =>
  [...yard.machines]
    .filter((s) => tag === null || s.machine.tag === tag)
    .sort((a, b) => (a.machine.tag < b.machine.tag ? -1 : 1));

const machineLabel = async (w: LabelWorld, s: MachineStatus): Promise<Label> => {
  const { machine } = s;
  const address = addressOf(w.origin, machine.tag);
  return {
    key: machine.tag,
    address,
    svg: await qrSquare(address),
    head: machine.tag,
    lines: [
      machine.name,
      `${kindText(s)} (${w.yard.today.replaceAll('-', '\u2011')})`,
      `${HAZARD_WORDS[machine.hazard]} dust: scan before you open it`,
    ],
  };
};

const wasteLabel = async (w: LabelWorld, { machine }: MachineStatus): Promise<Label> => {
  const address = addressOf(w.origin, machine.tag);
  const { standing } = machine.dust;
  return {
    key: machine.tag,
    address,
    svg: await qrSquare(address),
    head: 'WASTE',
    lines: [
      `from ${machine.tag}, ${machine.name}`,
      sayDusts(standing),
      ...wasteOf(standing).slice(0, 2),
      `${HAZARD_WORDS[machine.hazard]} dust: keep it closed`,
      'Day __________  kg ______  by ____',
    ],
  };
};

const HELD_WORDS = {
  old: 'HOLD until the new one is proven',
  out: 'On trial: not booked in yet',
  reserved: 'Reserved',
} as const;

const heldLabels = async (w: LabelWorld): Promise<readonly Label[]> => {
  const { lines } = await loadStockDesk(w.context);
  const held = lines
    .flatMap((l) => l.held.map((h) => ({ ...h, part: l.part })))
    .filter((h) => h.state !== 'reserved' && (w.tag === null || h.tag === w.tag));
  return Promise.all(
    held.map(async (h, i) => {
      const address = addressOf(w.origin, h.tag);
      return {
        key: `${h.part.code}-${h.tag}-${i}`,
        address,
        svg: await qrSquare(address),
        head: `${h.part.code} from ${h.tag}`,
        lines: [
          h.part.name,
          HELD_WORDS[h.state],
          `${h.by.kind} ${h.by.id}, ${w.yard.today}`,
          'Bagged and closed; not waste yet',
        ],
      };
    }),
  );
};

/** The labels of a kind, for one machine or for all. */
export const labelsOf = (kind: LabelKind, w: LabelWorld): Promise<readonly Label[]> => {
  if (kind === 'held') return heldLabels(w);
  const make = kind === 'machines' ? machineLabel : wasteLabel;
  return Promise.all(wanted(w).map((s) => make(w, s)));
};

/** The address this page was asked under: what a phone would ask for. */
export const originOf = (request: Request, secure: boolean): string =>
  `${secure ? 'https' : 'http'}://${request.headers.get('host') ?? 'localhost'}`;

/** Whether a phone could reach an address: one of this machine alone leads nowhere from elsewhere. */
export const leadsHere = (origin: string): boolean => !/\/\/(localhost|127\.|\[::1\])/.test(origin);
