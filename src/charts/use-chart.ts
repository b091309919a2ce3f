import type { EChartsCoreOption } from 'echarts/core';
import { type RefObject, useEffect, useRef, useState } from 'react';
import { type Ink, readInk } from './ink';

interface Drawn {
  readonly setOption: (option: EChartsCoreOption) => void;
  readonly resize: () => void;
  readonly dispose: () => void;
  readonly getDataURL: (options: { type: 'png'; pixelRatio: number; backgroundColor: string }) => string;
}

export interface ChartUse {
  readonly box: RefObject<HTMLDivElement | null>;
  readonly state: 'loading' | 'ready' | 'failed';
  /** Saves the picture under a name. */
  readonly save: (fileName: string) => void;
}

/**
 * Draws an option into a box with ECharts, loaded here and nowhere else; redrawn when the window or the theme changes.
 * `make` must be stable (memoised) or the chart is drawn again.
 */
export const useChart = (make: (ink: Ink) => EChartsCoreOption, mark: string): ChartUse => {
  const box = useRef<HTMLDivElement>(null);
  const drawn = useRef<Drawn | null>(null);
  const [state, setState] = useState<ChartUse['state']>('loading');

  useEffect(() => {
    let gone = false;
    const draw = async () => {
      const { core } = await import('./echarts');
      if (gone || !box.current) return;
      const instance = core.init(box.current);
      instance.setOption(make(readInk()));
      drawn.current = instance;
      setState('ready');
      document.documentElement.dataset[mark] = 'ready';
    };
    const fit = () => drawn.current?.resize();
    const repaint = new MutationObserver(() => drawn.current?.setOption(make(readInk())));
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
  }, [make, mark]);

  const save = (fileName: string) => {
    const url = drawn.current?.getDataURL({ type: 'png', pixelRatio: 2, backgroundColor: readInk().paper });
    if (!url) return;
    const link = document.createElement('a');
    link.href = url;
    link.download = `${fileName}.png`;
    link.click();
  };
  return { box, state, save };
};
