/** A single-key shortcut, as the help sheet prints it. */
export interface Shortcut {
  readonly key: string;
  readonly does: string;
}

export const SITE_KEYS: readonly Shortcut[] = [
  { key: '/', does: 'Jump to a machine by its tag' },
  { key: 'r', does: 'Round: what is due' },
  { key: 'w', does: 'Plan of the yard, by weeks' },
  { key: 's', does: 'Stock' },
  { key: 'k', does: 'Work: which machine for it' },
  { key: 'g', does: 'Dusts: the register' },
  { key: 'u', does: 'Metric or US units' },
  { key: 'd', does: 'Day or night' },
  { key: '?', does: 'This sheet' },
];

export const MACHINE_KEYS: readonly Shortcut[] = [
  { key: 'm', does: 'Measure' },
  { key: 'f', does: 'Find the fault: what is wrong, which test next' },
  { key: 'c', does: 'Change a part' },
  { key: 'p', does: 'Plan: when each stage is due' },
  { key: 'a', does: 'Air path: model, fan curve, filters' },
  { key: 'l', does: "File: the machine's log" },
];

export type KeyAction =
  { readonly kind: 'go'; readonly to: string } | { readonly kind: 'jump' | 'help' | 'units' | 'theme' };

/** The action of a key on this page; null for other keys. Tag is the open machine, if any. */
export const actionOfKey = (key: string, tag: string | null): KeyAction | null => {
  const machine = tag === null ? null : `/m/${encodeURIComponent(tag)}`;
  switch (key) {
    case '/':
      return { kind: 'jump' };
    case '?':
      return { kind: 'help' };
    case 'r':
      return { kind: 'go', to: '/round' };
    case 'w':
      return { kind: 'go', to: '/plan' };
    case 's':
      return { kind: 'go', to: '/stock' };
    case 'k':
      return { kind: 'go', to: '/work' };
    case 'g':
      return { kind: 'go', to: '/dusts' };
    case 'u':
      return { kind: 'units' };
    case 'd':
      return { kind: 'theme' };
    case 'm':
      return machine === null ? null : { kind: 'go', to: `${machine}/measure` };
    case 'f':
      return machine === null ? null : { kind: 'go', to: `${machine}/find` };
    case 'c':
      return machine === null ? null : { kind: 'go', to: `${machine}/change` };
    case 'p':
      return machine === null ? null : { kind: 'go', to: `${machine}/plan` };
    case 'a':
      return machine === null ? null : { kind: 'go', to: `${machine}/path` };
    case 'l':
      return machine === null ? null : { kind: 'go', to: `${machine}/file` };
    default:
      return null;
  }
};
