import { fixed, toDigits } from '@/core/units';
import { isAsGoodAsClean } from '@/core/calibrate/load';
import type { PenetrationChart } from '@/charts/penetration-option';
import { MEDIA, type Medium } from '@/core/constants/media';
import { type Deserved, deservedClass } from '@/core/filter/deserved-class';
import { trainOfMachine } from '@/core/machine/machine-train';
import { DUST_CLASS_PENETRATION } from '@/core/filter/rating';
import type { Train } from '@/core/filter/train';
import type { Result } from '@/core/failure/failure';
import type { Machine, MachineAirPath } from '@/core/machine/machine';
import { faceVelocity } from '@/core/path/face-velocity';
import { AS_NEW } from '@/core/path/as-new';
import { sayFace } from '@/messages/air-path';
import { sayRating } from '@/messages/filters';
import type { AirPathPage } from '@/server/services/measuring/air-path';
import { sayShare } from '@/messages/format';

export interface FilterCard {
  readonly clean: Train;
  readonly now: Train;
  readonly deserved: Deserved;
}

/** A machine's filters as a train, clean (as rated) and as loaded today. */
export const filterCardOf = (machine: Machine, { view }: AirPathPage): Result<FilterCard> => {
  const base = { machine, asNew: view.asNew };
  const clean = trainOfMachine({ ...base, stairs: view.asNew, state: AS_NEW });
  if (!clean.ok) return clean;
  const now = trainOfMachine({ ...base, stairs: view.now, state: view.today.state });
  return now.ok
    ? { ok: true, value: { clean: clean.value, now: now.value, deserved: deservedClass(clean.value) } }
    : now;
};

export interface FilterRow {
  readonly name: string;
  readonly medium: string;
  readonly rating: string;
  readonly bypass: string;
  readonly seals: string;
  readonly face: string;
  readonly note: string;
}

const noteOf = (stage: Machine['stages'][number], medium: Medium, card: FilterCard): string => {
  const now = card.now.stages.find((s) => s.stage.name === stage.name)?.stage.timesClean ?? 1;
  if (stage.missing) return 'Missing.';
  if (stage.spec.fit.orientation === 'againstFlow') return 'In back to front.';
  if (stage.spec.fit.foreign) return 'Not the part it was tested with.';
  if (MEDIA[medium].seasons && !isAsGoodAsClean(now))
    return `Carries dust: ${now < 10 ? fixed(now, 1) : Math.round(now)} times its clean resistance. The dust cake filters better than rated and lets less air through.`;
  return stage.spec.fit.rating.scale === 'none'
    ? `Not rated: typical figures for ${MEDIA[medium].label}, not counted for a class.`
    : 'As rated, clean.';
};

/** One row a filter, missing ones too. */
export const filterRows = (machine: MachineAirPath, page: AirPathPage, card: FilterCard): readonly FilterRow[] =>
  machine.stages.flatMap((stage, position): readonly FilterRow[] => {
    const { air, fit } = stage.spec;
    if (air.form !== 'medium') return [];
    const velocity = page.view.now?.steps[position]?.faceVelocityMs ?? null;
    const areaM2 = air.areaM2 * air.inParallel;
    return [
      {
        name: stage.name,
        medium: `${MEDIA[air.medium].label}, ${toDigits(areaM2, 3)} m²${air.inParallel > 1 ? ` in ${air.inParallel}` : ''}`,
        rating: sayRating(fit.rating),
        bypass: sayShare(fit.bypass),
        seals: fit.seals === 1 ? '1 seal' : `${fit.seals} seals`,
        face:
          velocity === null
            ? ''
            : sayFace(
                faceVelocity({
                  flowM3s: velocity * areaM2,
                  areaM2,
                  medium: air.medium,
                  collector: page.view.collector,
                }),
              ),
        note: noteOf(stage, air.medium, card),
      },
    ];
  });

const SIZES = Array.from({ length: 61 }, (_, i) => 0.01 * 1000 ** (i / 60));

/** The curves of the card: each filter with its seat, and the whole. */
export const penetrationChartOf = ({ clean }: FilterCard): PenetrationChart => ({
  curves: [
    ...clean.stages.map((s) => ({
      name: s.stage.name,
      whole: false,
      points: SIZES.map((d) => [d, s.seated(d)] as const),
    })),
    { name: 'whole train', whole: true, points: SIZES.map((d) => [d, clean.whole(d)] as const) },
  ],
  limits: (['L', 'M', 'H'] as const).map((c) => ({ name: `${c} limit`, penetration: DUST_CLASS_PENETRATION[c] })),
});

const TOLD_SIZES = [0.1, 0.3, 1, 3] as const;

/** The same in figures: what passes, by size, clean and as loaded today. */
export const passRows = ({
  clean,
  now,
}: FilterCard): {
  readonly sizes: readonly number[];
  readonly rows: readonly { readonly name: string; readonly passes: readonly string[] }[];
} => ({
  sizes: TOLD_SIZES,
  rows: [
    ...clean.stages.map((s) => ({ name: s.stage.name, passes: TOLD_SIZES.map((d) => sayShare(s.seated(d))) })),
    { name: 'Whole train, clean', passes: TOLD_SIZES.map((d) => sayShare(clean.whole(d))) },
    { name: 'Whole train, as loaded today', passes: TOLD_SIZES.map((d) => sayShare(now.whole(d))) },
  ],
});
