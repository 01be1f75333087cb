/** The most weighty first: what times rest on, then what is only watched. */
export const LOOK_KINDS = ['parent', 'old', 'new', 'drift', 'lookouts', 'website'] as const;
export type LookKind = (typeof LOOK_KINDS)[number];
