/** How one host's panel wants names and values typed. */
export interface EntryStyle {
  /** `relative`: below the domain, which the panel appends; `whole`: the name as it is asked for. */
  readonly names: 'relative' | 'whole';
  /** What stands for the domain itself. */
  readonly apex: '@' | 'empty' | 'whole';
  /** A dot at the end of a target that is a whole name; `either`: it makes no difference. */
  readonly targetDot: 'required' | 'refused' | 'either';
  /** Text with quotes around it, or without. */
  readonly text: 'bare' | 'quoted';
  /** Text of more than 255 octets: as one, or in parts. */
  readonly longText: 'whole' | 'parts';
  /** Priority of MX and SRV in a field of its own, or before the value. */
  readonly priority: 'own field' | 'in value';
  /** Seconds that can be chosen; empty: any can be typed. null: a TTL cannot be given. */
  readonly ttls: readonly number[] | null;
  /** Seconds: where any TTL can be typed, a lower one is refused, or taken for this one. */
  readonly leastTtl?: number;
  /** Types that it cannot hold. */
  readonly lacks?: readonly string[];
}

/** What most panels want; taken where nothing is known of one. */
export const USUAL_STYLE: EntryStyle = {
  names: 'relative',
  apex: '@',
  targetDot: 'either',
  text: 'bare',
  longText: 'whole',
  priority: 'own field',
  ttls: [],
};

export const STYLE_NAMES = ['relative', 'whole'] as const;
export const STYLE_APEX = ['@', 'empty', 'whole'] as const;
export const STYLE_DOT = ['required', 'refused', 'either'] as const;
export const STYLE_TEXT = ['bare', 'quoted'] as const;
export const STYLE_LONG = ['whole', 'parts'] as const;
export const STYLE_PRIORITY = ['own field', 'in value'] as const;

/** What to watch for at a panel of which nobody has said how it wants names: the sheet has the plain form, and this says when the whole one is right. */
export function unknownPanelWords(domain: string): string {
  return `Nobody has said yet how this panel wants names and values. They stand here as most panels take them: www, and targets without a dot at the end. Where a panel shows the domain twice once a row is saved, type the name whole with a dot at its end, www.${domain}. for www, and targets in the same way.`;
}
