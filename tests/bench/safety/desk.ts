import { assessDust, stated } from '@/core/dust/assess';
import { NO_DUST } from '@/core/dust/history';
import { BUILT_IN_DUSTS } from '@/core/dust/register';
import { demandOf } from '@/core/for-work/demand';
import { type Candidate, judgeMachine } from '@/core/for-work/judge-machine';
import { aboutDust, PLACES_OF_WORK } from '@/core/for-work/question';
import type { ToolKey } from '@/core/for-work/tools';
import type { MachineKind } from '@/core/machine/kinds';
import type { Machine, MachineClass } from '@/core/machine/machine';
import { templateMachine } from '../../support/machines';

// The work desk against demands that were written down by hand, material by material and machine by machine. Nothing here
// asks the desk's own rules. Source: handbook of the trade, sections 9, 18 and 21; EN 60335-2-69; 29 CFR 1926.1153; common
// practice, no published source, where none is named.

/** What a material is, as a hygienist and a fire officer see it. */
interface Material {
  readonly text: string;
  /** `no`: no machine here. Otherwise the least label by EU and UK practice and by the US, together. */
  readonly needs: 'no' | 'any' | 'M' | 'silica' | 'H';
  readonly is: string;
}
const m = (text: string, needs: Material['needs'], is = ''): Material => ({ text, needs, is });

/** wood, burns, metal (sparks when ground), wet, conducts, food, germs, mineral, fibreCement, fume, unknown. */
export const MATERIALS: readonly Material[] = [
  m('oak', 'M', 'wood burns'),
  m('pine', 'M', 'wood burns'),
  m('MDF', 'M', 'wood burns'),
  m('teak deck', 'M', 'wood burns'),
  m('plywood', 'M', 'wood burns'),
  m('beech', 'M', 'wood burns'),
  m('sawdust', 'M', 'wood burns'),
  m('chipboard', 'M', 'wood burns'),
  m('drywall', 'M'),
  m('plaster', 'M'),
  m('joint compound', 'M'),
  m('glass fibre', 'M'),
  m('epoxy filler', 'M'),
  m('mineral wool', 'M'),
  m('carbon fibre', 'M', 'conducts'),
  m('nylon', 'M', 'burns'),
  m('pvc', 'M', 'burns'),
  m('acrylic', 'M', 'burns'),
  m('flour', 'M', 'burns food'),
  m('icing sugar', 'M', 'burns food'),
  m('coffee dust', 'M', 'burns food'),
  m('new paint', 'M'),
  m('powder coating', 'M'),
  m('solder fume', 'M', 'fume'),
  m('laser fume', 'M', 'fume'),
  m('welding fume', 'M', 'fume'),
  m('stainless weld fume', 'H'),
  m('lead paint', 'H'),
  m('red lead', 'H'),
  m('old primer', 'H'),
  m('zinc chromate', 'H'),
  m('cadmium plating', 'H'),
  m('beryllium copper', 'H'),
  m('tungsten carbide', 'H'),
  m('antifouling', 'silica'),
  m('isocyanate', 'H'),
  m('rat poison', 'H'),
  m('soot', 'H'),
  m('concrete', 'silica', 'mineral'),
  m('brick', 'silica', 'mineral'),
  m('slate', 'silica', 'mineral'),
  m('mortar', 'silica', 'mineral'),
  m('fibre cement board', 'silica', 'mineral fibreCement'),
  m('sandstone', 'silica', 'mineral'),
  m('mould', 'H', 'germs'),
  m('pigeon droppings', 'H', 'germs'),
  m('sewage', 'H', 'germs'),
  m('steel', 'any', 'metal'),
  m('cast iron', 'any', 'metal'),
  m('rust', 'any', 'metal'),
  m('stainless steel', 'M', 'metal'),
  m('house dust', 'any'),
  m('garden soil', 'any'),
  m('paper', 'any'),
  m('alox paper', 'any'),
  m('bilge water', 'M', 'wet'),
  m('concrete slurry', 'M', 'wet'),
  m('coolant', 'M', 'wet'),
  m('asbestos', 'no'),
  m('AIB', 'no'),
  m('magnesium', 'no'),
  m('Al swarf', 'no'),
  m('petrol', 'no'),
  m('hot ash', 'no'),
  m('mercury', 'no'),
  m('potassium permanganate', 'no'),
  m('xyzzy', 'H', 'unknown'),
  m('filings', 'H', 'unknown'),
  m('asbestos-free board', 'H'),
];

