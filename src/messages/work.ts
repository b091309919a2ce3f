import type { CircuitCheck } from '@/core/for-work/circuit';
import type { Demand, FlowNeed, Forbidden, Gear, Risk } from '@/core/for-work/demand';
import type { HoseVerdict } from '@/core/for-work/hose-choice';
import type { Afterwards, First, MachineVerdict, WhyNot } from '@/core/for-work/judge-machine';
import type { Hose, Predicted } from '@/core/for-work/predict';
import type { PutIn } from '@/core/for-work/put-in';
import type { PlaceOfWork } from '@/core/for-work/question';
import type { ToolKey, ToolSize } from '@/core/for-work/tools';
import { fromSi, show, type UnitSystem, toDecimals, fixed, toDigits } from '@/core/units';
import { sayDusts } from './dust';
import { capital, CLASS_WORDS } from './words';
import { lineOfBore } from './format';

// The words of the work desk.

export const TOOL_WORDS: Readonly<Record<ToolKey, string>> = {
  grinder: 'grinder',
  mortarRaker: 'mortar raker',
  wallChaser: 'wall chaser',
  hammerDrill: 'hammer drill',
  coreDrill: 'core drill',
  handSaw: 'hand-held saw',
  sander: 'disc sander',
  beltSander: 'belt sander',
  planer: 'planer',
  router: 'router',
  tableSaw: 'table saw',
  cleaningWand: 'cleaning wand',
  hood: 'hood',
  slot: 'slot',
  torch: 'welding or cutting torch',
};

export const SIZE_WORDS: Readonly<Record<ToolSize, string>> = {
  wheel: 'Wheel',
  disc: 'Disc',
  blade: 'Blade',
  belt: 'Belt',
  knife: 'Cutter width',
  bit: 'Bit',
  opening: 'Opening across',
  length: 'Length of the slot',
  none: 'Size',
};

export const PLACE_WORDS: Readonly<Record<PlaceOfWork, string>> = {
  indoors: 'indoors',
  cabin: 'in a cabin',
  barge: 'on the barge',
  outdoors: 'outdoors',
};

export const GEAR_WORDS: Readonly<Record<Gear, string>> = {
  shroud: 'a shroud on the tool',
  filter99: 'a filter of 99 % or better',
  filterCleaning: 'a cyclone before the filter, or a filter that cleans itself',
  water: 'water fed to the blade: this row knows no dry way',
  hepaForHoles: 'a HEPA vacuum to clean the holes',
  outdoorsOnly: 'outdoors only',
};

export const FORBIDDEN_WORDS: Readonly<Record<Forbidden, string>> = {
  drySweeping: 'No dry sweeping.',
  compressedAir: 'No compressed air, on the work, the filter or yourself.',
  shaking: 'Nothing is shaken or beaten out.',
  paperInTheWet: 'No paper bag in the wet.',
  mainsInTheWet: 'No mains tool in the wet.',
  sparks: 'No sparks into this dust: sparks travel down the hose and the bag burns.',
  dryScraping: 'No dry scraping or burning off where a wet way will do.',
};

/** Each danger in a sentence, with its remedy. Source: handbook of the trade, section 21; local fire rules first. */
export const RISK_WORDS: Readonly<Record<Risk, string>> = {
  burns:
    'This dust burns. Keep flames, embers and hot work away, look for embers before anything is opened, empty it every day.',
  static: 'Use an antistatic hose. Bond tool, hose and machine, and measure the continuity before dust moves.',
  explodes:
    'A cloud of it can explode. A collector for it belongs outdoors or behind its own explosion protection: ask your fire authority.',
  sparkWork:
    'This work throws sparks. They must not reach wood dust, a bag, a liner or a cloth. Use a machine and a separator whose makers built them for sparks. Keep a fire watch afterwards.',
  weldSparks: 'Where it is welded, keep the hood so far away that no spark is drawn in.',
  conducts: 'This dust conducts. Keep it out of motors, switches and sockets.',
};

