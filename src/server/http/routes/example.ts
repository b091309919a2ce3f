// Parts of the examples that the OpenAPI document shows.

/** The sender's name for one action, and the initials it is signed with. */
export const ACTION = { clientId: '3f0c6c1e-6a52-4c0e-9d6e-2b8f5a1c7d90', by: 'MK' } as const;

/** A statement of dust without questions to answer. */
export const DUST = {
  text: 'house dust',
  confirmed: [],
  denied: [],
  answers: {},
  own: null,
  lowerBecause: '',
} as const;
