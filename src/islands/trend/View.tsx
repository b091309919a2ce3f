import { useCallback } from 'react';
import type { Ink } from '@/charts/ink';
import { trendOption, type TrendChart } from '@/charts/trend-option';
import { useChart } from '@/charts/use-chart';

interface TrendProps {
  readonly chart: Omit<TrendChart, 'ink'>;
  readonly label: string;
  readonly fileName: string;
  readonly csvHref: string;
}

/** A trend drawn by ECharts, which is loaded only here; the table below holds the same figures. */
export const TrendView = ({ chart, label, fileName, csvHref }: TrendProps) => {
  const { box, state, save } = useChart(
    useCallback((ink: Ink) => trendOption({ ...chart, ink }), [chart]),
    'trend',
  );
  return (
    <div>
      <div ref={box} role="img" aria-label={label} className="h-80 w-full" />
      {state === 'loading' && <p className="soft">Drawing...</p>}
      {state === 'failed' && (
        <p className="tone-stop font-bold">The chart could not be drawn; the table below has every figure.</p>
      )}
      <div className="flex flex-wrap gap-2">
        <button
          type="button"
          className="choice text-sm font-semibold"
          disabled={state !== 'ready'}
          onClick={() => save(fileName)}
        >
          Save the picture (PNG)
        </button>
        <a className="choice inline-flex items-center text-sm font-semibold" href={csvHref} download>
          Save the figures (CSV)
        </a>
      </div>
    </div>
  );
};
