/** A stream of numbers that is the same for the same seed. */
export interface Random {
  /** 0 to 1. */
  readonly uniform: () => number;
  /** Mean 0, standard deviation 1. */
  readonly normal: () => number;
}

/** The mulberry32 generator with Box-Muller normals: small, seeded, the same everywhere. Source: mulberry32, public domain; Box and Muller 1958. */
export const seeded = (seed: number): Random => {
  let state = seed >>> 0;
  const uniform = () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  };
  const normal = () => Math.sqrt(-2 * Math.log(1 - uniform())) * Math.cos(2 * Math.PI * uniform());
  return { uniform, normal };
};
