import type { Lines } from './staircase-picture';
import { show, showPercent, type UnitSystem } from '@/core/units';

/** The staircase in figures, for who does not see the picture. */
export const StaircaseTable = ({
  lines,
  names,
  units,
}: {
  readonly lines: Lines;
  readonly names: readonly string[];
  readonly units: UnitSystem;
}) => {
  const shown = lines.whatIf ?? lines.now;
  // A table keeps its width in CSS, so the box around it is hidden.
  return (
    <div className="sr-only">
      <table>
        <caption>Pressure along the air path, tool to room</caption>
        <thead>
          <tr>
            <th scope="col">Stage</th>
            <th scope="col">Drop as new</th>
            <th scope="col">Drop today</th>
            {lines.whatIf && <th scope="col">Drop, what if</th>}
            <th scope="col">Share of fan suction</th>
            <th scope="col">Flow</th>
            <th scope="col">Pressure after it</th>
          </tr>
        </thead>
        <tbody>
          {names.map((name, i) => (
            <tr key={`${i}-${name}`}>
              <th scope="row">{name}</th>
              <td>{show('pressure', lines.asNew.steps[i]?.dropPa ?? 0, units)}</td>
              <td>{show('pressure', lines.now.steps[i]?.dropPa ?? 0, units)}</td>
              {lines.whatIf && <td>{show('pressure', lines.whatIf.steps[i]?.dropPa ?? 0, units)}</td>}
              <td>{showPercent(shown.steps[i]?.shareOfLift ?? 0)}</td>
              <td>{show('flow', shown.steps[i]?.flowM3s ?? 0, units)}</td>
              <td>{show('pressure', shown.steps[i]?.toPa ?? 0, units)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
};
