import { useCallback } from 'react';
import { type FanChart, fanOption } from '@/charts/fan-option';
import type { Ink } from '@/charts/ink';
import { useChart } from '@/charts/use-chart';

/** The fan's curve with the machine's working points; the tables beside it hold the same figures. */
export const FanChartView = ({ chart, label }: { readonly chart: FanChart; readonly label: string }) => {
  const { box, state } = useChart(
    useCallback((ink: Ink) => fanOption(chart, ink), [chart]),
    'fan',
  );
  return (
    <div>
      <div ref={box} role="img" aria-label={label} className="h-72 w-full" />
      {state === 'loading' && <p className="soft">Drawing...</p>}
      {state === 'failed' && (
        <p className="tone-stop font-bold">The chart could not be drawn; the figures are in the table.</p>
      )}
    </div>
  );
};
