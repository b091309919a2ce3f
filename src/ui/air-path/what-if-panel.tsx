import type { PathView } from '@/core/calibrate/path-view';
import type { ModelStage } from '@/core/path/machine-path';
import { fromSi, prettyUnit, SHOWN, show, type UnitSystem, fixed, toDigits } from '@/core/units';
import { capital } from '@/messages/words';
import { handleOf } from '@/core/path/handle';
import { FARTHEST, loadOfPull, pullAt, startWhatIf, type WhatIf, type WhatIfAction } from './what-if';

interface PanelProps {
  readonly view: PathView;
  readonly state: WhatIf;
  readonly dispatch: (action: WhatIfAction) => void;
  readonly units: UnitSystem;
}

interface SlideProps {
  readonly label: string;
  readonly value: number;
  readonly low: number;
  readonly high: number;
  readonly step: number;
  readonly text: string;
  readonly onSlide: (value: number) => void;
}

const Slide = ({ label, value, low, high, step, text, onSlide }: SlideProps) => (
  <label className="block">
    <span className="flex items-baseline justify-between gap-2 text-sm font-semibold">
      {label} <span className="dial">{text}</span>
    </span>
    <input
      type="range"
      className="slide"
      min={low}
      max={high}
      step={step}
      value={value}
      aria-valuetext={text}
      onChange={(e) => onSlide(Number(e.currentTarget.value))}
    />
  </label>
);

/** How heavy a pull is, in words that hold for its stage. */
export const pullText = (view: PathView, state: WhatIf, position: number): string => {
  const stage = view.model.stages[position];
  if (!stage) return '';
  const t = pullAt(state, view, position);
  if (state.removed.includes(position)) return 'taken out';
  if (handleOf(stage) === 'block') return t === 0 ? 'open' : `${Math.round(t * 100)} % of the opening blocked`;
  const { air } = stage.spec;
  if (air.form !== 'medium' || t === 0) return 'clean';
  const clean = view.asNew?.steps[position];
  const r = clean && clean.flowM3s > 0 ? clean.dropPa / clean.flowM3s : 0;
  const times = r > 0 ? 1 + loadOfPull(t, view) / r : 1;
  return `${times < 10 ? fixed(times, 1) : Math.round(times)} times its clean resistance`;
};

const StageHandles = ({
  stage,
  position,
  ...p
}: PanelProps & { readonly stage: ModelStage; readonly position: number }) => {
  const handle = handleOf(stage);
  const out = p.state.removed.includes(position);
  const { filters } = { filters: handle === 'load' };
  return (
    <>
      {(handle === 'load' || handle === 'block') && !out && !stage.missing && (
        <Slide
          label={filters ? 'Load it' : 'Block it'}
          value={pullAt(p.state, p.view, position)}
          low={0}
          high={FARTHEST}
          step={0.01}
          text={pullText(p.view, p.state, position)}
          onSlide={(to) => p.dispatch({ type: 'pull', position, to })}
        />
      )}
      {filters && !stage.missing && (
        <label className="flex min-h-11 cursor-pointer items-center gap-2 font-semibold">
          <input
            type="checkbox"
            className="checkbox checkbox-primary"
            checked={out}
            onChange={(e) => p.dispatch({ type: 'remove', position, out: e.currentTarget.checked })}
          />
          Take it out
        </label>
      )}
      {stage.missing && <p className="soft">It is missing: nothing to load.</p>}
    </>
  );
};

