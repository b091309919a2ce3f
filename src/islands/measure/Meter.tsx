import { Radio } from 'lucide-react';
import { type Dispatch, useEffect, useState } from 'react';
import { METHODS } from '@/core/measure/methods';
import { type Settled, settledMean } from '@/core/measure/settling';
import { fromSi, prettyUnit, show, type UnitSystem, toDigits } from '@/core/units';
import { EMPTY_BUFFER, type MeterBuffer, STOPPED_AFTER_MS } from './meter-buffer';
import type { MeasureAction, MeasureState } from './state';

interface MeterProps {
  readonly state: MeasureState;
  readonly dispatch: Dispatch<MeasureAction>;
  readonly tag: string;
  readonly units: UnitSystem;
  readonly on: boolean;
}

interface Listening {
  readonly buffer: MeterBuffer;
  readonly nowMs: number;
}

const useMeter = ({ state, tag }: MeterProps): Listening => {
  const [listening, setListening] = useState<Listening>({ buffer: EMPTY_BUFFER, nowMs: 0 });
  const { method, place, instrumentId } = state;
  useEffect(() => {
    const query = new URLSearchParams({ tag, method, place });
    const source = new EventSource(`/api/instruments/${instrumentId ?? 0}/stream?${query.toString()}`);
    const wanted = METHODS[method].reads;
    // What reads a line is fetched when a meter is listened to.
    void import('./meter').then(({ bufferLine }) => {
      source.onmessage = (event: MessageEvent<string>) => {
        const atMs = Date.now();
        setListening(({ buffer }) => ({ buffer: bufferLine(buffer, { data: event.data, atMs, wanted }), nowMs: atMs }));
      };
    });
    const tick = setInterval(() => setListening((l) => ({ ...l, nowMs: Date.now() })), 500);
    return () => {
      clearInterval(tick);
      source.close();
    };
  }, [tag, method, place, instrumentId]);
  return listening;
};

const Needle = ({ share }: { share: number }) => {
  const angle = Math.PI * (1 - Math.max(0, Math.min(1, share)));
  return (
    <svg viewBox="0 0 120 66" className="h-16 w-28 shrink-0" aria-hidden="true">
      <path d="M8 60 A52 52 0 0 1 112 60" stroke="currentColor" strokeWidth="2" fill="none" />
      {[0, 0.25, 0.5, 0.75, 1].map((t) => {
        const a = Math.PI * (1 - t);
        return (
          <path
            key={t}
            d={`M${60 + 52 * Math.cos(a)} ${60 - 52 * Math.sin(a)} L${60 + 45 * Math.cos(a)} ${60 - 45 * Math.sin(a)}`}
            stroke="currentColor"
            strokeWidth="2"
          />
        );
      })}
      <path
        d={`M60 60 L${60 + 44 * Math.cos(angle)} ${60 - 44 * Math.sin(angle)}`}
        stroke="var(--color-primary)"
        strokeWidth="4"
        strokeLinecap="round"
      />
    </svg>
  );
};

const notice = ({ buffer, nowMs }: Listening): string | null => {
  if (buffer.lastAtMs === null) return 'Waiting for the meter...';
  if (nowMs - buffer.lastAtMs > STOPPED_AFTER_MS) return 'The meter has stopped sending. Held readings are kept.';
  if (buffer.flooded) return 'The meter sends too fast: some lines are dropped.';
  if (buffer.garbage > 0)
    return `${buffer.garbage} ${buffer.garbage === 1 ? 'line' : 'lines'} could not be read and were dropped.`;
  return null;
};

const LiveMeter = (props: MeterProps) => {
  const { state, dispatch, units } = props;
  const [since, setSince] = useState(0);
  const listening = useMeter(props);
  // A reading taken from samples that another one already used would be no repeat: each hold starts a new window.
  const samples = listening.buffer.samples.filter((s) => s.atMs > since);
  const kind = METHODS[state.method].reads;
  const last = samples.at(-1);
  const highest = Math.max(...samples.map((s) => s.valueSi), 0);
  const settled: Settled | null = settledMean(samples);
  const unit = state.units[state.method];
  const enter = (valueSi: number, how: 'hold' | 'max') => {
    setSince(listening.nowMs);
    dispatch({ type: 'held', how, unit, typed: String(toDigits(fromSi(kind, valueSi, unit), 5)) });
  };
  const said = notice(listening);
  return (
    <div className="panel flex flex-wrap items-center gap-3 p-2">
      <Needle share={highest > 0 && last ? last.valueSi / (highest * 1.15) : 0} />
      <div className="min-w-32 flex-1">
        <p className="dial text-2xl leading-none">{last ? show(kind, last.valueSi, units) : '-'}</p>
        <p className="text-sm font-semibold" role="status">
          {said ?? (settled ? `settled: ${show(kind, settled.mean, units)}` : 'settling...')}
        </p>
      </div>
      <button type="button" className="go" disabled={!settled} onClick={() => settled && enter(settled.mean, 'hold')}>
        Hold
      </button>
      <button
        type="button"
        className="choice"
        disabled={samples.length === 0}
        onClick={() => enter(highest, 'max')}
        title={`in ${prettyUnit(unit)}`}
      >
        Max <span className="soft block text-xs">biased high</span>
      </button>
      <p className="soft w-full text-xs">
        Take the probe out and put it back between holds, so that the repeats include its position.
      </p>
    </div>
  );
};

/** Switches the listening on and off. */
export const ListenButton = ({ on, setOn }: { on: boolean; setOn: (on: boolean) => void }) => (
  <button
    type="button"
    className="choice flex items-center gap-2 text-sm font-semibold"
    aria-pressed={on}
    onClick={() => setOn(!on)}
  >
    <Radio size={18} aria-hidden="true" />
    {on ? 'Stop listening' : 'Listen to the bench meter'}
  </button>
);

/**
 * A streaming meter: live needle, a settled mean to hold, and the maximum with its mark. Another meter, method or place
 * resets it.
 */
export const Meter = (props: MeterProps) =>
  props.on ? (
    <LiveMeter {...props} key={[props.state.instrumentId, props.state.method, props.state.place].join(' ')} />
  ) : null;