const TOOLS: readonly ToolKey[] = [
  'grinder',
  'mortarRaker',
  'hammerDrill',
  'handSaw',
  'sander',
  'beltSander',
  'planer',
  'router',
  'tableSaw',
  'cleaningWand',
  'hood',
  'torch',
];
/** Held in the hand, whatever the desk thinks. */
const IN_HAND: ReadonlySet<ToolKey> = new Set<ToolKey>([
  'grinder',
  'mortarRaker',
  'hammerDrill',
  'handSaw',
  'sander',
  'beltSander',
  'planer',
  'router',
  'cleaningWand',
  'torch',
]);
/** Throws sparks on steel; a torch always does. */
const SPARKS: ReadonlySet<ToolKey> = new Set<ToolKey>([
  'grinder',
  'mortarRaker',
  'handSaw',
  'tableSaw',
  'sander',
  'beltSander',
]);

interface Yard {
  readonly name: string;
  readonly kind: MachineKind;
  readonly machineClass: MachineClass | null;
  readonly holds: string;
  readonly wetSet?: boolean;
}
const YARD: readonly Yard[] = [
  { name: 'shop', kind: 'shopVacuum', machineClass: null, holds: '' },
  { name: 'L', kind: 'shopVacuum', machineClass: 'L', holds: 'house dust' },
  { name: 'M', kind: 'mExtractor', machineClass: 'M', holds: '' },
  { name: 'M wood', kind: 'mExtractor', machineClass: 'M', holds: 'oak' },
  { name: 'M wet', kind: 'mExtractor', machineClass: 'M', holds: 'slurry', wetSet: true },
  { name: 'H', kind: 'hExtractor', machineClass: 'H', holds: '' },
  { name: 'H lead', kind: 'hExtractor', machineClass: 'H', holds: 'lead paint' },
  { name: 'H mould', kind: 'hExtractor', machineClass: 'H', holds: 'mould' },
  { name: 'HEPA', kind: 'hepaTank', machineClass: 'HEPA', holds: '' },
  { name: 'grinder', kind: 'grinderExtractor', machineClass: 'HEPA', holds: 'concrete' },
  { name: 'air', kind: 'pneumaticHepa', machineClass: 'H', holds: '' },
  { name: 'wood collector', kind: 'singleStageCollector', machineClass: null, holds: 'oak' },
  { name: 'cyclone', kind: 'cycloneCollector', machineClass: null, holds: '' },
  { name: 'fume', kind: 'fumeExtractor', machineClass: null, holds: '' },
  { name: 'floors', kind: 'floorCleaner', machineClass: null, holds: '' },
  { name: 'asbestos', kind: 'hExtractor', machineClass: 'H', holds: 'asbestos' },
];

const machineOf = ({ kind, machineClass, holds, wetSet = false }: Yard): Machine => {
  const standing = holds === '' ? NO_DUST.standing : assessDust(BUILT_IN_DUSTS, stated(holds));
  return templateMachine(kind, { machineClass, wetSet, hazard: standing.level, dust: { ...NO_DUST, standing } });
};

const candidateOf = (machine: Machine): Candidate => ({
  machine,
  due: [],
  testedDaysAgo: 0,
  somebodyAtIt: false,
  away: false,
  drying: false,
  caseOpen: false,
  moreThanBaseline: false,
  changedSince: false,
  lasting: [],
  bonding: { kind: 'never' },
  hoses: [],
});

/** Labels that are enough, by the stricter of both rule sets; HEPA for M is a question for whoever answers for the site. */
const ENOUGH: Readonly<Record<Material['needs'], readonly string[]>> = {
  no: [],
  any: ['none', 'L', 'M', 'H', 'HEPA'],
  M: ['M', 'H', 'HEPA'],
  silica: ['H', 'HEPA'],
  H: ['H'],
};

interface Case {
  readonly material: Material;
  readonly tool: ToolKey;
  readonly place: (typeof PLACES_OF_WORK)[number];
  readonly wet: boolean;
}

