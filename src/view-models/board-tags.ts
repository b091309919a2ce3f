import type { Tone } from '@/messages/verdicts';
import { classStanding, type Machine } from '@/core/machine/machine';
import { MACHINE_KINDS } from '@/core/machine/kinds';
import type { MachineStatus } from '@/core/status/machine-status';
import type { UnitSystem } from '@/core/units';
import { onceFor } from '@/server/services/yard/once-for';
import type { Yard } from '@/server/services/yard/yard';
import { holdOf, type JobState } from '@/core/procedure/job-log';
import { sayUnderJob } from '@/messages/job';
import { dueIn, sayNeed } from '@/messages/needs';
import { capital, CLASS_WORDS, HAZARD_WORDS } from '@/messages/words';

/** One asset tag of the board, all words made on the server. */
export interface BoardTag {
  readonly tag: string;
  readonly name: string;
  readonly classText: string;
  readonly kindText: string;
  readonly place: string;
  readonly tone: Tone;
  readonly mark: string;
  readonly need: string;
  /** A person works on it, or looks for a fault; null otherwise. */
  readonly flag: string | null;
  readonly remaining: number | null;
  readonly remainingText: string;
}

/** The class that may be claimed today. */
export const classText = (status: MachineStatus): string => {
  const standing = classStanding(status.machine);
  if (standing.gap && standing.onPlate !== null) return `class ${standing.gap.standing}`;
  return standing.label ? CLASS_WORDS[standing.label] : 'no class';
};

/** Class and kind in one phrase: "M class extractor", "tank vacuum, class withdrawn". */
export const kindText = (status: MachineStatus): string => {
  const { label } = MACHINE_KINDS[status.machine.kind];
  const standing = classStanding(status.machine);
  if (standing.gap && standing.onPlate !== null) return `${capital(label)}, class ${standing.gap.standing}`;
  return standing.label ? `${CLASS_WORDS[standing.label]} ${label}` : capital(label);
};

type Under = Pick<Yard, 'openCases' | 'openJobs' | 'site'>;

/** The moment a wet medium is dry, in the site's own time. */
export const dryAt = (until: string, timeZone: string): string =>
  new Date(until).toLocaleString('en-GB', { timeZone, weekday: 'short', hour: '2-digit', minute: '2-digit' });

/** The guided job of a machine in words; null when none is open. */
export const underJob = (
  state: JobState | undefined,
  timeZone: string,
): { readonly text: string; readonly stop: boolean } | null =>
  state
    ? {
        text: sayUnderJob(state, state.driesUntil === null ? null : dryAt(state.driesUntil, timeZone)),
        stop: holdOf(state) !== 'mayRun',
      }
    : null;

/** How it is opened, where its dust asks for more than care, and who is at work on it. */
const flagOf = ({ hazard }: Machine, work: string | null): string | null =>
  [hazard === 'plain' ? null : HAZARD_WORDS[hazard], work].filter((w) => w !== null).join(', ') || null;

const toTag = (status: MachineStatus, units: UnitSystem, under: Under): BoardTag => {
  const { machine } = status;
  const need = sayNeed(status.need, units);
  const job = underJob(under.openJobs.get(machine.id), under.site.timeZone);
  const least = status.due.reduce<MachineStatus['due'][number] | null>(
    (a, d) => (a === null || d.remaining < a.remaining ? d : a),
    null,
  );
  const stageName = machine.stages.find((s) => s.id === least?.stageId)?.name ?? '';
  return {
    tag: machine.tag,
    name: machine.name,
    classText: classText(status),
    kindText: MACHINE_KINDS[machine.kind].label,
    place: machine.place,
    tone: job?.stop ? 'stop' : need.tone,
    mark: job?.stop ? 'Open' : need.mark,
    need: job?.stop ? job.text : need.sentence,
    flag: flagOf(machine, job && !job.stop ? 'job under way' : under.openCases.has(machine.id) ? 'case open' : null),
    remaining: least?.remaining ?? null,
    remainingText: least ? `${stageName}: ${dueIn(least.daysLeft)}` : '',
  };
};

/** A machine whose records cannot be read: the board says so, and the other pages work. */
const unreadable = (tag: string): BoardTag => ({
  tag,
  name: '',
  classText: 'class not known',
  kindText: '',
  place: '',
  tone: 'stop',
  mark: 'Fault',
  need: 'Its records cannot be read. Do not run it. Tell the person who looks after Moorwind.',
  flag: null,
  remaining: null,
  remainingText: '',
});

/** Tags on the board beside a page; a larger yard has the rest one click away. */
export const BOARD_SHOWS = 40;

type Shown = Under & Pick<Yard, 'machines'> & Partial<Pick<Yard, 'unreadable'>>;

const tagsOf = (units: UnitSystem) =>
  onceFor((yard: Shown): readonly BoardTag[] => [
    ...(yard.unreadable ?? []).map(unreadable),
    ...yard.machines.map((status) => toTag(status, units, yard)),
  ]);
const TAGS: Record<UnitSystem, (yard: Shown) => readonly BoardTag[]> = { metric: tagsOf('metric'), us: tagsOf('us') };

/** The machines as the board shows them; those under a job or with an open case say so. The words of one yard are made once. */
export const boardTags = (yard: Shown, units: UnitSystem): readonly BoardTag[] => TAGS[units](yard);

const textOf = onceFor((tags: readonly BoardTag[]) => JSON.stringify(tags.slice(0, BOARD_SHOWS)));

/**
 * The board beside a page, as text: the most urgent tags, and the open machine at any rank. Every page shows it, so it
 * is written once for a yard; only a machine further down needs its own text.
 */
export const boardBeside = (tags: readonly BoardTag[], current: string | null): string => {
  const first = tags.slice(0, BOARD_SHOWS);
  const here = tags.find((t) => t.tag === current);
  if (here && !first.includes(here)) return JSON.stringify([here, ...first.slice(0, -1)]);
  return textOf(tags);
};
