import { fail, failure, ok, type Result } from '../failure/failure';
import type { ToolKey } from './tools';
import type { WorkQuestion } from './question';

/** A tool of the yard's own, by its name: a kind of tool with its own figures in place of the usual ones. */
export interface OwnTool {
  readonly key: string;
  readonly name: string;
  readonly like: ToolKey;
  /** Of its wheel, disc, blade ..., m; null for the usual one. */
  readonly sizeM: number | null;
  /** Air its maker asks for, m3/s; null where he names none. */
  readonly airM3s: number | null;
  /** From its plate, A; null where it was not read. */
  readonly amps: number | null;
  readonly retired: boolean;
}

const sameName = (a: string, b: string): boolean => a.trim().toUpperCase() === b.trim().toUpperCase();

/** Whether a tool may be kept beside the others. Returns `tool.name-taken` for a name that another one in use has. */
export const checkTool = (tool: OwnTool, others: readonly OwnTool[]): Result<OwnTool> =>
  !tool.retired && others.some((o) => o.key !== tool.key && !o.retired && sameName(o.name, tool.name))
    ? fail(failure('tool.name-taken', 'name', { name: tool.name }))
    : ok(tool);

/** The question with a tool of the yard's own: typed values come before the stored ones. */
export const withOwnTool = (q: WorkQuestion, tool: OwnTool): WorkQuestion => ({
  ...q,
  tool: tool.like,
  sizeM: q.sizeM ?? tool.sizeM,
  makerM3s: q.makerM3s ?? tool.airM3s,
});
