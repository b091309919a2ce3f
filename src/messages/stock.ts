/** What moved a part, beside who did. */
export const sayMovementOf = (
  of: { readonly kind: 'none' } | { readonly kind: 'change' | 'job' | 'case'; readonly id: number },
): string => (of.kind === 'none' || of.kind === 'change' ? '' : `${of.kind} ${of.id}`);
