import { InitHydOption, LinkProperty, NodeProperty, Project, Workspace } from 'epanet-js';
import type { PathAir } from '@/core/path/model/air';
import type { Chain, Element } from '@/core/path/model/element';
import type { AirPath } from '@/core/path/model/path';

// An air path written down for a general hydraulic network solver, with air as its fluid: heads in metres of air,
// Darcy-Weisbach friction, the fan as a pump, media as linear valves, leaks as short extra pipes from the room.

/** The solver's own g (32.2 ft/s2) and its water (1.1e-5 ft2/s), to which it relates viscosity. */
const G = 32.2 * 0.3048;
const WATER_M2S = 1.1e-5 * 0.3048 ** 2;
/** Short enough that its wall friction is under a thousandth of its loss. */
const STUB_M = 1e-4;
/** The solver takes no wall smoother than this, in mm. */
const SMOOTH_MM = 1e-6;

interface Net {
  readonly junctions: string[];
  readonly pipes: string[];
  readonly valves: string[];
  readonly curves: string[];
  readonly pumps: string[];
}

const perCent = (x: number) => x.toPrecision(12);
const mm = (m: number) => perCent(m * 1000);
const headM = (pa: number, air: PathAir) => pa / (air.densityKgM3 * G);
const diameterOf = (areaM2: number) => Math.sqrt((4 * areaM2) / Math.PI);

class Writer {
  readonly net: Net = { junctions: [], pipes: [], valves: [], curves: [], pumps: [] };
  private count = 0;
  constructor(private readonly air: PathAir) {}

  private id(letter: string): string {
    this.count += 1;
    return `${letter}${this.count}`;
  }

  junction(id: string): string {
    this.net.junctions.push(` ${id} 0 0`);
    return id;
  }

  stub(from: string, to: string, boreM: number, lossK: number): string {
    const id = this.id('P');
    this.net.pipes.push(` ${id} ${from} ${to} ${STUB_M} ${mm(boreM)} ${SMOOTH_MM} ${perCent(lossK)} OPEN`);
    return id;
  }

  private linear(from: string, to: string, r1: number): string {
    const [id, curve] = [this.id('V'), this.id('C')];
    // Two points make the straight line; flow in L/s.
    this.net.curves.push(` ${curve} 0 0`, ` ${curve} 1000 ${perCent(headM(r1, this.air))}`);
    this.net.valves.push(` ${id} ${from} ${to} 1000 GPV ${curve} 0`);
    return id;
  }

  private fan(from: string, to: string, e: Extract<Element, { kind: 'fan' }>): string {
    const { curve } = e;
    if (curve.kind === 'points') throw new Error('a fitted curve has no three points here');
    const [id, points] = [this.id('U'), this.id('C')];
    const a = curve.kind === 'universal' ? curve.a : 0;
    if (a !== 0 && a !== 1) throw new Error('a power curve is either straight or a square here');
    for (const x of [0, 0.5, 1]) {
      const lift = curve.p0Pa * (1 - (a === 1 ? x : x * x));
      this.net.curves.push(` ${points} ${perCent(x * curve.qMaxM3s * 1000)} ${perCent(headM(lift, this.air))}`);
    }
    this.net.pumps.push(` ${id} ${from} ${to} HEAD ${points}`);
    return id;
  }

  element(from: string, to: string, e: Element): string {
    switch (e.kind) {
      case 'medium':
        return this.linear(from, to, (e.k1PaSM + (e.k2PaSMKg * e.dustKg) / e.areaM2) / e.areaM2);
      case 'fitting':
        return this.stub(from, to, e.boreM, e.lossK);
      case 'nozzle':
        return this.stub(from, to, diameterOf(e.areaM2), 1 / e.coefficient ** 2);
      case 'line': {
        if (e.friction.by !== 'roughness') throw new Error('friction by a fixed factor has no twin here');
        const id = this.id('P');
        this.net.pipes.push(
          ` ${id} ${from} ${to} ${perCent(e.lengthM)} ${mm(e.boreM)} ${perCent(Math.max(SMOOTH_MM, e.friction.roughnessM * 1000))} ${perCent(e.entryK + e.exitK)} OPEN`,
        );
        return id;
      }
      case 'parallel':
        return e.ways.map((way) => this.series(from, to, way))[0] ?? '';
      case 'fan':
        return this.fan(from, to, e);
      default:
        throw new Error(`${e.kind} has no twin here`);
    }
  }

