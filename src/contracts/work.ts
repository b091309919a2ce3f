import { z } from 'zod';
import { parseQuantity, type QuantityKind } from '@/core/units';
import { DUST_ANSWERS, DUST_QUESTIONS } from '@/core/dust/dust';
import { stated } from '@/core/dust/assess';
import { PLACES_OF_WORK, type WorkQuestion } from '@/core/for-work/question';
import { type OwnTool, withOwnTool } from '@/core/for-work/own-tool';
import type { Hose } from '@/core/for-work/predict';
import { TOOL_KEYS, type ToolKey } from '@/core/for-work/tools';
import { fail, failure, type Failure, ok, type Result } from '@/core/failure/failure';

// The question of the work desk, as in an address: the address opens the card again.

const Key = z.string().regex(/^[A-Za-z][A-Za-z0-9]{1,40}$/);
const Keys = z
  .string()
  .max(600)
  .transform((text) => text.split(',').filter((k) => Key.safeParse(k).success));
const Tool = z
  .string()
  .regex(/^[A-Za-z0-9]{0,24}$/)
  .catch('')
  .default('');
const Typed = z.string().trim().max(24).default('');

export const WorkQuery = z.object({
  q: z.string().trim().max(120).default(''),
  /** A kind of tool, or the key of one of the yard's own. */
  tool: Tool,
  size: Typed,
  air: Typed,
  away: Typed,
  tools: z.enum(['1', '2']).catch('1').default('1'),
  /** The second tool on a Y, its size, and its hose as bore x length in m; left out, they are like the first. */
  tool2: Tool,
  size2: Typed,
  hose2: z
    .string()
    .regex(/^(\d{1,2}(\.\d{1,6})?x\d{1,3}(\.\d{1,4})?)?$/)
    .catch('')
    .default(''),
  wet: z.literal('1').optional().catch(undefined),
  place: z
    .enum(['', ...PLACES_OF_WORK])
    .catch('')
    .default(''),
  hours: Typed,
  /** The words the answers below were given to: to other words they say nothing. */
  of: z.string().trim().max(120).default(''),
  yes: Keys.default([]),
  no: Keys.default([]),
  answers: z
    .string()
    .max(400)
    .default('')
    .transform((text) =>
      Object.fromEntries(
        text.split(',').flatMap((pair) => {
          const [q, a] = pair.split(':');
          const [question, answer] = [z.enum(DUST_QUESTIONS).safeParse(q), z.enum(DUST_ANSWERS).safeParse(a)];
          return question.success && answer.success ? [[question.data, answer.data] as const] : [];
        }),
      ),
    ),
  /** The machine whose hoses are compared; left out: the best one. */
  m: z.string().max(16).default(''),
  supply: Typed,
  breaker: Typed,
  machineA: Typed,
  toolA: Typed,
  socket: Typed,
  lead: Typed,
  section: Typed,
  generator: Typed,
});
export type WorkQuery = z.infer<typeof WorkQuery>;

interface Field {
  readonly key:
    | 'size'
    | 'size2'
    | 'air'
    | 'away'
    | 'hours'
    | 'supply'
    | 'breaker'
    | 'machineA'
    | 'toolA'
    | 'socket'
    | 'lead'
    | 'section'
    | 'generator';
  readonly kind: QuantityKind | null;
  readonly unit: string;
  readonly low: number;
  readonly high: number;
}

/** The typed fields, each with its default unit and its valid range. Quantities in SI. */
const FIELDS: readonly Field[] = [
  { key: 'size', kind: 'length', unit: 'mm', low: 0.005, high: 1 },
  { key: 'size2', kind: 'length', unit: 'mm', low: 0.005, high: 1 },
  { key: 'air', kind: 'flow', unit: 'L/s', low: 0.0005, high: 2 },
  { key: 'away', kind: 'length', unit: 'mm', low: 0.01, high: 2 },
  { key: 'hours', kind: null, unit: 'h', low: 0, high: 1000 },
  { key: 'supply', kind: 'voltage', unit: 'V', low: 50, high: 480 },
  { key: 'breaker', kind: 'current', unit: 'A', low: 1, high: 125 },
  { key: 'machineA', kind: 'current', unit: 'A', low: 0.1, high: 63 },
  { key: 'toolA', kind: 'current', unit: 'A', low: 0.1, high: 63 },
  { key: 'socket', kind: 'power', unit: 'W', low: 50, high: 7500 },
  { key: 'lead', kind: 'length', unit: 'm', low: 0, high: 500 },
  { key: 'section', kind: null, unit: 'mm2', low: 0.5, high: 35 },
  { key: 'generator', kind: 'power', unit: 'W', low: 200, high: 100_000 },
];

