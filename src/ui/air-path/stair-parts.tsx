import type { PathView } from '@/core/calibrate/path-view';
import { faceVelocity } from '@/core/path/face-velocity';
import type { ProfileStep } from '@/core/path/pressure-profile';
import { show, type UnitSystem } from '@/core/units';
import { sayFace, sayPathBasis, sayStep, sayToday } from '@/messages/air-path';
import { capital } from '@/messages/words';
import { ToneMark } from '../tone-mark';
import type { ShownPath } from './shown-path';

/** One step of the staircase in sentences: its drop, the velocity in it, the velocity through its medium. */
export const aboutStep = (
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

/** The sentence under a staircase and the button of what-if. */
export const Foot = ({ low, on, setOn, sentence }: FootProps) => (
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

/** The readings that the drawing rests on. */
export const PathBasis = ({ view, units }: { readonly view: ShownPath; readonly units: UnitSystem }) => {
  const basis = sayPathBasis(view.basis, view.problem);
  return (
    <details className="text-sm">
      <summary className="min-h-8 cursor-pointer">
        <ToneMark tone={basis.tone} word={basis.mark} size={15} /> {basis.sentence}
      </summary>
      <p className="soft pb-1">{sayToday(view.today, units)}</p>
    </details>
  );
};