export const hoseSize = (metres: number, units: UnitSystem): string =>
  units === 'us' ? `${toDecimals(fromSi('length', metres, 'in'), 2)} in` : `${toDecimals(1000 * metres, 0)} mm`;
const hoseLength = (metres: number, units: UnitSystem): string =>
  units === 'us' ? `${toDecimals(fromSi('length', metres, 'ft'), 0)} ft` : `${toDecimals(metres, 1)} m`;

export const sayHose = ({ boreM, lengthM }: Hose, units: UnitSystem): string =>
  `${hoseSize(boreM, units)} ${lineOfBore(boreM)} of ${hoseLength(lengthM, units)}`;

export const HOSE_VERDICT_WORDS: Readonly<Record<HoseVerdict, string>> = {
  does: 'does both',
  perhaps: 'does it by the model; not sure until measured',
  tooSlow: 'too slow in the hose',
  tooLittle: 'too little air at the tool',
  neither: 'too slow, and too little air',
};

/** The reason a machine must not do the work, in a clause. */
export const sayWhyNot = (why: WhyNot, { candidate: { machine }, hose }: MachineVerdict, demand: Demand): string => {
  switch (why) {
    case 'dustRefused':
      return 'this dust is taken by no machine here';
    case 'machineRefused':
      return `it holds ${machine.dust.standing.refusal?.dust ?? 'what nobody may open'}`;
    case 'somebodyAtIt':
      return 'somebody is at work on it';
    case 'away':
      return 'it is not at hand';
    case 'drying':
      return 'its filter hangs up to dry';
    case 'classWithdrawn':
      return 'a filter of it is missing, foreign, reversed or not proven again';
    case 'classTooLow':
      return `${machine.machineClass ? CLASS_WORDS[machine.machineClass] : 'no class'} is not enough: ${sayClasses(demand)}`;
    case 'classNone':
      return `it carries no class: ${sayClasses(demand)}`;
    case 'collector':
      return 'a collector carries no class and blows back into the shop: only wood and what takes no more than L';
    case 'moreFlow':
      return 'more air flows through it than its baseline: a filter may be torn or out of its seat, look first';
    case 'floorOnly':
      return 'it is for floors';
    case 'fumeOnly':
      return 'it is for fume';
    case 'noGas':
      return 'it has no HEPA with a gas stage behind it: fume passes a dust filter';
    case 'sparks':
      return machine.dust.standing.dusts.some((d) => d.properties.includes('combustible'))
        ? `sparks: it holds ${machine.dust.standing.dusts.find((d) => d.properties.includes('combustible'))?.name ?? 'dust'}, which burns`
        : 'sparks set its bag, liner or filters alight: only a machine built for sparks';
    case 'conductive':
      return 'this dust conducts and gets into a mains motor: only with the written word of its maker';
    case 'mixes':
      return `it has held ${machine.dust.standing.dusts.map((d) => d.name).join(', ')}: that does not meet this dust`;
    case 'handTool':
      return 'a hand-held tool takes a hose, not a duct';
    case 'waterOnly':
      return 'dry, this work is not in the US task table: feed water to the blade, or saw it another way';
    case 'notWet':
      return 'it is not fitted out for wet work';
    case 'hoseTooSlow':
      return `no hose here keeps the dust moving on it${hose ? `: ${fixed(hose.predicted.velocityMs, 0)} m/s at best` : ''}`;
    case 'tooLittleAir':
      return 'no hose here gives the tool its air on it';
  }
};

/** The classes asked for, by both rule sets where they differ. */
export const sayClasses = ({ classes: { eu_uk: eu, us } }: Pick<Demand, 'classes'>): string => {
  const words = (c: Demand['classes']['us']) => (c === 'HEPA' ? 'HEPA' : `${c} class`);
  return eu === us || (eu === 'H' && us === 'HEPA')
    ? `it takes ${words(eu)}${eu === 'H' ? ' (US: HEPA)' : ''}`
    : `EU and UK ask for ${words(eu)}, the US for ${us === 'HEPA' ? 'HEPA' : 'less'}: the stricter applies`;
};

