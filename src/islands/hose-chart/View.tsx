import { useCallback } from 'react';
import { type HoseChart, hoseOption } from '@/charts/hose-option';
import type { Ink } from '@/charts/ink';
import { useChart } from '@/charts/use-chart';

/** Flow and velocity against the length of the hose; the list beside it holds the figures of the available hoses. */
export const HoseChartView = ({ chart, label }: { readonly chart: HoseChart; readonly label: string }) => {
  const { box, state } = useChart(
    useCallback((ink: Ink) => hoseOption(chart, ink), [chart]),
    'hose',
  );
  return (
    <div>
      <div ref={box} role="img" aria-label={label} className="h-96 w-full" />
      {state === 'loading' && <p className="soft">Drawing...</p>}
      {state === 'failed' && (
        <p className="tone-stop font-bold">The picture could not be drawn; the figures are in the list.</p>
      )}
    </div>
  );
};
