interface Named {
  readonly tag: string;
  readonly name: string;
  readonly place: string;
  readonly kindText: string;
}

const fold = (text: string): string => text.toLowerCase().replace(/[\s-]/g, '');

/** Whether a tag answers to what was typed: "4", "cr04", "turn", "laminate". */
export const matches = (machine: Named, query: string): boolean => {
  const wanted = fold(query);
  if (wanted === '') return true;
  const number = /^\d+$/.test(wanted) ? Number(wanted) : null;
  const ownNumber = Number(/(\d+)$/.exec(machine.tag)?.[1] ?? Number.NaN);
  if (number !== null && number === ownNumber) return true;
  return [machine.tag, machine.name, machine.place, machine.kindText].some((t) => fold(t).includes(wanted));
};