export const FIRST_WORDS: Readonly<Record<First, string>> = {
  questions: 'answer what is asked of the dust',
  keepsWorse: 'know what is in it: that is worse than this dust, and its waste and every opening follow it',
  returnsAir:
    'it carries no class: have its examination in date, and lead its air outdoors where you can, because it blows back into the shop',
  case: 'a fault is still being looked for on it: end that first',
  measure: 'measure it: no test is on record since it was last changed, or only an old one',
  due: 'a bag or filter is due before the job is over: change it first',
  full: 'its bag or a filter may well be full before the job is over: change it first',
  mayFill: 'have a spare at hand: its bag or a filter may not last the job',
  bonding: 'its continuity read open: repair the path to earth and measure again before dust moves',
  flowUnsure: 'measure at the tool: the model is not sure of the air',
  selector: 'set the hose selector to this hose',
  wetSetOut: 'take the wet set out and fit the dry filters, dry',
  examine: 'its examination is overdue',
  noAir: 'its air was not worked out: measure at the tool',
  belowUsual: 'it gets less air than the trade gives such a tool: look out for dust that escapes',
  hepaNotClassed: 'HEPA is not an M class: ask the person responsible for the site whether it is accepted',
};

/** A thing to do first, with the hose where it matters. */
export const sayFirst = (first: First, { hose }: MachineVerdict, units: UnitSystem): string =>
  first === 'selector' && hose
    ? `set the hose selector to ${hoseSize(hose.predicted.hose.boreM, units)}: set to another bore it warns too late or too early`
    : FIRST_WORDS[first];

export const AFTERWARDS_WORDS: Readonly<Record<Afterwards, string>> = {
  dirties: 'it is opened as a worse machine from then on, until it is decontaminated',
};

export const FLOW_BECAUSE: Readonly<Record<FlowNeed['because'], string>> = {
  taskTable: '25 cfm an inch of wheel, 29 CFR 1926.1153 Table 1',
  maker: 'what its maker asks for',
  usual: 'what the trade gives it, no rule',
  capture: '1 m/s at the dust from this distance, ACGIH, no rule: nearer wants far less',
};

export const sayFlow = ({ flowM3s, because }: FlowNeed, units: UnitSystem): string =>
  `${show('flow', flowM3s, units)} at ${because === 'capture' ? 'the hood' : 'each tool'}: ${FLOW_BECAUSE[because]}`;

export const sayPredicted = (p: Predicted, units: UnitSystem): string =>
  `${show('flow', p.flowM3s, units)} at the tool (${show('flow', p.lowM3s, units)} to ${show('flow', p.highM3s, units)}), ${show('velocity', p.velocityMs, units)} in the ${lineOfBore(p.hose.boreM)}${p.toolsOnHose !== 1 ? ` the ${p.toolsOnHose === 2 ? 'two' : p.toolsOnHose} tools share` : ''}`;

/** A long name is cut at its comma. */
export const shortName = (name: string): string => name.split(',')[0] ?? name;

/** The headline of the answer. */
export const sayAnswer = (
  best: MachineVerdict | null,
  {
    demand,
    machines,
    owners,
    units,
  }: {
    readonly demand: Demand;
    readonly machines: number;
    /** Who owns the hose it would take. */
    readonly owners: readonly string[];
    readonly units: UnitSystem;
  },
): string => {
  if (demand.standing.refusal) return `${capital(demand.standing.refusal.dust)}: not with any machine here.`;
  if (machines === 0) return 'No machine is on file yet.';
  if (!best || best.whyNot.length > 0) return 'Nothing here may do it.';
  const { machine } = best.candidate;
  const owner = owners.length === 0 ? 'a ' : owners.includes(machine.tag) ? 'its ' : `the ${owners[0]} `;
  const on = best.hose ? `, on ${owner}${sayHose(best.hose.predicted.hose, units)}` : '';
  return `Take ${machine.tag} ${shortName(machine.name)}${on}${best.first.length > 0 ? ', once it is ready' : ''}.`;
};

