/** Rows by a number of theirs, in their order; each row is looked at once. */
export const grouped = <R>(rows: readonly R[], keyOf: (row: R) => number): ReadonlyMap<number, readonly R[]> => {
  const groups = new Map<number, R[]>();
  for (const row of rows) {
    const key = keyOf(row);
    const group = groups.get(key);
    if (group) group.push(row);
    else groups.set(key, [row]);
  }
  return groups;
};
