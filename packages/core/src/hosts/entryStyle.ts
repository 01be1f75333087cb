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

/** What is known of how a panel wants names and values; what is absent, nobody has said or seen yet. */
export type KnownStyle = { readonly [Field in keyof EntryStyle]?: EntryStyle[Field] | undefined };

/** A panel as its sheets are written: what is known of it, and for the rest what most panels want. */
export function styleOf(known: KnownStyle | null): EntryStyle {
  return Object.entries(known ?? {}).reduce((style, [field, value]) => (value === undefined ? style : { ...style, [field]: value }), USUAL_STYLE);
}

/** Habits by which a record is typed in one way or another: while one of them is not known, the sheet shows both ways. */
const TELLING = ['names', 'targetDot'] as const;

/** Whether everything is known by which a sheet is written for a panel. */
export function isStyleKnown(known: KnownStyle | null): boolean {
  return TELLING.every((field) => known?.[field] !== undefined);
}

export const STYLE_NAMES = ['relative', 'whole'] as const;
export const STYLE_APEX = ['@', 'empty', 'whole'] as const;
export const STYLE_DOT = ['required', 'refused', 'either'] as const;
export const STYLE_TEXT = ['bare', 'quoted'] as const;
export const STYLE_LONG = ['whole', 'parts'] as const;
export const STYLE_PRIORITY = ['own field', 'in value'] as const;

/** What a sheet says above its rows of how they are written. */
export function styleSentence(known: KnownStyle | null): string {
  if (isStyleKnown(known)) return 'Every field is written as this panel wants it.';
  return 'Nobody has said yet how this panel wants names and values. Each row has the plain form first, and below it the whole one with a dot at its end. Where the panel shows the domain twice once a row is saved, it wants the other form.';
}