/** The smallest thing that would change a no: of the machine that lacks the least; a wheel it would do for, where the air is all it lacks. */
export const saySmallest = (
  nearest: MachineVerdict,
  { demand, wheelM, units }: { readonly demand: Demand; readonly wheelM: number | null; readonly units: UnitSystem },
): string => {
  const { machine } = nearest.candidate;
  const why = nearest.whyNot.map((w) => sayWhyNot(w, nearest, demand)).join('; ');
  const sure = show('flow', nearest.hose?.predicted.lowM3s ?? 0, units);
  const wheel =
    wheelM === null ? '' : ` With a wheel of ${hoseSize(wheelM, units)} or less it would: ${sure} is what is sure.`;
  return `Nearest is ${machine.tag} ${shortName(machine.name)}: ${why}.${wheel}`;
};

export const sayDemand = ({ standing, ...demand }: Demand): string =>
  `${sayDusts(standing)} ${capital(sayClasses(demand))}.`;

const CHECKS: Readonly<Record<CircuitCheck['check'], readonly [string, string]>> = {
  machineShare: ['The machine alone, against 80 % of the breaker (NEC 210.23)', 'A'],
  toolShare: ['The tool alone, against 80 % of the breaker (NEC 210.23)', 'A'],
  continuous: ['Three hours and more, against 80 % of the breaker (NEC 210.20)', 'A'],
  breaker: ['Both together, against the breaker', 'A'],
  socket: ['The tool, against the socket on the machine', 'W'],
  generator: ['Both running and one starting, against the generator', 'VA'],
  drop: ['Lost in the lead, against 5 % of the supply', 'V'],
};

export const sayCheck = ({ check, value, limit, holds }: CircuitCheck): string => {
  const [what, unit] = CHECKS[check];
  return `${what}: ${toDigits(value, 3)} ${unit} of ${toDigits(limit, 3)} ${unit}${holds ? '' : ': too much'}.`;
};

/** The respirator that the task table asks for. Hours that nobody said are taken as more than four. */
export const sayRespirator = (apf: number | null, hours: number | null): string | null => {
  if (apf === null) return null;
  const long = hours === null ? ' for more than four hours a shift (you did not say how long)' : '';
  return apf === 0
    ? `The US task table asks for no respirator at this work${long} with all of this in place.`
    : `The US task table asks for a respirator with a protection factor of ${apf} at this work${long}.`;
};

export const PUT_IN_WORDS: Readonly<Record<PutIn, string>> = {
  wetFoam: 'The wet set its maker names: foam or wet mesh, and the float clear.',
  slurryMesh: 'The fine mesh for slurry in front of it.',
  noDryParts:
    'No paper and no bag in the wet: they burst. The last filter stays in its seat: the machine never runs without it.',
  dryStack: 'The dry filters, dry, each in its seat.',
  fineLayer: 'A bag or a fine-dust layer in front: these fines blind a cloth or a HEPA quickly.',
  bag: 'A fresh bag if the one in it will not last.',
  sealedBag: 'A bag that can be closed before it comes out.',
  plugBranch: 'The other branch of its Y plugged: open, it takes half the air.',
  addY: 'A Y, and behind it a hose of its own for each tool.',
  keepCloth: 'The cloth layer stays in: it is the gasket of the head too.',
};

/** Source: TRGS practice, named in makers' instructions; handbook of the trade, section 18. */
export const CLOSED_IN =
  'Closed in: the exhaust of the machine counts as returned air. Some countries limit it to half of the fresh air. Where does the fresh air come from?';