const HoseHandles = ({ view, state, dispatch, units }: PanelProps) => {
  const now = state.hose ?? { boreM: view.model.hoseBoreM ?? 0.036, lengthM: view.model.hoseLengthM ?? 3 };
  const wide = view.collector ? 0.3 : 0.08;
  return (
    <>
      <Slide
        label="Length"
        value={now.lengthM}
        low={0.5}
        high={view.collector ? 30 : 20}
        step={0.5}
        text={units === 'us' ? `${fixed(fromSi('length', now.lengthM, 'ft'), 0)} ft` : `${now.lengthM} m`}
        onSlide={(lengthM) => dispatch({ type: 'hose', hose: { ...now, lengthM } })}
      />
      <Slide
        label="Bore"
        value={now.boreM}
        low={0.019}
        high={wide}
        step={0.001}
        text={show('length', now.boreM, units)}
        onSlide={(boreM) => dispatch({ type: 'hose', hose: { ...now, boreM } })}
      />
    </>
  );
};

const DriveHandles = ({ view, state, dispatch }: PanelProps) => {
  const curve = view.model.stages.map((s) => s.spec.air).find((a) => a.form === 'fan')?.curve;
  if (curve?.kind === 'universal') {
    return (
      <Slide
        label="Line voltage"
        value={state.volts}
        low={view.nominalVolts * 0.7}
        high={view.nominalVolts * 1.1}
        step={1}
        text={`${fixed(state.volts, 0)} V of ${fixed(view.nominalVolts, 0)} V`}
        onSlide={(volts) => dispatch({ type: 'volts', volts })}
      />
    );
  }
  if (curve?.kind === 'pneumatic') {
    return (
      <Slide
        label="Supply pressure"
        value={state.supplyShare}
        low={0.2}
        high={1.1}
        step={0.01}
        text={`${Math.round(state.supplyShare * 100)} % of nominal`}
        onSlide={(share) => dispatch({ type: 'supply', share })}
      />
    );
  }
  return <p className="soft">An induction motor keeps its speed when the voltage falls.</p>;
};

/** Leaks worth asking about, mm2: from a scratch to a hole a thumb goes through. */
const MOST_LEAK_MM2 = 400;

const LeakHandle = ({ view, state, dispatch, units, node }: PanelProps & { readonly node: number }) => {
  const areaMm2 = state.leaksMm2[node] ?? 0;
  const hole = Math.sqrt((4 * areaMm2) / Math.PI) / 1000;
  const name = view.model.stages[node]?.name ?? 'stage';
  const lengthUnit = SHOWN[units].length.unit;
  const across =
    areaMm2 === 0
      ? 'none'
      : `${fixed(areaMm2, 0)} mm², a ${toDigits(fromSi('length', hole, lengthUnit), 2)} ${prettyUnit(lengthUnit)} hole`;
  // The square gives the small leaks, where it matters, the longer way of the slider.
  return (
    <Slide
      label={`Leak before the ${name}`}
      value={Math.sqrt(areaMm2 / MOST_LEAK_MM2)}
      low={0}
      high={1}
      step={0.01}
      text={across}
      onSlide={(v) => dispatch({ type: 'leak', node, areaMm2: v * v * MOST_LEAK_MM2 })}
    />
  );
};

/** The handles of the chosen stage, and the way back to today. */
export const WhatIfPanel = (p: PanelProps) => {
  const { view, state, dispatch } = p;
  const position = state.selected;
  const stage = view.model.stages[position];
  if (!stage) return null;
  const handle = handleOf(stage);
  return (
    <div>
      <h3 className="text-lg leading-tight font-bold">{capital(stage.name)}</h3>
      <p className="soft text-sm">
        Drag a column of the picture down to load or block its stage, or use the sliders; arrow keys work on both.
      </p>
      <div className="mt-1 grid gap-x-6 gap-y-1 sm:grid-cols-2 lg:grid-cols-3">
        <StageHandles {...p} stage={stage} position={position} />
        {stage.spec.air.form === 'line' && <HoseHandles {...p} />}
        {handle === 'drive' && <DriveHandles {...p} />}
        {position > 0 && <LeakHandle {...p} node={position} />}
      </div>
      <button
        type="button"
        className="choice mt-1 font-semibold"
        onClick={() => dispatch({ type: 'reset', to: startWhatIf(view) })}
      >
        Back to today
      </button>
    </div>
  );
};
