// Drawn on the server: pictures that are looked at, not zoomed, cost a page no script.
import { LineChart, ScatterChart } from 'echarts/charts';
import { GridComponent, MarkLineComponent } from 'echarts/components';
import * as core from 'echarts/core';
import { LabelLayout } from 'echarts/features';
import { SVGRenderer } from 'echarts/renderers';
import { type Ink, THEME_INK } from './ink';

core.use([LineChart, ScatterChart, GridComponent, MarkLineComponent, LabelLayout, SVGRenderer]);

export interface Size {
  readonly widthPx: number;
  readonly heightPx: number;
}

/** Makes the option of a chart in the colours it is given. */
export type MakeOption = (ink: Ink) => core.EChartsCoreOption;

/** The SVG of an option, as text, in the colours of the page's theme; it scales to the width it is given. */
export const svgOf = (make: MakeOption, { widthPx, heightPx }: Size): string => {
  const chart = core.init(null, null, { renderer: 'svg', ssr: true, width: widthPx, height: heightPx });
  try {
    chart.setOption(make(THEME_INK));
    return chart
      .renderToSVGString()
      .replace(/<svg width="\d+" height="\d+"/, '<svg width="100%"')
      .replace(/<style[\s\S]*?<\/style>/g, '');
  } finally {
    chart.dispose();
  }
};
