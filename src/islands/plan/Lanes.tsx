import { DndContext, type DragEndEvent, PointerSensor, useDraggable, useSensor, useSensors } from '@dnd-kit/core';
import { Lock } from 'lucide-react';
import { useRef, useState } from 'react';
import type { PlanInput, YardProblem } from '@/core/plan/yard-problem';
import { type PlannedOpening } from '@/core/plan/planned-openings';
import { dayText, namesOf } from './openings';

const shareOf = (day: number, horizon: number): number => (100 * Math.min(Math.max(day, 0), horizon)) / horizon;

/** Where a stage's limit lies, as chances: the 10 to 90 % window with its middle. */
const Window = ({
  stage,
  horizon,
}: {
  readonly stage: PlanInput['machines'][number]['stages'][number];
  readonly horizon: number;
}) => {
  const [, low, middle, high] = stage.reached;
  if (low > horizon) return null;
  const [left, right] = [shareOf(low, horizon), shareOf(Math.max(high, low + 0.4), horizon)];
  return (
    <div
      className="relative h-1.5"
      title={`${stage.name}: most likely between day ${Math.round(low)} and ${Math.round(high)}`}
    >
      <div
        className="absolute h-full opacity-70"
        style={{
          left: `${left}%`,
          width: `${Math.max(0.6, right - left)}%`,
          background: low < 0 ? 'var(--color-error)' : 'var(--color-info)',
        }}
      />
      {middle >= 0 && middle <= horizon && (
        <div
          className="bg-base-content absolute top-[-2px] h-2.5 w-0.5"
          style={{ left: `${shareOf(middle, horizon)}%` }}
        />
      )}
    </div>
  );
};

export interface ChipProps {
  readonly opening: PlannedOpening;
  readonly made: YardProblem;
  readonly today: string;
  readonly chosen: boolean;
  readonly choose: () => void;
  readonly shift: (step: 1 | -1) => void;
}

/** An opening on its lane: dragged, or moved by the arrow keys. */
const Chip = ({ opening, made, today, chosen, choose, shift }: ChipProps) => {
  const horizon = made.problem.minutes.length;
  // What follows a change that is itself still to come is a mark: it cannot be fixed, and moves with that one.
  const later = opening.tasks.every((i) => (made.stages[i]?.turn ?? 1) > 1);
  const { attributes, listeners, setNodeRef, transform } = useDraggable({ id: opening.key, disabled: later });
  return (
    <button
      ref={setNodeRef}
      {...attributes}
      {...listeners}
      type="button"
      className={`absolute top-0 flex h-7 items-center gap-1 border text-xs font-bold whitespace-nowrap ${later ? 'w-2.5 opacity-60' : 'max-w-28 cursor-grab px-1'} ${chosen ? 'bg-primary text-primary-content border-primary' : 'bg-base-100 border-base-content/50'}`}
      style={{
        left: `min(${shareOf(opening.day, horizon)}%, calc(100% - ${later ? '0.7rem' : '7rem'}))`,
        transform: transform ? `translateX(${transform.x}px)` : undefined,
        zIndex: chosen || transform ? 5 : later ? 0 : 1,
      }}
      aria-label={`${opening.tag}, ${dayText(today, opening.day)}: ${namesOf(made, opening)}`}
      aria-pressed={chosen}
      onClick={choose}
      onKeyDown={(e) => {
        if (e.key !== 'ArrowLeft' && e.key !== 'ArrowRight') return;
        e.preventDefault();
        shift(e.key === 'ArrowLeft' ? -1 : 1);
      }}
    >
      {opening.locked && <Lock size={12} aria-hidden="true" className="shrink-0" />}
      {!later && <span className="truncate">{namesOf(made, opening)}</span>}
    </button>
  );
};

interface LanesProps {
  readonly made: YardProblem;
  readonly input: PlanInput;
  readonly today: string;
  readonly openings: readonly PlannedOpening[];
  readonly chosen: string | null;
  readonly choose: (key: string) => void;
  readonly shift: (o: PlannedOpening) => (step: 1 | -1) => void;
  /** An opening was moved by this many days. */
  readonly moved: (o: PlannedOpening, days: number) => void;
}

/** Number of drawn lanes; the others are one click away. */
const LANES = 60;

/** A lane a machine: windows of chance, and under them its openings, to be dragged. */
export const Lanes = ({ made, input, today, openings, chosen, choose, shift, moved }: LanesProps) => {
  const lanes = useRef<HTMLDivElement>(null);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  const horizon = made.problem.minutes.length;
  const weeks = horizon / 7;
  const dropped = ({ active, delta }: DragEndEvent) => {
    const o = openings.find((x) => x.key === active.id);
    const wide = lanes.current?.clientWidth ?? 0;
    const days = wide > 0 ? Math.round((delta.x / wide) * horizon) : 0;
    if (o && days !== 0) moved(o, days);
  };
  const [all, setAll] = useState(false);
  const filled = input.machines
    .map((m, i) => ({
      m,
      rows: m.stages.filter((s) => s.reached[1] <= horizon),
      here: openings.filter((o) => o.machine === i),
    }))
    .filter(({ rows, here }) => rows.length > 0 || here.length > 0);
  const shown = all ? filled : filled.slice(0, LANES);
  return (
    <DndContext sensors={sensors} onDragEnd={dropped}>
      <div className="grid grid-cols-[6.5rem_minmax(0,1fr)]">
        <span />
        <div ref={lanes} className="relative h-5" aria-hidden="true">
          {Array.from({ length: weeks }, (_, w) =>
            w % Math.ceil(weeks / 8) === 0 ? (
              <span key={w} className="caption absolute text-xs" style={{ left: `${(100 * w) / weeks}%` }}>
                {dayText(today, 7 * w).replace(/^\w+,? /, '')}
              </span>
            ) : null,
          )}
        </div>
        {shown.map(({ m, rows, here }) => {
          return (
            <div key={m.tag} className="contents">
              <a
                href={`/m/${encodeURIComponent(m.tag)}/plan`}
                className="border-base-300 min-w-0 border-t py-1 pr-1 leading-tight"
              >
                <span className="dial">{m.tag}</span> <span className="block truncate text-xs">{m.name}</span>
              </a>
              <div
                className="border-base-300 relative border-t py-1"
                style={{
                  backgroundImage: `repeating-linear-gradient(90deg, var(--color-base-300) 0 1px, transparent 1px ${100 / weeks}%)`,
                }}
              >
                <div className="space-y-0.5">
                  {rows.map((s) => (
                    <Window key={s.stageId} stage={s} horizon={horizon} />
                  ))}
                </div>
                <div className="relative mt-0.5 h-7">
                  {here.map((o) => (
                    <Chip
                      key={o.key}
                      opening={o}
                      made={made}
                      today={today}
                      chosen={o.key === chosen}
                      choose={() => choose(o.key)}
                      shift={shift(o)}
                    />
                  ))}
                </div>
              </div>
            </div>
          );
        })}
      </div>
      {shown.length < filled.length && (
        <button type="button" className="choice mt-2 px-4 font-bold" onClick={() => setAll(true)}>
          Show the other {filled.length - shown.length} machines
        </button>
      )}
    </DndContext>
  );
};