  series(from: string, to: string, elements: readonly Element[]): string {
    let [at, first] = [from, ''];
    elements.forEach((e, i) => {
      const next = i === elements.length - 1 ? to : this.junction(this.id('J'));
      const id = this.element(at, next, e);
      if (first === '') first = id;
      at = next;
    });
    return first;
  }

  /** Elements with the leaks of the nodes between them. Answers the first link. */
  chain(from: string, to: string, { elements, leaksM2 }: Chain): string {
    let [at, first] = [from, ''];
    elements.forEach((e, i) => {
      const last = i === elements.length - 1;
      const next = last ? to : this.junction(this.id('J'));
      const id = this.element(at, next, e);
      if (first === '') first = id;
      const leak = leaksM2[i + 1] ?? 0;
      if (!last && leak > 0) this.stub('ROOM', next, diameterOf(leak), 1 / 0.61 ** 2);
      at = next;
    });
    return first;
  }
}

export interface TwinNetwork {
  readonly inp: string;
  /** The links whose flows add up to the tool flow. */
  readonly toolLinks: readonly string[];
  /** Twin of the suction before the trunk: its junction, null where the trunk starts in the room. */
  readonly junction: string | null;
}

/** The path as a network file. Throws for what has no twin there. */
export const twinNetwork = ({ mouths, trunk, air }: AirPath): TwinNetwork => {
  const w = new Writer(air);
  const start = mouths.length === 0 ? 'ROOM' : w.junction('Y');
  const toolLinks =
    mouths.length === 0
      ? [w.chain('ROOM', 'OUT', trunk)]
      : [...mouths.map((m) => w.chain('ROOM', 'Y', m)), (w.chain('Y', 'OUT', trunk), '')].filter((x) => x !== '');
  const yLeak = mouths.length === 0 ? 0 : (trunk.leaksM2[0] ?? 0);
  if (yLeak > 0) w.stub('ROOM', 'Y', diameterOf(yLeak), 1 / 0.61 ** 2);
  const { junctions, pipes, valves, curves, pumps } = w.net;
  const inp = [
    '[TITLE]\n[JUNCTIONS]',
    ...junctions,
    '[RESERVOIRS]',
    ' ROOM 0',
    ' OUT 0',
    '[PIPES]',
    ...pipes,
    '[PUMPS]',
    ...pumps,
    '[VALVES]',
    ...valves,
    '[CURVES]',
    ...curves,
    '[OPTIONS]',
    ' UNITS LPS',
    ' HEADLOSS D-W',
    ` VISCOSITY ${perCent(air.viscosityPaS / air.densityKgM3 / WATER_M2S)}`,
    ' SPECIFIC GRAVITY 1',
    ' TRIALS 500',
    ' ACCURACY 0.00001',
    ' UNBALANCED STOP',
    '[TIMES]',
    ' DURATION 0',
    '[END]',
    '',
  ].join('\n');
  return { inp, toolLinks, junction: start === 'Y' ? 'Y' : null };
};

export interface TwinSolver {
  /** Solves the open network once more and answers the tool flow in m3/s. */
  readonly solve: () => number;
  /** Gauge pressure of a junction after `solve`, Pa. */
  readonly pressurePa: (junction: string) => number;
  readonly close: () => void;
}

/** Opens a network in the general solver. */
export const openTwin = async ({ inp, toolLinks }: TwinNetwork, air: PathAir): Promise<TwinSolver> => {
  const workspace = new Workspace();
  await workspace.loadModule();
  workspace.writeFile('net.inp', inp);
  const project = new Project(workspace);
  project.open('net.inp', 'report.rpt', 'out.bin');
  project.openH();
  const links = toolLinks.map((id) => project.getLinkIndex(id));
  return {
    solve: () => {
      project.initH(InitHydOption.NoSave);
      project.runH();
      return links.reduce((sum, i) => sum + project.getLinkValue(i, LinkProperty.Flow), 0) / 1000;
    },
    pressurePa: (id) => project.getNodeValue(project.getNodeIndex(id), NodeProperty.Head) * air.densityKgM3 * G,
    close: () => {
      project.closeH();
      project.close();
    },
  };
};
