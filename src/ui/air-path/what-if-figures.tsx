import { filterBefore } from '@/core/path/filter-before';
import type { PathView } from '@/core/calibrate/path-view';
import { flowLamp, gaugeZone } from '@/core/path/indicator';
import type { PressureProfile } from '@/core/path/pressure-profile';
import { show, showParts, type UnitSystem, fixed } from '@/core/units';
import { capital } from '@/messages/words';
import { ToneMark } from '../tone-mark';

interface FiguresProps {
  readonly view: PathView;
  readonly now: PressureProfile;
  readonly stairs: PressureProfile;
  readonly units: UnitSystem;
  readonly hoseM: number | null;
}

const Figure = ({
  label,
  value,
  before,
}: {
  label: string;
  value: { number: string; unit: string };
  before: string;
}) => (
  <div>
    <div className="flex items-baseline gap-1 whitespace-nowrap">
      <span className="dial text-3xl leading-none">{value.number}</span>
      <span className="text-sm font-semibold">{value.unit}</span>
    </div>
    <div className="caption">
      {label}, today {before}
    </div>
  </div>
);

const ZONE_TONES = { green: 'good', amber: 'watch', red: 'stop' } as const;

const Lamp = ({ view, stairs, hoseM }: FiguresProps) => {
  if (!view.lamp || hoseM === null) return null;
  const { lit, warnsAtMs } = flowLamp(view.lamp, { flowM3s: stairs.flowPerToolM3s, hoseM });
  return (
    <ToneMark
      tone={lit ? 'stop' : 'good'}
      word={lit ? `Low-flow light on: below ${fixed(warnsAtMs, 0)} m/s in this hose` : 'Low-flow light off'}
    />
  );
};

const Gauges = ({ view, stairs }: FiguresProps) =>
  view.model.stages.map((stage, i) => {
    const { gaugePa } = stage.spec.fit;
    const step = stairs.steps[i];
    if (!gaugePa || !step || stage.missing) return null;
    const other = gaugePa.spans === 'withBefore' ? filterBefore(view.model.stages, i) : null;
    const both = step.dropPa + (other === null ? 0 : (stairs.steps[other]?.dropPa ?? 0));
    const zone = gaugeZone(both, gaugePa);
    return (
      <div key={stage.id}>
        <ToneMark tone={ZONE_TONES[zone]} word={`${capital(stage.name)} gauge ${zone}`} />
      </div>
    );
  });

/** What follows at once: flows, hose velocity, lamp and gauges. */
export const WhatIfFigures = (p: FiguresProps) => {
  const { now, stairs, units } = p;
  const tool = (s: PressureProfile) => s.flowPerToolM3s;
  const several = stairs.flowPerToolM3s !== stairs.toolFlowM3s;
  return (
    <div className="flex flex-wrap items-center gap-x-8 gap-y-2" role="status">
      <div className="flex flex-wrap gap-x-6 gap-y-2">
        <Figure
          label={several ? 'at each tool' : 'at the tool'}
          value={showParts('flow', tool(stairs), units)}
          before={show('flow', tool(now), units)}
        />
        {stairs.hoseVelocityMs !== null && now.hoseVelocityMs !== null && (
          <Figure
            label="in the hose"
            value={showParts('velocity', stairs.hoseVelocityMs, units)}
            before={show('velocity', now.hoseVelocityMs, units)}
          />
        )}
        <Figure
          label="fan suction"
          value={showParts('pressure', stairs.fanLiftPa, units)}
          before={show('pressure', now.fanLiftPa, units)}
        />
      </div>
      <Lamp {...p} />
      <Gauges {...p} />
    </div>
  );
};
