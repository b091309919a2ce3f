interface Named {
  readonly tag: string;
  readonly name: string;
  readonly place: string;
  readonly kindText: string;
}

const fold = (text: string): string => text.toLowerCase().replace(/[\s-]/g, '');

/**
 * The tag in a typed or scanned text: of an address on a label only the tag.
 * @example scannedTag('http://yard:4321/m/CR-04') // 'CR-04'
 */
export const scannedTag = (typed: string): string => {
  const [, tag] = /^https?:\/\/[^/]+\/m\/([^/?#]+)/i.exec(typed.trim()) ?? [];
  if (tag === undefined) return typed;
  try {
    return decodeURIComponent(tag);
  } catch {
    return typed;
  }
};

/** Whether a tag matches a typed text: "4", "cr04", "turn", "laminate". */
export const matches = (machine: Named, query: string): boolean => {
  const wanted = fold(scannedTag(query));
  if (wanted === '') return true;
  const number = /^\d+$/.test(wanted) ? Number(wanted) : null;
  const ownNumber = Number(/(\d+)$/.exec(machine.tag)?.[1] ?? Number.NaN);
  if (number !== null && number === ownNumber) return true;
  return [machine.tag, machine.name, machine.place, machine.kindText].some((t) => fold(t).includes(wanted));
};
