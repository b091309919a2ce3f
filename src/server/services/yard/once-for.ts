/**
 * The values of `make`, each made once for its key and kept as long as the key lives. A key is an object that a write
 * replaces, such as a yard or a machine's status, so a value is never older than its records.
 */
export const onceFor = <K extends object, V, A extends readonly unknown[]>(
  make: (key: K, ...rest: A) => V,
): ((key: K, ...rest: A) => V) => {
  const made = new WeakMap<K, { readonly value: V }>();
  return (key, ...rest) => {
    const known = made.get(key) ?? { value: make(key, ...rest) };
    made.set(key, known);
    return known.value;
  };
};
