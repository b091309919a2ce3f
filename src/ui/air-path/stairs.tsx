import { useEffect, useState } from 'react';
import type { PathView } from '@/core/calibrate/path-view';
import { faceVelocity } from '@/core/path/face-velocity';
import { handleOf } from '@/core/path/handle';
import type { PressureProfile, ProfileStep } from '@/core/path/pressure-profile';
import { show, type UnitSystem } from '@/core/units';
import { sayFace, sayLeadStep, sayPathBasis, sayStep, sayToday } from '@/messages/air-path';
import { problemOf } from '@/messages/failures';
import { capital } from '@/messages/words';
import { ToneMark } from '../tone-mark';
import { type Lines, StaircasePicture } from './staircase-picture';
import { StaircaseTable } from './staircase-table';
import { useWhatIf } from './use-what-if';
import { pullAt } from './what-if';
import { WhatIfFigures } from './what-if-figures';
import { pullText, WhatIfPanel } from './what-if-panel';

export interface StairsProps {
  readonly view: PathView;
  readonly units: UnitSystem;
  /** Low, and without its sentences: where the work below needs the room. */
  readonly compact?: boolean;
  /** The page says itself what the drawing rests on. */
  readonly hideBasis?: boolean;
}

/** A step that has grown by this share of the lift is the one to speak of. */
const GROWN = 0.03;

interface Telling {
  readonly position: number;
  /** It grew since new; else it is only the tallest. */
  readonly grown: boolean;
}

/** The step to speak of first: the one that grew most since new, else the tallest; the fan never. */
const telling = (stairs: PressureProfile, asNew: PressureProfile): Telling => {
  const most = (size: (i: number) => number) =>
    stairs.steps.reduce((best, _, i) => (size(i) > size(best) ? i : best), 0);
  const growth = (i: number) => (stairs.steps[i]?.dropPa ?? 0) - (asNew.steps[i]?.dropPa ?? 0);
  const grown = most(growth);
  if (growth(grown) > GROWN * stairs.fanLiftPa && (stairs.steps[grown]?.dropPa ?? 0) > 0)
    return { position: grown, grown: true };
  return { position: most((i) => stairs.steps[i]?.dropPa ?? 0), grown: false };
};

const aboutStep = (
  view: PathView,
  step: ProfileStep,
  { normal, units }: { readonly normal: ProfileStep | null; readonly units: UnitSystem },
): string => {
  const stage = view.model.stages[step.position];
  if (!stage) return '';
  const { air } = stage.spec;
  const face =
    step.faceVelocityMs !== null && air.form === 'medium'
      ? `. ${sayFace(faceVelocity({ flowM3s: step.flowM3s, areaM2: air.areaM2 * air.inParallel, medium: air.medium, collector: view.collector }))}`
      : '';
  const line = step.lineVelocityMs === null ? '' : `. ${show('velocity', step.lineVelocityMs, units)} in it`;
  return `${capital(sayStep(stage.name, step, { normal, units }))}${line}${face}.`;
};

const Key = ({ whatIf }: { whatIf: boolean }) => (
  <span className="caption flex flex-wrap items-center gap-x-3" aria-hidden="true">
    <span className="flex items-center gap-1">
      <svg width="26" height="6">
        <path d="M0 3 H26" stroke="var(--ink-soft)" strokeWidth="1.5" strokeDasharray="5 4" />
      </svg>{' '}
      as new
    </span>
    <span className="flex items-center gap-1">
      <svg width="26" height="6">
        <path d="M0 3 H26" stroke="var(--color-base-content)" strokeWidth="2.5" />
      </svg>{' '}
      today
    </span>
    {whatIf && (
      <span className="flex items-center gap-1">
        <svg width="26" height="6">
          <path
            d="M2 3 H26"
            stroke="var(--color-primary)"
            strokeWidth="4"
            strokeDasharray="1 6"
            strokeLinecap="round"
          />
        </svg>{' '}
        what if
      </span>
    )}
  </span>
);

interface FootProps {
  readonly low: boolean;
  readonly on: boolean;
  readonly setOn: (on: boolean) => void;
  readonly sentence: string;
}

