import { toDigits } from '@/core/units';
import type { En1822Grade, FilterRating, Merv } from '@/core/filter/rating';
import { EN_1822, MERV_MINIMA } from '@/core/filter/rating';
import { GAUGE_SPANS, type GaugeMarks, type GaugeSpan, type Orientation } from '@/core/path/stage-spec';
import { QuantityField } from '@/ui/quantity-field';
import { Choose, Grid, NumberField, type StageFieldProps, Tick } from './fields';
import { withFit } from './state';

const GRADES = Object.keys(EN_1822) as En1822Grade[];
const MERVS = Object.keys(MERV_MINIMA).map((m) => Number(m) as Merv);

const SPANS: readonly (readonly [GaugeSpan, string])[] = [
  ['own', 'this filter alone'],
  ['withBefore', 'this filter and the one before it'],
  ['unknown', 'not known'],
];

const ORIENTATIONS: readonly (readonly [Orientation, string])[] = [
  ['unmarked', 'no arrow on it'],
  ['withFlow', 'arrow with the flow'],
  ['againstFlow', 'arrow against the flow'],
];

/** Ratings to choose from: scale and value together, as printed. */
const RATINGS: readonly (readonly [string, string, FilterRating])[] = [
  ['none', 'not rated', { scale: 'none' }],
  ['point', 'efficiency at a size', { scale: 'point', efficiency: 0.9997, sizeUm: 0.3 }],
  ...GRADES.map((grade) => [`en-${grade}`, `${grade} (EN 1822)`, { scale: 'en1822', grade }] as const),
  ...MERVS.map((merv) => [`merv-${merv}`, `MERV ${merv} (ASHRAE 52.2)`, { scale: 'merv', merv }] as const),
  ...(['L', 'M', 'H'] as const).map(
    (dustClass) =>
      [`class-${dustClass}`, `element for ${dustClass} class machines`, { scale: 'dustClass', dustClass }] as const,
  ),
];

const ratingKey = (rating: FilterRating): string =>
  RATINGS.find(([, , r]) =>
    rating.scale === 'point' ? r.scale === 'point' : JSON.stringify(r) === JSON.stringify(rating),
  )?.[0] ?? 'none';

const RatingFields = ({ stage, dispatch }: StageFieldProps) => {
  const { rating } = stage.spec.fit;
  const put = (next: FilterRating) =>
    dispatch({ type: 'stage', key: stage.key, change: { spec: withFit(stage.spec, { rating: next }) } });
  return (
    <>
      <Choose
        label="Rated, as printed on it"
        value={ratingKey(rating)}
        options={RATINGS.map(([k, l]) => [k, l])}
        onChoose={(key) => put(RATINGS.find(([k]) => k === key)?.[2] ?? rating)}
      />
      {rating.scale === 'point' && (
        <>
          <NumberField
            label="Holds, %"
            value={toDigits(rating.efficiency * 100, 8)}
            low={1}
            high={99.99999}
            step={0.001}
            onValue={(percent) => put({ ...rating, efficiency: percent / 100 })}
          />
          <NumberField
            label="of particles of, µm"
            value={rating.sizeUm}
            low={0.01}
            high={10}
            step={0.01}
            onValue={(sizeUm) => put({ ...rating, sizeUm })}
          />
        </>
      )}
    </>
  );
};

/** The marks of a coloured gauge, and the filters it reads across. */
const GaugeFields = ({
  stage,
  units,
  dispatch,
  gauge,
  onGauge,
}: StageFieldProps & { readonly gauge: GaugeMarks; readonly onGauge: (gauge: GaugeMarks) => void }) => {
  const onBad = (field: string, bad: boolean) => dispatch({ type: 'bad', field, bad });
  return (
    <Grid>
      <QuantityField
        id={`${stage.key}-amber`}
        label="Amber from"
        kind="pressure"
        units={units}
        valueSi={gauge.amberPa}
        low={10}
        high={50_000}
        onBad={onBad}
        onValue={(v) => v !== null && onGauge({ ...gauge, amberPa: v })}
      />
      <QuantityField
        id={`${stage.key}-red`}
        label="Red from"
        kind="pressure"
        units={units}
        valueSi={gauge.redPa}
        low={10}
        high={50_000}
        onBad={onBad}
        onValue={(v) => v !== null && onGauge({ ...gauge, redPa: v })}
      />
      <Choose
        label="It reads across"
        value={gauge.spans}
        options={SPANS}
        onChoose={(s) => onGauge({ ...gauge, spans: GAUGE_SPANS.find((k) => k === s) ?? 'unknown' })}
      />
    </Grid>
  );
};

/** How the chosen filter sits: orientation, seals, bypass, rating, gauge. */
export const FitFields = (p: StageFieldProps) => {
  const { stage, dispatch } = p;
  const { fit } = stage.spec;
  const put = (change: Parameters<typeof withFit>[1]) =>
    dispatch({ type: 'stage', key: stage.key, change: { spec: withFit(stage.spec, change) } });
  const gauge = fit.gaugePa;
  return (
    <div className="space-y-2">
      <Grid>
        <Choose
          label="Orientation"
          value={fit.orientation}
          options={ORIENTATIONS}
          onChoose={(o) => put({ orientation: ORIENTATIONS.find(([k]) => k === o)?.[0] ?? 'unmarked' })}
        />
        <NumberField
          label="Seals to be seen"
          value={fit.seals}
          low={0}
          high={6}
          step={1}
          onValue={(n) => put({ seals: Math.round(n) })}
        />
        <RatingFields {...p} />
        <NumberField
          label="Bypass past its seat, %"
          value={toDigits(fit.bypass * 100, 6)}
          low={0}
          high={100}
          step={0.001}
          onValue={(percent) => put({ bypass: percent / 100 })}
        />
      </Grid>
      <Tick
        label="Not the maker's part"
        hint="A foreign part withdraws the machine's class until the right one is in and proven."
        on={fit.foreign}
        onTick={(foreign) => put({ foreign })}
      />
      <Tick
        label="A coloured gauge reads across it"
        hint="A gauge across two filters does not tell which of them is full."
        on={gauge !== null}
        onTick={(on) => put({ gaugePa: on ? { amberPa: 1500, redPa: 3000, spans: 'unknown' } : null })}
      />
      {gauge && <GaugeFields {...p} gauge={gauge} onGauge={(gaugePa) => put({ gaugePa })} />}
    </div>
  );
};
