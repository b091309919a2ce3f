import { toDecimals } from '@/core/units';
import { Colors, DxfWriter, point3d, Units } from '@tarikjabiri/dxf';
import { type RingQuery, readRing } from '@/contracts/ring';
import type { Result } from '@/core/failure/failure';
import { type Drawing, drawingOf } from '@/core/upgrade/drawing';
import { planRing, type RingPlan } from '@/core/upgrade/ring';

/** The ring for the measurements. Errors as `readRing` and `planRing`. */
export const ringOf = (query: RingQuery): Result<RingPlan> => {
  const question = readRing(query);
  return question.ok ? planRing(question.value) : question;
};

const figure = (n: number): string => String(toDecimals(n, 4));

/** The shapes of a drawing as SVG, without the sheet around it; y downwards as SVG has it. */
export const svgShapes = ({ circles, lines, heightMm }: Drawing): string =>
  [
    ...circles.map(
      (c) =>
        `<circle cx="${figure(c.xMm)}" cy="${figure(heightMm - c.yMm)}" r="${figure(c.diameterMm / 2)}" fill="none" stroke="${c.layer === 'cut' ? '#000' : '#06c'}" stroke-width="0.25"/>`,
    ),
    ...lines.map(
      ({ fromMm, toMm }) =>
        `<line x1="${figure(fromMm[0])}" y1="${figure(heightMm - fromMm[1])}" x2="${figure(toMm[0])}" y2="${figure(heightMm - toMm[1])}" stroke="#000" stroke-width="0.25" stroke-dasharray="3 2"/>`,
    ),
  ].join('');

/** A drawing as SVG at full size: its units are millimetres. */
export const svgOf = (drawing: Drawing): string => {
  const [w, h] = [figure(drawing.widthMm), figure(drawing.heightMm)];
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${w}mm" height="${h}mm" viewBox="0 0 ${w} ${h}">${svgShapes(drawing)}</svg>`;
};

/** A drawing as DXF in millimetres: cuts, holes and saw lines each on a layer of their own. */
export const dxfOf = ({ circles, lines }: Drawing): string => {
  const dxf = new DxfWriter();
  dxf.setUnits(Units.Millimeters);
  dxf.addLayer('CUT', Colors.White, 'CONTINUOUS');
  dxf.addLayer('DRILL', Colors.Blue, 'CONTINUOUS');
  dxf.addLayer('SAW', Colors.Red, 'CONTINUOUS');
  for (const c of circles)
    dxf.addCircle(point3d(c.xMm, c.yMm), c.diameterMm / 2, { layerName: c.layer === 'cut' ? 'CUT' : 'DRILL' });
  for (const l of lines) dxf.addLine(point3d(...l.fromMm), point3d(...l.toMm), { layerName: 'SAW' });
  return dxf.stringify();
};

export const svgOfRing = (plan: RingPlan): string => svgOf(drawingOf(plan));
export const dxfOfRing = (plan: RingPlan): string => dxfOf(drawingOf(plan));
