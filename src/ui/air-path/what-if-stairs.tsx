import type { UnitSystem } from '@/core/units';
import { handleOf } from '@/core/path/handle';
import type { ShownPath } from './shown-path';
import { aboutStep, Foot } from './stair-parts';
import { type Lines, StaircasePicture } from './staircase-picture';
import { StaircaseTable } from './staircase-table';
import { useWhatIf } from './use-what-if';
import { pullAt } from './what-if';
import { WhatIfFigures } from './what-if-figures';
import { pullText, WhatIfPanel } from './what-if-panel';

interface WhatIfStairsProps {
  readonly view: ShownPath;
  readonly units: UnitSystem;
  readonly lines: Lines;
  readonly onWhatIf: (on: boolean) => void;
}

/** The staircase with its handles: each stage can be loaded, blocked or taken out. */
export const WhatIfStairs = ({ view, units, lines: { asNew, now }, onWhatIf }: WhatIfStairsProps) => {
  const { state, dispatch, stairs, failed } = useWhatIf(view);
  const names = view.model.stages.map((s) => s.name);
  const lines: Lines = { asNew, now, whatIf: stairs };
  const shown = stairs ?? now;
  const say = (position: number) => {
    const s = shown.steps[position];
    return s ? aboutStep(view, s, { normal: asNew.steps[position] ?? null, units }) : '';
  };
  const handled = (position: number) => {
    const stage = view.model.stages[position];
    const kind = stage ? handleOf(stage) : 'none';
    if (!stage || stage.missing || (kind !== 'load' && kind !== 'block')) return null;
    return { pull: pullAt(state, view, position), text: pullText(view, state, position) };
  };
  return (
    <>
      <StaircasePicture
        lines={lines}
        names={names}
        units={units}
        heightPx={190}
        floorPa={-view.parameters.p0Pa}
        selected={state.selected}
        onSelect={(position) => position !== null && dispatch({ type: 'select', position })}
        handle={handled}
        onPull={(position, to) => dispatch({ type: 'pull', position, to })}
        sayColumn={say}
        caption
      />
      <StaircaseTable lines={lines} names={names} units={units} />
      <Foot low={false} on setOn={onWhatIf} sentence={say(state.selected)} />
      {stairs && (
        <div className="panel mt-1 space-y-3 p-3">
          <WhatIfFigures view={view} now={now} stairs={stairs} units={units} hoseM={state.hose?.boreM ?? view.hoseM} />
          <WhatIfPanel view={view} state={state} dispatch={dispatch} units={units} />
        </div>
      )}
      {!stairs && !failed && <p className="soft py-2">Working it out...</p>}
      {failed && <p className="tone-watch py-1 font-bold">No working point for this: the last valid one is shown.</p>}
    </>
  );
};