/** What is wrong with a machine that the desk lets take a work. Written from the demands. */
const wrongWith = ({ material, tool, place, wet }: Case, y: Yard): readonly string[] => {
  const is = (word: string) => material.is.split(' ').includes(word);
  const collector = y.kind === 'singleStageCollector' || y.kind === 'cycloneCollector';
  const sparks = tool === 'torch' || (SPARKS.has(tool) && is('metal'));
  const isWet = wet || is('wet');
  const dirty =
    y.holds === 'lead paint' ||
    y.holds === 'mould' ||
    y.holds === 'concrete' ||
    y.holds === 'oak' ||
    y.holds === 'slurry';
  return [
    ...(material.needs === 'no' ? ['a refused dust'] : []),
    ...(y.holds === 'asbestos' ? ['a machine with asbestos in it'] : []),
    ...(collector && !is('wood') && material.needs !== 'any' ? ['M and more into a collector'] : []),
    ...(collector && IN_HAND.has(tool) ? ['a duct for a hand-held tool'] : []),
    ...(!collector && !is('fume') && !ENOUGH[material.needs].includes(y.machineClass ?? 'none') ? ['the class'] : []),
    ...(is('fume') && y.kind !== 'fumeExtractor' ? ['fume without a gas stage'] : []),
    ...(!is('fume') && y.kind === 'fumeExtractor' && material.text !== 'stainless weld fume'
      ? ['dust into a fume extractor']
      : []),
    ...(y.kind === 'floorCleaner' && tool !== 'cleaningWand' ? ['a tool on a floor cleaner'] : []),
    // Every machine of this yard has a bag, a liner, a pleat of polyester or a collector's filter.
    ...(sparks ? ['sparks'] : []),
    ...(is('metal') && y.holds === 'oak' ? ['metal beside wood'] : []),
    ...(is('conducts') && y.kind !== 'pneumaticHepa' ? ['a mains motor in conductive dust'] : []),
    ...(isWet && !y.wetSet ? ['water into a dry machine'] : []),
    ...(is('food') && dirty ? ['food into a dirty machine'] : []),
    ...(is('germs') && y.holds === 'lead paint' ? ['mould into lead'] : []),
    ...(is('mineral') && tool === 'handSaw' && !isWet && !(is('fibreCement') && place === 'outdoors')
      ? ['a dry saw on stone']
      : []),
  ];
};

export interface DeskCheck {
  readonly asked: number;
  /** A machine that may, and must not; or a warning that is not given. */
  readonly violations: readonly string[];
  /** Everyday works that no machine of a full yard would be allowed for. */
  readonly refusedForNothing: readonly string[];
}

/** Every material with every tool, in every place, wet and dry, on every machine. */
export const checkDesk = (): DeskCheck => {
  const machines = YARD.map((y) => ({ y, candidate: candidateOf(machineOf(y)) }));
  const violations: string[] = [];
  const refusedForNothing: string[] = [];
  let asked = 0;
  for (const material of MATERIALS)
    for (const tool of TOOLS)
      for (const place of PLACES_OF_WORK)
        for (const wet of [false, true]) {
          asked += 1;
          const question = aboutDust(stated(material.text), { tool, place, wet });
          const demand = demandOf(question, assessDust(BUILT_IN_DUSTS, question.dust));
          const said = `${material.text}, ${tool}, ${place}${wet ? ', wet' : ''}`;
          const may = machines.filter(
            ({ candidate }) => judgeMachine(candidate, { question, demand }).whyNot.length === 0,
          );
          for (const { y } of may)
            for (const wrong of wrongWith({ material, tool, place, wet }, y))
              violations.push(`${said}: ${y.name}: ${wrong}`);
          const is = (word: string) => material.is.split(' ').includes(word);
          const want = (yes: boolean, given: boolean, what: string) => {
            if (yes && !given && material.needs !== 'no') violations.push(`${said}: not said: ${what}`);
          };
          want(material.needs !== 'any', demand.forbidden.includes('drySweeping'), 'no dry sweeping');
          want(
            is('burns'),
            demand.risks.includes('burns') && demand.risks.includes('static') && demand.risks.includes('explodes'),
            'fire, static, explosion',
          );
          want(tool === 'torch' || (SPARKS.has(tool) && is('metal')), demand.risks.includes('sparkWork'), 'sparks');
          want(is('conducts'), demand.risks.includes('conducts'), 'conductive');
          want(wet || is('wet'), demand.forbidden.includes('mainsInTheWet'), 'no mains tool in the wet');
          want(
            is('mineral') && tool === 'handSaw' && !is('fibreCement'),
            demand.gear.includes('water'),
            'water to the blade',
          );
          want(
            is('fibreCement') && tool === 'handSaw' && place === 'outdoors',
            demand.gear.includes('outdoorsOnly'),
            'outdoors only',
          );
          want(is('unknown'), demand.standing.questions.length > 0, 'questions of an unknown dust');
          const everyday =
            !wet &&
            material.needs !== 'no' &&
            !is('wet') &&
            !is('metal') &&
            !is('conducts') &&
            !is('fume') &&
            tool === 'sander';
          if (everyday && may.length === 0) refusedForNothing.push(said);
        }
  return { asked, violations, refusedForNothing };
};