const Foot = ({ low, on, setOn, sentence }: FootProps) => (
  <div className={`border-base-300 flex items-center gap-x-4 border-t ${low ? '' : 'flex-wrap'}`}>
    <p
      className={
        low
          ? 'min-w-0 flex-1 truncate text-xs leading-5 font-semibold'
          : 'min-w-0 flex-1 basis-64 py-1 text-sm font-semibold'
      }
    >
      {sentence}
    </p>
    {!low && <Key whatIf={on} />}
    <button
      type="button"
      className={`choice font-bold ${low ? 'absolute bottom-6 left-0 z-10 text-sm' : ''}`}
      aria-pressed={on}
      onClick={() => setOn(!on)}
    >
      What if
    </button>
  </div>
);

interface DrawnProps extends StairsProps {
  readonly lines: Lines;
}

/** The staircase under a strip, and the handles of what-if. */
const Drawn = ({ view, units, compact = false, hideBasis = false, lines: { asNew, now } }: DrawnProps) => {
  const [on, setOn] = useState(false);
  const [looked, setLooked] = useState<number | null>(null);
  const { state, dispatch, stairs, failed } = useWhatIf(view, on);
  useEffect(() => {
    document.documentElement.dataset['stairs'] = 'ready';
  }, []);
  const names = view.model.stages.map((s) => s.name);
  const lines: Lines = { asNew, now, whatIf: on ? stairs : null };
  const shown = lines.whatIf ?? now;
  const first = telling(shown, asNew);
  const at = on ? state.selected : (looked ?? first.position);
  const step = shown.steps[at];
  const say = (position: number) => {
    const s = shown.steps[position];
    return s ? aboutStep(view, s, { normal: asNew.steps[position] ?? null, units }) : '';
  };
  const basis = sayPathBasis(view.basis);
  const handled = (position: number) => {
    const stage = view.model.stages[position];
    const kind = stage ? handleOf(stage) : 'none';
    if (!stage || stage.missing || (kind !== 'load' && kind !== 'block')) return null;
    return { pull: pullAt(state, view, position), text: pullText(view, state, position) };
  };
  // Low, the button lies in the corner that a staircase leaves free: it starts at the room's pressure.
  const low = compact && !on;
  return (
    <div className="relative">
      <StaircasePicture
        lines={lines}
        names={names}
        units={units}
        heightPx={on ? 190 : compact ? 76 : 132}
        floorPa={on ? -view.parameters.p0Pa : null}
        selected={on ? state.selected : looked}
        onSelect={(position) =>
          on && position !== null ? dispatch({ type: 'select', position }) : setLooked(position)
        }
        handle={on ? handled : null}
        onPull={(position, to) => dispatch({ type: 'pull', position, to })}
        sayColumn={say}
        caption={!low}
      />
      <StaircaseTable lines={lines} names={names} units={units} />
      <Foot
        low={low}
        on={on}
        setOn={setOn}
        sentence={
          step && looked === null && !on
            ? sayLeadStep(names[at] ?? '', step, { normal: asNew.steps[at] ?? null, grown: first.grown, units })
            : say(at)
        }
      />
      {on && stairs && (
        <div className="panel mt-1 space-y-3 p-3">
          <WhatIfFigures view={view} now={now} stairs={stairs} units={units} hoseM={state.hose?.boreM ?? view.hoseM} />
          <WhatIfPanel view={view} state={state} dispatch={dispatch} units={units} />
        </div>
      )}
      {on && !stairs && !failed && <p className="soft py-2">Working it out...</p>}
      {on && failed && (
        <p className="tone-watch py-1 font-bold">No working point for this: the last valid one is shown.</p>
      )}
      {!compact && !hideBasis && (
        <details className="text-sm">
          <summary className="min-h-8 cursor-pointer">
            <ToneMark tone={basis.tone} word={basis.mark} size={15} /> {basis.sentence}
          </summary>
          <p className="soft pb-1">{sayToday(view.today, units)}</p>
        </details>
      )}
    </div>
  );
};

/** The pressure staircase of a machine, or why it cannot be drawn. */
export const Stairs = (props: StairsProps) => {
  const { asNew, now, failure } = props.view;
  if (asNew && now) return <Drawn {...props} lines={{ asNew, now, whatIf: null }} />;
  const problem = failure ? problemOf(failure) : null;
  return (
    <p className="tone-watch border-base-300 border-b py-2 text-sm font-semibold">
      No pressure staircase: {problem ? `${problem.sentence} ${problem.hint}` : 'the path cannot be solved.'}
    </p>
  );
};
