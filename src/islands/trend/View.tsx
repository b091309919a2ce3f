import { useEffect, useRef, useState } from 'react';
import { trendOption, type TrendChart } from '@/charts/trend-option';

interface TrendProps {
  readonly chart: Omit<TrendChart, 'ink'>;
  readonly label: string;
  readonly fileName: string;
  readonly csvHref: string;
}

const INKS = { text: '--color-base-content', line: '--color-primary', soft: '--ink-soft', watch: '--ink-watch', stop: '--ink-stop', paper: '--color-base-100' } as const;

const readInk = (): TrendChart['ink'] => {
  const style = getComputedStyle(document.documentElement);
  const entries = Object.entries(INKS).map(([key, name]) => [key, style.getPropertyValue(name).trim()]);
  return Object.fromEntries(entries) as unknown as TrendChart['ink'];
};

interface Drawn {
  readonly setOption: (option: ReturnType<typeof trendOption>) => void;
  readonly resize: () => void;
  readonly dispose: () => void;
  readonly getDataURL: (options: { type: 'png'; pixelRatio: number; backgroundColor: string }) => string;
}

/** A trend drawn by ECharts, which is loaded only here; the figures stand in the table below it too. */
export const TrendView = ({ chart, label, fileName, csvHref }: TrendProps) => {
  const box = useRef<HTMLDivElement>(null);
  const drawn = useRef<Drawn | null>(null);
  const [state, setState] = useState<'loading' | 'ready' | 'failed'>('loading');

  useEffect(() => {
    let gone = false;
    const draw = async () => {
      const { core } = await import('@/charts/echarts');
      if (gone || !box.current) return;
      const instance = core.init(box.current);
      instance.setOption(trendOption({ ...chart, ink: readInk() }));
      drawn.current = instance;
      setState('ready');
      document.documentElement.dataset['trend'] = 'ready';
    };
    const fit = () => drawn.current?.resize();
    const repaint = new MutationObserver(() => drawn.current?.setOption(trendOption({ ...chart, ink: readInk() })));
    draw().catch(() => setState('failed'));
    window.addEventListener('resize', fit);
    repaint.observe(document.documentElement, { attributes: true, attributeFilter: ['data-theme'] });
    return () => {
      gone = true;
      window.removeEventListener('resize', fit);
      repaint.disconnect();
      drawn.current?.dispose();
      drawn.current = null;
    };
  }, [chart]);

  const save = () => {
    const url = drawn.current?.getDataURL({ type: 'png', pixelRatio: 2, backgroundColor: readInk().paper });
    if (!url) return;
    const link = document.createElement('a');
    link.href = url;
    link.download = `${fileName}.png`;
    link.click();
  };

  return (
    <div>
      <div ref={box} role="img" aria-label={label} className="h-80 w-full" />
      {state === 'loading' && <p className="soft">Drawing...</p>}
      {state === 'failed' && <p className="tone-stop font-bold">The chart could not be drawn; the table below has every figure.</p>}
      <div className="flex flex-wrap gap-2">
        <button type="button" className="choice text-sm font-semibold" disabled={state !== 'ready'} onClick={save}>
          Save the picture (PNG)
        </button>
        <a className="choice inline-flex items-center text-sm font-semibold" href={csvHref} download>
          Save the figures (CSV)
        </a>
      </div>
    </div>
  );
};
