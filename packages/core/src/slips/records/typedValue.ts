import { fromUtf8 } from '../../dns/bytes';
import { strings, unescaped } from './text';

/** One value of a set, cut into the fields in which a panel asks for it. */
export interface TypedValue {
  /** As it stands in a zone file. */
  readonly data: string;
  readonly fields: readonly Field[];
}

export interface Field {
  /** As people call it: "priority", "target". */
  readonly name: string;
  /** As a person reads it: names without their final dot, texts joined and without quotes. */
  readonly text: string;
}

/** The fields of types that have several, in the order of zone files; of the others the whole value is one. */
const FIELDS: Readonly<Record<string, readonly string[]>> = {
  MX: ['priority', 'target'],
  SRV: ['priority', 'weight', 'port', 'target'],
  CAA: ['flags', 'tag', 'value'],
  TLSA: ['usage', 'selector', 'matching type', 'data'],
  SMIMEA: ['usage', 'selector', 'matching type', 'data'],
  SSHFP: ['algorithm', 'fingerprint type', 'fingerprint'],
  DS: ['key tag', 'algorithm', 'digest type', 'digest'],
  CNAME: ['target'],
  DNAME: ['target'],
  NS: ['target'],
  PTR: ['target'],
  A: ['address'],
  AAAA: ['address'],
  TXT: ['text'],
  SPF: ['text'],
};
/** Types whose text counts letter by letter; in all others letter case says nothing. */
const EXACT: ReadonlySet<string> = new Set(['TXT', 'SPF']);

/**
 * A value as it stands in a zone file, field by field.
 *
 *     typedValue('MX', '10 mail.choir.example.').fields  // priority 10, target mail.choir.example
 *     typedValue('TXT', '"v=spf1 " "-all"').fields       // text v=spf1 -all
 */
export function typedValue(type: string, data: string): TypedValue {
  const names = FIELDS[type] ?? ['value'];
  if (EXACT.has(type)) return { data, fields: [{ name: 'text', text: readable(strings(data).join('')) }] };
  const words = data.split(' ');
  const last = words.slice(names.length - 1).join(' ');
  return {
    data,
    fields: names.map((name, at) => {
      const text = at < names.length - 1 ? (words[at] ?? '') : last;
      return { name, text: name === 'target' ? plainTarget(text) : name === 'value' ? readable(strings(text).join('')) : text };
    }),
  };
}

/** What stands last: the target, address, text or data. */
export const lastOf = (value: TypedValue): string => value.fields.at(-1)!.text;

/** Says of a type whether its values end in a name. */
export const hasTarget = (type: string): boolean => FIELDS[type]?.at(-1) === 'target';

/** Says whether two values of a type are the same to whoever asks: the case of letters counts in texts alone. */
export function sameValue(type: string, a: string, b: string): boolean {
  return EXACT.has(type) ? a === b : a.toLowerCase() === b.toLowerCase();
}

/** Those of `a` that are not among `b`. */
export const lacking = (type: string, a: readonly string[], b: readonly string[]): string[] => a.filter((text) => !b.some((one) => sameValue(type, text, one)));

/** A name of a zone file as somebody typed it: without escapes and final dot. */
function plainTarget(text: string): string {
  const name = text.endsWith('.') && !text.endsWith('\\.') ? text.slice(0, -1) : text;
  return readable(unescaped(name));
}

/** Characters that stand for octets, as UTF-8 where they are. */
function readable(octets: string): string {
  if (!/[\u0080-\u00ff]/.test(octets) || /[\u0100-\uffff]/.test(octets)) return octets;
  return fromUtf8(Uint8Array.from(octets, (one) => one.charCodeAt(0)));
}

/** Characters of a value that a sentence holds. */
const LONGEST = 90;

/**
 * A value as a sentence names it: a long one is shortened in its middle.
 *
 *     inSentence('v=DKIM1; k=rsa; p=MIGf…QAB')
 */
export function inSentence(text: string): string {
  return text.length <= LONGEST ? text : `${text.slice(0, LONGEST - 31)}…${text.slice(-30)}`;
}
