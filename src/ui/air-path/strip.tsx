import { isSuspect } from '@/core/diagnose/likely';
import type { StageDue } from '@/core/interval/due';
import { stageDueWord } from '@/core/interval/stage-due-word';
import type { Machine, Stage } from '@/core/machine/machine';
import { type Place } from '@/core/measure/place';
import { gapOfPlace, type Side, sidesOfPath } from '@/core/path/path-places';
import type { UnitSystem } from '@/core/units';
import { dueIn } from '@/messages/needs';
import { PLACE_WORDS } from '@/messages/words';
import { LifeBar } from '../life-bar';
import { StageGlyph } from './stage-glyph';
import { Stairs } from './stairs';
import type { ShownPath } from './shown-path';
import { howFar } from '@/messages/format';

interface StripProps {
  readonly machine: Pick<Machine, 'stages'>;
  readonly due: readonly StageDue[];
  /** Where a reading is being, or was, taken. */
  readonly place?: Place | null | undefined;
  /** The stage at hand. */
  readonly openStageId?: number | null | undefined;
  readonly view: ShownPath;
  readonly units: UnitSystem;
  /** A low staircase without its sentences. */
  readonly compact?: boolean;
  /** Remaining life of each stage as a range, by its number; shown instead of the day. */
  readonly ranges?: Readonly<Record<number, string>> | undefined;
  /** The path alone, without its staircase. */
  readonly pathOnly?: boolean;
  /** The page says itself what the staircase rests on. */
  readonly hideBasis?: boolean;
  /** How strongly each stage is suspected, by position, 0 to 1; shown instead of its life. */
  readonly suspicion?: readonly number[] | undefined;
}

const SIDE_COLOR: Record<Side, string> = {
  suction: 'var(--color-info)',
  fan: 'var(--color-base-content)',
  pressure: 'var(--color-accent)',
};

const shortLife = (due: StageDue): string => {
  const {
    daysLeft,
    binding: { counted, rule },
  } = due;
  switch (stageDueWord(due)) {
    case 'changeUnknown':
      return 'not known';
    case 'overdue':
      return `${howFar(daysLeft ?? 0)} over`;
    case 'today':
      return 'today';
    case 'thisWeek':
    case 'later':
      return howFar(daysLeft ?? 0);
    case 'undated':
      return rule.kind === 'countOfChanges' ? `${counted ?? 0} of ${rule.count}` : 'no date';
  }
};

const HATCH = 'repeating-linear-gradient(135deg, var(--color-error) 0 4px, var(--color-base-100) 4px 7px)';

/** Suspicion as a hatched bar that fills from the left, its number, and for a screen reader in words. */
const Suspicion = ({ share, name }: { share: number; name: string }) => (
  <div className="mt-auto pt-1">
    <div className="border-base-300 h-2.5 border" aria-hidden="true">
      <div className="h-full" style={{ width: `${Math.round(100 * share)}%`, background: HATCH }} />
    </div>
    <span
      className={`dial block text-xs leading-tight sm:mt-0.5 ${isSuspect(share) ? 'tone-stop font-bold' : 'font-medium'}`}
    >
      <span className="sr-only">{name}: suspected with </span>
      {Math.round(100 * share)} %
    </span>
  </div>
);

interface CellProps {
  readonly stage: Stage;
  readonly side: Side;
  readonly due: StageDue | undefined;
  readonly open: boolean;
  readonly suspected: number | null;
  readonly range: string | null;
}

