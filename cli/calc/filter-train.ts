import type { FilterTrainInput, FilterTrainOutput } from '@/contracts/calc/filter-train';
import { at, ok, type Result } from '@/core/failure/failure';
import { deservedClass } from '@/core/filter/deserved-class';
import { filterTrain, type TrainStage } from '@/core/filter/train';
import { sayDeserved, sayReason, sayUs } from '@/messages/filters';
import { collect, readQuantity } from './quantities';

const stageOf = (s: FilterTrainInput['stages'][number]): Result<TrainStage> => {
  const face = s.faceVelocity === undefined ? ok(null) : readQuantity(s.faceVelocity, 'velocity', 'faceVelocity');
  return face.ok
    ? ok({
        name: s.name,
        medium: s.medium,
        rating: s.rating,
        bypass: s.bypass,
        faceMs: face.value,
        timesClean: s.timesClean,
      })
    : face;
};

/** `calc filter-train`: filters with ratings and seats in, penetration by size and the class it would at best deserve out. */
export const filterTrainCalc = (input: FilterTrainInput): Result<FilterTrainOutput> => {
  const stages = collect(input.stages.map((s, i) => at(`stages.${i}`, stageOf(s))));
  if (!stages.ok) return stages;
  const train = filterTrain({ stages: stages.value, wholeBypass: input.wholeBypass });
  if (!train.ok) return train;
  const { whole, claimed, mostPenetrating } = train.value;
  const deserved = deservedClass(train.value);
  const said = sayDeserved(deserved);
  return ok({
    sizes: input.sizesUm.map((sizeUm) => ({
      sizeUm,
      stages: train.value.stages.map((s) => s.seated(sizeUm)),
      whole: whole(sizeUm),
      claimed: claimed(sizeUm),
    })),
    mostPenetrating,
    deserved: {
      dustClass: deserved.dustClass,
      usHepa: deserved.usHepa,
      judgedAtUm: deserved.sizeUm,
      penetration: deserved.penetration,
      reason: sayReason(deserved.reason),
    },
    sentences: [
      said.sentence,
      said.detail,
      sayUs(deserved, { label: null, onPlate: null, gap: null }),
      'A class belongs to the tested appliance; this is arithmetic on what was entered.',
    ].filter((s) => s !== ''),
  });
};
