import type { HoodForm } from './capture';
import { type DuctLoad, wheelNeedM3s } from '../measure/needs-of-use';

export const TOOL_KEYS = [
  'grinder',
  'mortarRaker',
  'wallChaser',
  'hammerDrill',
  'coreDrill',
  'handSaw',
  'sander',
  'beltSander',
  'planer',
  'router',
  'tableSaw',
  'cleaningWand',
  'hood',
  'slot',
  'torch',
] as const;
export type ToolKey = (typeof TOOL_KEYS)[number];

/** The dimension that a tool's size names. */
export const TOOL_SIZES = ['wheel', 'disc', 'blade', 'belt', 'knife', 'bit', 'opening', 'length', 'none'] as const;
export type ToolSize = (typeof TOOL_SIZES)[number];

/** Rows of the task table for silica. Source: 29 CFR 1926.1153 Table 1, from memory. */
export const TASK_ROWS = ['mortarGrinder', 'grinder', 'drill', 'handSaw', 'fibreCementSaw', 'coreSaw'] as const;
export type TaskRow = (typeof TASK_ROWS)[number];

/** Whether it throws sparks: always, on metal, or never. */
export const SPARKS = ['always', 'onMetal', 'never'] as const;
export type Sparks = (typeof SPARKS)[number];

/** A kind of tool, with its demands on the machine. */
export interface ToolKind {
  readonly key: ToolKey;
  readonly size: ToolSize;
  /** Size by default, m; null without one. */
  readonly usualSizeM: number | null;
  /** Wheels side by side, each with its own air. */
  readonly wheels: number;
  /** Air it is usually given, low and high end, m3/s. Common practice, no published source, from memory: its maker's figure comes first. */
  readonly usualM3s: readonly [number, number] | null;
  /** Its row of the task table, where it cuts or drills mineral. */
  readonly row: TaskRow | null;
  /** Weight class of its chips or dust, for a duct. */
  readonly load: DuctLoad;
  /** A hood beside the dust that draws it in from a distance. */
  readonly draws: HoodForm | null;
  readonly sparks: Sparks;
  /** Held in the hand, on a hose: it takes no duct. */
  readonly handHeld: boolean;
}

const litres = (low: number, high: number): readonly [number, number] => [low / 1000, high / 1000];

const PLAIN: Omit<ToolKind, 'key' | 'size' | 'usualSizeM' | 'usualM3s'> = {
  wheels: 1,
  row: null,
  load: 'lightDry',
  draws: null,
  sparks: 'never',
  handHeld: true,
};

const tool = (
  [key, size, usualSizeM]: readonly [ToolKey, ToolSize, number | null],
  usualM3s: ToolKind['usualM3s'],
  over: Partial<typeof PLAIN> = {},
): ToolKind => ({ key, size, usualSizeM, usualM3s, ...PLAIN, ...over });

/** Source: common practice, no published source; rows of 29 CFR 1926.1153 Table 1, from memory. */
export const TOOLS: Readonly<Record<ToolKey, ToolKind>> = {
  grinder: tool(['grinder', 'wheel', 0.125], null, { row: 'grinder', sparks: 'onMetal' }),
  mortarRaker: tool(['mortarRaker', 'wheel', 0.125], null, { row: 'mortarGrinder', sparks: 'onMetal' }),
  wallChaser: tool(['wallChaser', 'wheel', 0.125], null, { row: 'mortarGrinder', wheels: 2, sparks: 'onMetal' }),
  hammerDrill: tool(['hammerDrill', 'bit', null], litres(15, 25), { row: 'drill' }),
  coreDrill: tool(['coreDrill', 'bit', null], litres(20, 35), { row: 'coreSaw' }),
  handSaw: tool(['handSaw', 'blade', 0.19], litres(30, 45), { row: 'handSaw', load: 'woodChips', sparks: 'onMetal' }),
  sander: tool(['sander', 'disc', 0.15], litres(20, 35), { sparks: 'onMetal' }),
  beltSander: tool(['beltSander', 'belt', 0.1], litres(30, 45), { sparks: 'onMetal' }),
  planer: tool(['planer', 'knife', 0.082], litres(40, 60), { load: 'woodChips' }),
  router: tool(['router', 'none', null], litres(30, 45), { load: 'woodChips' }),
  tableSaw: tool(['tableSaw', 'blade', 0.25], litres(165, 190), {
    load: 'woodChips',
    sparks: 'onMetal',
    handHeld: false,
  }),
  cleaningWand: tool(['cleaningWand', 'none', null], null),
  hood: tool(['hood', 'opening', 0.15], null, { draws: 'hood', handHeld: false }),
  slot: tool(['slot', 'length', 0.3], null, { draws: 'slot', handHeld: false }),
  torch: tool(['torch', 'none', null], litres(20, 35), { sparks: 'always' }),
};

/**
 * The largest wheel, m, that so much air at the tool, m3/s, is enough for: the table's 25 cfm an inch the other way round,
 * to the millimetre below. null for a tool without a figure by the inch. Source: 29 CFR 1926.1153 Table 1. Valid: flow above 0.
 */
export const wheelThatFitsM = (key: ToolKey, flowM3s: number): number | null => {
  const { row, wheels } = TOOLS[key];
  if (row !== 'grinder' && row !== 'mortarGrinder') return null;
  return Math.floor((1000 * flowM3s) / (wheels * wheelNeedM3s(1))) / 1000;
};
