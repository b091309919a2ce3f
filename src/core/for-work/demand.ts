import { CLASS_HOSE_VELOCITY } from '../constants/limits';
import type { DustStanding } from '../dust/assess';
import type { DustProperty, NeededClass, RuleSet } from '../dust/dust';
import { DUCT_VELOCITY, wheelNeedM3s } from '../measure/needs-of-use';
import { captureNeedM3s, USUAL_AWAY_M } from './capture';
import { isEnclosed, type WorkQuestion } from './question';
import { type TaskRow, TOOLS } from './tools';

export const FLOW_REASONS = ['taskTable', 'maker', 'usual', 'capture'] as const;
/** Air wanted at one tool, m3/s. `usual` is what the trade gives such a tool, `capture` what a hood wants to draw dust in: no rules. */
export interface FlowNeed {
  readonly because: (typeof FLOW_REASONS)[number];
  readonly flowM3s: number;
}

/** Rules of thumb that no regulation requires. */
const GUIDES: ReadonlySet<FlowNeed['because']> = new Set(['usual', 'capture'] as const);

export const GEAR = ['shroud', 'filter99', 'filterCleaning', 'water', 'hepaForHoles', 'outdoorsOnly'] as const;
export type Gear = (typeof GEAR)[number];

export const FORBIDDEN = [
  'drySweeping',
  'compressedAir',
  'shaking',
  'paperInTheWet',
  'mainsInTheWet',
  'sparks',
  'dryScraping',
] as const;
export type Forbidden = (typeof FORBIDDEN)[number];

export const RISKS = ['burns', 'static', 'explodes', 'sparkWork', 'weldSparks', 'conducts'] as const;
/** Dangers of the dust or the tool, shown before the work begins. */
export type Risk = (typeof RISKS)[number];

export interface Demand {
  readonly standing: DustStanding;
  /** Wet by the answer, or by the material itself. */
  readonly wet: boolean;
  /** The tool throws sparks on this material. */
  readonly sparks: boolean;
  /** The task table knows this work with water only, and it is to be done dry. */
  readonly waterOnly: boolean;
  readonly risks: readonly Risk[];
  readonly classes: Readonly<Record<RuleSet, NeededClass>>;
  readonly flows: readonly FlowNeed[];
  /** The flow each tool must get, m3/s: the largest demand; null without one. */
  readonly mustM3s: number | null;
  /** The flow the trade usually gives such a tool, m3/s: not a rule; null where unknown. */
  readonly usualM3s: number | null;
  /** Least air velocity in a hose, m/s; null where none is asked. */
  readonly hoseMs: number | null;
  /** Least transport velocity in a duct, m/s, low and high end. */
  readonly ductMs: { readonly lowMs: number; readonly highMs: number };
  readonly gear: readonly Gear[];
  /** Assigned protection factor the task table asks for; 0 where it asks for none, null where it does not speak of this work. */
  readonly respiratorApf: number | null;
  readonly forbidden: readonly Forbidden[];
}

const isMineral = ({ dusts }: DustStanding): boolean => dusts.some((d) => d.family === 'silica');

/** Hours of a shift past which the table asks for more. Source: 29 CFR 1926.1153 Table 1. */
const LONG_HOURS = 4;

interface Row {
  readonly gear: readonly Gear[];
  readonly apf: (q: { readonly long: boolean; readonly enclosed: boolean }) => number;
}

/** Source: 29 CFR 1926.1153 Table 1, rows (ii), (iii), (vi), (vii), (xi) and (xii), from memory; the rest of each row is read there. */
const ROWS: Readonly<Record<TaskRow, Row>> = {
  mortarGrinder: { gear: ['shroud', 'filter99', 'filterCleaning'], apf: ({ long }) => (long ? 25 : 10) },
  grinder: {
    gear: ['shroud', 'filter99', 'filterCleaning'],
    apf: ({ long, enclosed }) => (long && enclosed ? 10 : 0),
  },
  drill: { gear: ['shroud', 'filter99', 'filterCleaning', 'hepaForHoles'], apf: () => 0 },
  handSaw: { gear: ['water'], apf: ({ long, enclosed }) => (long || enclosed ? 10 : 0) },
  fibreCementSaw: { gear: ['shroud', 'filter99', 'outdoorsOnly'], apf: () => 0 },
  coreSaw: { gear: ['water'], apf: () => 0 },
};

/** Largest blade of the row for fibre cement, m: 8 in. Source: 29 CFR 1926.1153 Table 1 (iii), from memory. */
const FIBRE_CEMENT_BLADE_M = 0.2032;

/** The row of the table that speaks of a work; null where none does. Fibre cement outdoors has a row of its own. */
const rowOf = (q: WorkQuestion, standing: DustStanding): TaskRow | null => {
  const kind = q.tool === null ? null : TOOLS[q.tool];
  if (!kind?.row || !isMineral(standing)) return null;
  const mineral = standing.dusts.filter((d) => d.family === 'silica');
  const own =
    kind.row === 'handSaw' &&
    q.place === 'outdoors' &&
    (q.sizeM ?? kind.usualSizeM ?? 0) <= FIBRE_CEMENT_BLADE_M &&
    mineral.every((d) => d.key === 'fibreCement');
  return own ? 'fibreCementSaw' : kind.row;
};

/** Wheels of mineral grinders have their figure by the inch; on anything else it is what the trade takes over. */
const PER_INCH: ReadonlySet<TaskRow> = new Set<TaskRow>(['mortarGrinder', 'grinder']);

