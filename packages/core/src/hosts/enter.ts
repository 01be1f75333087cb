import { RRsetText } from '../dns/record';
import { joined, strings } from '../slips/records/text';
import { EntryStyle } from './entryStyle';

/** One record as it is typed into a panel. `priority` undefined: it has no field of its own; `ttl` undefined: none can be given. */
export interface Entry {
  readonly name: string;
  readonly type: string;
  readonly priority: string | undefined;
  readonly value: string;
  readonly ttl: string | undefined;
  /** Whether the host is to front its name; undefined where it fronts none, or the type cannot be. */
  readonly front?: 'on' | 'off' | undefined;
}

/** Types whose last word is a name, and whether a number before it is a priority of its own. */
const TARGETS: Readonly<Record<string, 'priority' | 'none'>> = { CNAME: 'none', NS: 'none', PTR: 'none', DNAME: 'none', MX: 'priority', SRV: 'priority' };
/** Octets of one character-string (RFC 1035 §3.3). */
export const PART = 255;

/**
 * The records of a set, each as its panel wants it typed, in the order of its data. `zone` absolute with final dot.
 *
 *     enter(USUAL_STYLE, 'choir.example.', { owner: 'choir.example.', type: 'MX', ttl: 300, data: ['10 mx1.post.example.'] })
 *     // [{ name: '@', type: 'MX', priority: '10', value: 'mx1.post.example', ttl: '300' }]
 */
export function enter(style: EntryStyle, zone: string, set: RRsetText): Entry[] {
  const base = { name: nameField(style, zone, set.owner), type: set.type, ttl: panelTtl(style, set.ttl)?.toString() };
  return set.data.map((data): Entry => {
    if (set.type === 'TXT' || set.type === 'SPF') return { ...base, priority: undefined, value: textField(style, data) };
    const kind = TARGETS[set.type];
    if (kind === undefined) return { ...base, priority: undefined, value: data };
    const words = data.split(' ');
    const target = targetField(style, words.pop()!);
    if (kind === 'none' || style.priority === 'in value') return { ...base, priority: undefined, value: [...words, target].join(' ') };
    return { ...base, priority: words[0]!, value: [...words.slice(1), target].join(' ') };
  });
}

function nameField({ names, apex }: EntryStyle, zone: string, owner: string): string {
  const whole = plain(owner);
  if (owner.toLowerCase() === zone.toLowerCase()) return apex === '@' ? '@' : apex === 'empty' ? '' : whole;
  return names === 'whole' ? whole : owner.slice(0, -zone.length - 1);
}

/** Where it makes no difference the dot is left out: fewer things can go wrong. Of the root it is the whole name (RFC 7505 §3). */
function targetField({ targetDot }: EntryStyle, target: string): string {
  return targetDot === 'required' || target === '.' ? target : plain(target);
}

/** Parts are told apart by quotes, also where a short text has none; where they are taken, a text stays in the parts that it has. */
function textField({ text, longText }: EntryStyle, data: string): string {
  const whole = joined(data);
  const quoted = (part: string): string => `"${part.replace(/["\\]/g, '\\$&')}"`;
  if (longText === 'parts' && whole.length > PART) return strings(data).map(quoted).join(' ');
  if (text === 'bare') return whole;
  return whole.length > PART ? quoted(whole) : strings(data).map(quoted).join(' ');
}

/** What a panel lets be chosen of TTLs. */
export type PanelTtls = Pick<EntryStyle, 'ttls' | 'leastTtl'>;

/** The nearest that can be chosen and is not longer, in seconds; the least where all are. Undefined: none can be given. */
export function panelTtl({ ttls, leastTtl = 0 }: PanelTtls, ttl: number): number | undefined {
  if (ttls === null) return undefined;
  if (ttls.length === 0) return Math.max(ttl, leastTtl);
  const fitting = ttls.filter((one) => one <= ttl);
  return fitting.length > 0 ? Math.max(...fitting) : Math.min(...ttls);
}

const plain = (name: string): string => name.replace(/\.$/, '');
