import { useCallback } from 'react';
import type { Ink } from '@/charts/ink';
import { type PenetrationChart, penetrationOption } from '@/charts/penetration-option';
import { useChart } from '@/charts/use-chart';

/** Penetration by size of each filter and of the whole train; the table beside it says the same. */
export const PenetrationView = ({ chart, label }: { readonly chart: PenetrationChart; readonly label: string }) => {
  const { box, state } = useChart(
    useCallback((ink: Ink) => penetrationOption(chart, ink), [chart]),
    'penetration',
  );
  return (
    <div>
      <div ref={box} role="img" aria-label={label} className="h-80 w-full" />
      {state === 'loading' && <p className="soft">Drawing...</p>}
      {state === 'failed' && (
        <p className="tone-stop font-bold">The chart could not be drawn; the table below has every figure.</p>
      )}
    </div>
  );
};