const flowsOf = (q: WorkQuestion, standing: DustStanding): readonly FlowNeed[] => {
  const kind = q.tool === null ? null : TOOLS[q.tool];
  const maker = q.makerM3s === null ? [] : [{ because: 'maker' as const, flowM3s: q.makerM3s }];
  if (!kind) return maker;
  const sizeM = q.sizeM ?? kind.usualSizeM;
  const perInch =
    kind.row !== null && PER_INCH.has(kind.row) && sizeM !== null
      ? [
          {
            because: isMineral(standing) ? ('taskTable' as const) : ('usual' as const),
            flowM3s: kind.wheels * wheelNeedM3s(sizeM),
          },
        ]
      : [];
  const usual = kind.usualM3s ? [{ because: 'usual' as const, flowM3s: kind.usualM3s[0] }] : [];
  if (kind.draws && sizeM !== null)
    return [
      ...maker,
      {
        because: 'capture',
        flowM3s: captureNeedM3s({ form: kind.draws, sizeM, awayM: q.awayM ?? USUAL_AWAY_M }),
      },
    ];
  return [...maker, ...perInch, ...(perInch.length > 0 ? [] : usual)];
};

const NO_SWEEPING: ReadonlySet<NeededClass> = new Set<NeededClass>(['M', 'H', 'HEPA']);

const has = ({ dusts }: DustStanding, property: DustProperty): boolean =>
  dusts.some((d) => d.properties.includes(property));

/** Water, slurry and coolant are wet even when "wet" is not ticked. Source: handbook of the trade, section 21. */
const isWet = (q: WorkQuestion, standing: DustStanding): boolean => q.wet || has(standing, 'wet');

const throwsSparks = (q: WorkQuestion, standing: DustStanding): boolean => {
  const sparks = q.tool === null ? 'never' : TOOLS[q.tool].sparks;
  return sparks === 'always' || (sparks === 'onMetal' && has(standing, 'sparking'));
};

const forbiddenBy = (q: WorkQuestion, standing: DustStanding, wet: boolean): readonly Forbidden[] => {
  const guarded = NO_SWEEPING.has(standing.neededClass.eu_uk) || NO_SWEEPING.has(standing.neededClass.us);
  const burns = has(standing, 'combustible') || has(standing, 'reactiveMetal');
  const sparky = q.tool !== null && TOOLS[q.tool].sparks !== 'never';
  return [
    ...(guarded ? (['drySweeping', 'compressedAir'] as const) : []),
    ...(standing.level === 'contained' ? (['shaking'] as const) : []),
    ...(standing.level === 'contained' && !wet && standing.dusts.some((d) => d.family === 'toxicMetal')
      ? (['dryScraping'] as const)
      : []),
    ...(wet ? (['paperInTheWet', 'mainsInTheWet'] as const) : []),
    ...(burns && sparky ? (['sparks'] as const) : []),
  ];
};

/** Dangers of fire, charge, explosion and conduction. Source: handbook of the trade, section 21; NFPA practice, from memory. */
const risksOf = (q: WorkQuestion, standing: DustStanding): readonly Risk[] => {
  const burns = has(standing, 'combustible');
  const welding = standing.dusts.some((d) => d.family === 'fume') && q.tool !== 'torch';
  return [
    ...(burns ? (['burns', 'static', 'explodes'] as const) : []),
    ...(throwsSparks(q, standing) ? (['sparkWork'] as const) : []),
    ...(welding ? (['weldSparks'] as const) : []),
    ...(has(standing, 'conductive') ? (['conducts'] as const) : []),
  ];
};

/**
 * The demands of a work on machine, hose and person. Flows in m3/s at each tool. The task table speaks only of mineral;
 * the trade uses its figure by the inch of wheel for grinders elsewhere too, and the result marks that. Source: 29 CFR
 * 1926.1153 Table 1 and EN 60335-2-69 Annex AA, from memory; ACGIH transport velocities. Valid: sizes above 0 (throws
 * RangeError otherwise). `assessDust` gives the demands of the dust.
 */
export const demandOf = (q: WorkQuestion, standing: DustStanding): Demand => {
  const kind = q.tool === null ? null : TOOLS[q.tool];
  const flows = flowsOf(q, standing);
  const must = flows.filter((f) => !GUIDES.has(f.because)).map((f) => f.flowM3s);
  const named = rowOf(q, standing);
  const row = named === null ? null : ROWS[named];
  // Unknown hours count as the long shift.
  const long = q.hours === null || q.hours > LONG_HOURS;
  const wet = isWet(q, standing);
  return {
    standing,
    wet,
    sparks: throwsSparks(q, standing),
    waterOnly: row !== null && row.gear.includes('water') && !wet,
    risks: risksOf(q, standing),
    classes: standing.neededClass,
    flows,
    mustM3s: must.length > 0 ? Math.max(...must) : null,
    usualM3s: flows.find((f) => GUIDES.has(f.because))?.flowM3s ?? null,
    hoseMs: NO_SWEEPING.has(standing.neededClass.eu_uk) ? CLASS_HOSE_VELOCITY.value : null,
    ductMs: DUCT_VELOCITY[wet ? 'heavyOrMoist' : (kind?.load ?? 'lightDry')],
    gear: row?.gear ?? [],
    respiratorApf: row ? row.apf({ long, enclosed: isEnclosed(q.place) }) : null,
    forbidden: forbiddenBy(q, standing, wet),
  };
};
