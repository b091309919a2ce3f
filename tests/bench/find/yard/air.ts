// The air of the other yard: not the engine's network, nor its formulas. Every stage takes a power of the flow through
// it, every hole a power of the pressure at it, anywhere along a stage; the fan has an exponent of its own. Solved by
// halving, one unknown.

/** One stage as air meets it: drop = a q^n, Pa with m3/s. */
export interface Segment {
  readonly a: number;
  readonly n: number;
  /** Like openings side by side that share the flow. */
  readonly ways: number;
}

/** A hole to the room, `along` a share of the way through the stage at `at`: q = c p^m. */
export interface Hole {
  readonly at: number;
  readonly along: number;
  readonly c: number;
  readonly m: number;
}

export interface OwnFan {
  readonly at: number;
  readonly p0Pa: number;
  readonly qMaxM3s: number;
  readonly bend: number;
  /** Of its own full speed. */
  readonly speed: number;
}

export interface OwnAir {
  readonly segments: readonly Segment[];
  readonly holes: readonly Hole[];
  readonly fan: OwnFan;
}

/** Where air comes in: open to the room at a gap between stages, or sealed there. */
export interface Mouth {
  readonly gap: number;
  readonly sealed: boolean;
}

export interface OwnPoint {
  /** Through the opening; 0 where it is sealed. */
  readonly entersM3s: number;
  readonly fanM3s: number;
  /** Below the room at each gap, Pa. */
  readonly belowPa: readonly number[];
  readonly dropsPa: readonly number[];
}

const HALVINGS = 60;

const liftPa = ({ p0Pa, qMaxM3s, bend, speed }: OwnFan, q: number): number =>
  p0Pa * speed * speed * (1 - (Math.max(0, q) / (qMaxM3s * speed)) ** bend);

/** Walks the air from a gap to the room; what is left at the end is 0 at the true value of the unknown. */
const walk = (air: OwnAir, { gap }: Mouth, start: { q: number; below: number }) => {
  let { q, below } = start;
  const belowPa = air.segments.map(() => 0);
  const dropsPa = air.segments.map(() => 0);
  belowPa[gap] = below;
  let fanM3s = 0;
  for (let i = gap; i < air.segments.length; i += 1) {
    if (i === air.fan.at) {
      // A collar in front of the fan leaks on its suction side.
      for (const h of air.holes) if (h.at === i) q += Math.sign(below) * h.c * Math.abs(below) ** h.m;
      fanM3s = q;
      below -= liftPa(air.fan, q);
    } else {
      const s = air.segments[i] as Segment;
      const holes = air.holes.filter((h) => h.at === i).sort((x, y) => x.along - y.along);
      let done = 0;
      for (const h of [...holes, null]) {
        const share = (h?.along ?? 1) - done;
        const drop = share * s.a * Math.max(0, q / s.ways) ** s.n;
        below += drop;
        dropsPa[i] = (dropsPa[i] ?? 0) + drop;
        done += share;
        if (h) q += Math.sign(below) * h.c * Math.abs(below) ** h.m;
      }
    }
    belowPa[i + 1] = below;
  }
  return { left: below, fanM3s, belowPa, dropsPa };
};

/** What the machine settles at. */
export const settle = (air: OwnAir, mouth: Mouth): OwnPoint => {
  const most = mouth.sealed ? air.fan.p0Pa * air.fan.speed ** 2 : air.fan.qMaxM3s * air.fan.speed;
  let [low, high] = [0, most];
  const of = (x: number) => walk(air, mouth, mouth.sealed ? { q: 0, below: x } : { q: x, below: 0 });
  for (let i = 0; i < HALVINGS; i += 1) {
    const middle = (low + high) / 2;
    // Above the room at the end: more can come in, or be drawn.
    if (of(middle).left < 0) low = middle;
    else high = middle;
  }
  const x = (low + high) / 2;
  const { fanM3s, belowPa, dropsPa } = of(x);
  return { entersM3s: mouth.sealed ? 0 : x, fanM3s, belowPa, dropsPa };
};
