import { capital } from './words';

interface PlanEventInput {
  readonly tag: string;
  readonly name: string;
  readonly place: string;
  readonly stages: readonly string[];
  readonly parts: readonly { readonly name: string; readonly bin: string }[];
}

/** An opening of the plan in a line, and what to bring. */
export const sayEvent = ({
  tag,
  name,
  place,
  stages,
  parts,
}: PlanEventInput): { readonly summary: string; readonly text: string } => ({
  summary: `${tag}: ${capital(stages.join(' and '))}`,
  text: [
    `${name}, ${place}.`,
    ...parts.map((p) => `${p.name}, bin ${p.bin}.`),
    'Planned by Moorwind; it may move as readings come in.',
  ].join(' '),
});
