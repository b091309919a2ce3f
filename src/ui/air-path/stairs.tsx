import { lazy, Suspense, useEffect, useState } from 'react';
import type { PressureProfile } from '@/core/path/pressure-profile';
import type { UnitSystem } from '@/core/units';
import { sayLeadStep } from '@/messages/air-path';
import type { ShownPath } from './shown-path';
import { aboutStep, Foot, PathBasis } from './stair-parts';
import { type Lines, StaircasePicture } from './staircase-picture';
import { StaircaseTable } from './staircase-table';

export interface StairsProps {
  readonly view: ShownPath;
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

interface StillProps extends StairsProps {
  readonly lines: Lines;
  readonly onWhatIf: (on: boolean) => void;
}

/** The staircase as new and today, with the sentence of one step. */
const Still = ({ view, units, compact = false, lines, onWhatIf }: StillProps) => {
  const { asNew, now } = lines;
  const [looked, setLooked] = useState<number | null>(null);
  const names = view.model.stages.map((s) => s.name);
  const first = telling(now, asNew);
  const at = looked ?? first.position;
  const step = now.steps[at];
  const say = (position: number) => {
    const s = now.steps[position];
    return s ? aboutStep(view, s, { normal: asNew.steps[position] ?? null, units }) : '';
  };
  return (
    <>
      <StaircasePicture
        lines={lines}
        names={names}
        units={units}
        heightPx={compact ? 76 : 132}
        floorPa={null}
        selected={looked}
        onSelect={setLooked}
        handle={null}
        onPull={() => undefined}
        sayColumn={say}
        caption={!compact}
      />
      <StaircaseTable lines={lines} names={names} units={units} />
      {/* Low, the button lies in the corner that a staircase leaves free: it starts at the room's pressure. */}
      <Foot
        low={compact}
        on={false}
        setOn={onWhatIf}
        sentence={
          step && looked === null
            ? sayLeadStep(names[at] ?? '', step, { normal: asNew.steps[at] ?? null, grown: first.grown, units })
            : say(at)
        }
      />
    </>
  );
};

const NotLoaded = () => (
  <p className="tone-watch py-2 font-bold" role="status">
    What-if could not be loaded. Load the page again to try it.
  </p>
);

/** Loaded when it is first opened: most staircases are read, not played with. */
const WhatIfStairs = lazy(() =>
  import('./what-if-stairs').then(
    (m) => ({ default: m.WhatIfStairs }),
    () => ({ default: NotLoaded }),
  ),
);

const Drawn = ({ lines, ...props }: StairsProps & { readonly lines: Lines }) => {
  const { view, units, compact = false, hideBasis = false } = props;
  const [on, setOn] = useState(false);
  useEffect(() => {
    document.documentElement.dataset['stairs'] = 'ready';
  }, []);
  return (
    <div className="relative">
      {on ? (
        <Suspense fallback={<p className="soft py-2">Loading...</p>}>
          <WhatIfStairs view={view} units={units} lines={lines} onWhatIf={setOn} />
        </Suspense>
      ) : (
        <Still {...props} lines={lines} onWhatIf={setOn} />
      )}
      {!compact && !hideBasis && <PathBasis view={view} units={units} />}
    </div>
  );
};

/** The pressure staircase of a machine, or why it cannot be drawn. */
export const Stairs = (props: StairsProps) => {
  const { asNew, now, problem } = props.view;
  if (asNew && now) return <Drawn {...props} lines={{ asNew, now, whatIf: null }} />;
  return (
    <p className="tone-watch border-base-300 border-b py-2 text-sm font-semibold">
      No pressure staircase: {problem ?? 'the path cannot be solved.'}
    </p>
  );
};
