import type { StageKind } from '@/core/path/stage-kinds';
import type { Repair, RepairKind } from '@/core/diagnose/repair';
import { type Named, nameAt } from './fault-names';

const REPAIR_WORDS: Record<RepairKind, (name: string) => string> = {
  newPart: (name) => `Fit a new ${name}`,
  reseat: (name) => `Reseat the ${name}, the right way round`,
  clear: (name) => `Clear the ${name}`,
  newHose: (name) => `Replace or shorten the ${name}`,
  newSeal: (name) => `Renew the seal at the ${name}`,
  serviceFan: () => 'Send it to a trained repairer for brushes and bearings',
  supply: () => 'Fix the supply: cable, socket, compressor',
  settings: () => 'Set speed, bleed and selector',
  indicator: () => 'Send the indicator for adjustment: only a trained person adjusts it live',
  brush: () => 'Unplug it and free the belt and brush roll',
};

export const sayRepair = ({ kind, position }: Repair, stages: readonly Named[]): string =>
  REPAIR_WORDS[kind](nameAt(stages, position));

const HOW_REPAIR: Partial<Record<RepairKind, string>> = {
  newPart: 'The change page shows the containment and takes the part from stock. Then come back here.',
  reseat: 'Check collar, thread or latches, and every seal, one by one.',
  newSeal: 'Wipe the seat clean before the new seal goes in. Close it and see that it sits all round.',
  serviceFan: 'Before it leaves: clean the outside, cap the inlet, and write on it what it collected.',
};

const HOW_CLEAR_ELSE =
  'Isolate it: plug, breaker or air. Take out what sits there, into a bag; push and blow nothing inwards.';

const POURED = 'Empty it as you change a bag: into a bag, closed before it is carried.';

const HOW_CLEAR: Readonly<Record<StageKind, string>> = {
  hose: "Don't push anything in: turn the hose end for end on the inlet, run, pull it straight. Then check it again, and check the bag: a pin or clip may have pierced it.",
  duct: "Don't push anything further in: open it at the nearest clean-out or joint and take it out there. Then check the bag: a pin or clip may have pierced it.",
  dropChamber: POURED,
  cyclone: POURED,
  nozzle: HOW_CLEAR_ELSE,
  shroud: HOW_CLEAR_ELSE,
  hood: HOW_CLEAR_ELSE,
  wye: HOW_CLEAR_ELSE,
  inlet: HOW_CLEAR_ELSE,
  ring: HOW_CLEAR_ELSE,
  bag: HOW_CLEAR_ELSE,
  foam: HOW_CLEAR_ELSE,
  cloth: HOW_CLEAR_ELSE,
  prefilter: HOW_CLEAR_ELSE,
  mainFilter: HOW_CLEAR_ELSE,
  canister: HOW_CLEAR_ELSE,
  hepa: HOW_CLEAR_ELSE,
  gas: HOW_CLEAR_ELSE,
  fan: HOW_CLEAR_ELSE,
  exhaustFilter: HOW_CLEAR_ELSE,
  muffler: HOW_CLEAR_ELSE,
  exhaust: HOW_CLEAR_ELSE,
};

/** How a repair is done, in a line or two. */
export const sayHowRepair = ({ kind, position }: Repair, stages: readonly Named[]): string => {
  const stage = stages[position]?.kind;
  if (kind === 'clear') return stage ? HOW_CLEAR[stage] : HOW_CLEAR_ELSE;
  return HOW_REPAIR[kind] ?? '';
};