const StageCell = ({ stage, side, due, open, suspected, range }: CellProps) => (
  <li
    className={`flex min-w-0 flex-1 flex-col ${open ? 'bg-base-200' : ''}`}
    style={open ? { boxShadow: 'inset 0 -4px 0 var(--color-primary)' } : undefined}
  >
    <div className="h-10 sm:h-12" style={{ color: stage.missing ? 'var(--color-error)' : SIDE_COLOR[side] }}>
      <StageGlyph kind={stage.kind} missing={stage.missing} />
    </div>
    <div className="flex flex-1 flex-col px-0.5 pt-1 pb-1.5 text-center sm:px-1.5">
      <span className="hidden text-[0.8125rem] leading-tight font-semibold hyphens-auto break-words sm:block">
        {stage.name}
      </span>
      <span className="sr-only sm:hidden">{stage.name}</span>
      {stage.missing && <span className="tone-stop text-xs font-bold">missing</span>}
      {stage.doNotRemove && <span className="soft hidden text-xs sm:block">stays in</span>}
      {suspected !== null && <Suspicion share={suspected} name={stage.name} />}
      {suspected === null && due && (
        <div className="mt-auto pt-1">
          <LifeBar remaining={due.remaining} label={`${stage.name}: ${dueIn(due.daysLeft)}`} />
          <span className="dial block text-xs leading-tight font-medium sm:mt-0.5" aria-hidden="true">
            {range ?? shortLife(due)}
          </span>
        </div>
      )}
    </div>
  </li>
);

const PlacePin = ({ place, gap, count }: { place: Place; gap: number; count: number }) => {
  const edge = gap === 0 ? 'start' : gap === count ? 'end' : 'middle';
  const shift = edge === 'start' ? '0' : edge === 'end' ? '-100%' : '-50%';
  return (
    <div className="pointer-events-none absolute top-0 z-10 h-28" style={{ left: `${(gap / count) * 100}%` }}>
      <div className="bg-primary absolute top-0 bottom-0 w-0.5" style={{ left: edge === 'end' ? -2 : 0 }} />
      <div
        className="bg-primary text-primary-content absolute top-0 px-1.5 text-xs leading-5 font-bold whitespace-nowrap"
        style={{ transform: `translateX(${shift})` }}
      >
        {PLACE_WORDS[place]}
      </div>
    </div>
  );
};

/** The machine's air path from tool to room: a glyph per stage in its order, the fan in its place, remaining life. */
export const AirPathStrip = ({
  machine,
  due,
  place = null,
  openStageId = null,
  view,
  units,
  compact = false,
  hideBasis = false,
  pathOnly = false,
  ranges,
  suspicion,
}: StripProps) => {
  const kinds = machine.stages.map((s) => s.kind);
  const sides = sidesOfPath(kinds);
  if (!sides.ok) return <p className="tone-stop p-3 font-bold">This air path has no single fan: it cannot be drawn.</p>;
  const fan = kinds.indexOf('fan');
  return (
    <section aria-label="Air path, tool to room" className={`relative ${place ? 'pt-6' : 'pt-2'}`}>
      {place && <PlacePin place={place} gap={gapOfPlace(kinds, place)} count={kinds.length} />}
      <ol className="border-base-300 flex items-stretch border-y">
        {machine.stages.map((stage, i) => (
          <StageCell
            key={stage.id}
            stage={stage}
            side={sides.value[i] ?? 'suction'}
            due={due.find((d) => d.stageId === stage.id)}
            open={stage.id === openStageId}
            range={ranges?.[stage.id] ?? null}
            suspected={suspicion ? (suspicion[i] ?? 0) : null}
          />
        ))}
      </ol>
      <div className={`text-xs leading-5 font-semibold ${compact ? 'hidden' : 'flex'}`}>
        <span className="truncate" style={{ flex: fan, color: 'var(--ink-open)' }}>
          tool → suction side<span className="hidden sm:inline">: a leak draws air in</span>
        </span>
        <span className="truncate text-right" style={{ flex: kinds.length - fan, color: 'var(--color-primary)' }}>
          <span className="hidden sm:inline">pressure side: a leak blows dust </span>→ room
        </span>
      </div>
      {!pathOnly && <Stairs view={view} units={units} compact={compact} hideBasis={hideBasis} />}
    </section>
  );
};