export type WorkFigures = Readonly<Record<Field['key'], number | null>>;

const readField = (field: Field, text: string): Result<number | null> => {
  if (text === '') return ok(null);
  const parsed = field.kind === null ? null : parseQuantity(text, field.kind, field.unit);
  if (parsed && !parsed.ok) return fail(...parsed.failures.map((f) => ({ ...f, path: field.key })));
  const value = parsed ? parsed.value.valueSi : Number(text.replace(',', '.'));
  return value >= field.low && value <= field.high
    ? ok(value)
    : fail(failure('work.figure', field.key, { field: field.key, low: field.low, high: field.high, unit: field.unit }));
};

/** A named tool: a kind, or one of the yard's own of that kind. */
export interface ToolNamed {
  readonly kind: ToolKey;
  readonly own: OwnTool | null;
}

export interface WorkAsked {
  readonly question: WorkQuestion;
  readonly tool: ToolNamed | null;
  /** The second tool on a Y and its hose; null where both are like the first. */
  readonly beside: {
    readonly question: WorkQuestion;
    readonly tool: ToolNamed | null;
    readonly hose: Hose | null;
  } | null;
  readonly figures: WorkFigures;
  /** Unreadable fields; each is treated as not given. */
  readonly problems: readonly Failure[];
}

/** The tool of a key; null for none and for an unknown one. */
const toolNamed = (key: string, tools: readonly OwnTool[]): ToolNamed | null => {
  const kind = TOOL_KEYS.find((k) => k === key);
  if (kind) return { kind, own: null };
  const own = tools.find((t) => t.key === key);
  return own ? { kind: own.like, own } : null;
};

/** A hose as bore x length in m; null for none. */
export const hoseNamed = (text: string): Hose | null => {
  const [bore, length] = text.split('x').map(Number);
  return bore !== undefined && length !== undefined && bore >= 0.005 && bore <= 1 && length > 0
    ? { boreM: bore, lengthM: length }
    : null;
};

const withTool = (q: WorkQuestion, tool: ToolNamed | null): WorkQuestion =>
  tool === null ? q : tool.own ? withOwnTool(q, tool.own) : { ...q, tool: tool.kind };

const besideOf = (query: WorkQuery, asked: WorkQuestion, tools: readonly OwnTool[]): WorkAsked['beside'] => {
  const [tool, hose] = [toolNamed(query.tool2, tools), hoseNamed(query.hose2)];
  return asked.tools === 1 || (tool === null && hose === null) ? null : { question: asked, tool, hose };
};

/**
 * Reads the question of an address, with the tools of the yard. Unreadable fields are reported; the rest is answered.
 */
export const readWork = (query: WorkQuery, tools: readonly OwnTool[] = []): WorkAsked => {
  const said = query.of === query.q ? { confirmed: query.yes, denied: query.no, answers: query.answers } : {};
  const read = FIELDS.map((f) => ({ field: f, result: readField(f, query[f.key]) }));
  const typed = Object.fromEntries(
    read.map(({ field, result }) => [field.key, result.ok ? result.value : null]),
  ) as WorkFigures;
  const tool = toolNamed(query.tool, tools);
  const bare: WorkQuestion = {
    dust: stated(query.q, said),
    tool: null,
    sizeM: typed.size,
    awayM: typed.away,
    makerM3s: typed.air,
    tools: query.tools === '2' ? 2 : 1,
    wet: query.wet === '1',
    place: query.place === '' ? null : query.place,
    hours: typed.hours,
  };
  const question = withTool(bare, tool);
  const beside = besideOf(query, question, tools);
  const second = { ...bare, sizeM: typed.size2, makerM3s: null };
  return {
    question,
    tool,
    beside: beside && { ...beside, question: beside.tool ? withTool(second, beside.tool) : question },
    figures: { ...typed, toolA: typed.toolA ?? tool?.own?.amps ?? null },
    problems: read.flatMap(({ result }) => (result.ok ? [] : result.failures)),
  };
};
