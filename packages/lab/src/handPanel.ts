import { Name, RRset, TYPE_CODES, parseRdata, printRdata, typeCode, typeMnemonic } from '@wanderon/core';
import { AuthZone } from './authZone';
import { DnsHost } from './dnsHost';
import { escapeHtml, page } from './page';

/** What a panel does with what is typed into it. It stores to the letter; nothing is set right. */
export interface PanelHabits {
  readonly company: string;
  /** The zone is appended to every name that is typed, to none, or to those that do not end in it. */
  readonly appends: 'always' | 'never' | 'where it lacks';
  /** What stands for the domain itself; null: its whole name. */
  readonly apex: string | null;
  /** A dot at the end of a target: refused, or without it the zone is appended, or it makes no difference. */
  readonly dot: 'refused' | 'needed' | 'either';
  /** Text is taken with its quotes, as in a zone file; else every character is text. `long`: only a text of several parts has them. */
  readonly quotes: 'taken' | 'text' | 'long';
  /** Priority of MX and SRV has a field, or stands before the value. */
  readonly priority: 'field' | 'value';
  /** Seconds that can be chosen; null: any; a number: nothing can be said, and it is this. */
  readonly ttls: readonly number[] | number | null;
  /** Types that it does not list. */
  readonly lacks: readonly string[];
}

const habits = (company: string, more: Partial<PanelHabits>): PanelHabits => ({
  ...{ company, appends: 'always', apex: '@', dot: 'either', quotes: 'text', priority: 'field', ttls: null, lacks: [] },
  ...more,
});

export const PANELS: Readonly<Record<string, PanelHabits>> = {
  pebbledock: habits('Pebbledock DNS', { dot: 'refused', ttls: [300, 3600, 86_400] }),
  brackenfold: habits('Brackenfold DNS', { appends: 'never', apex: '', dot: 'needed', quotes: 'taken', ttls: [120, 1800, 43_200] }),
  heronsgate: habits('Heronsgate DNS', { apex: '', priority: 'value', ttls: 3600 }),
  copperkiln: habits('Copperkiln DNS', { appends: 'never', apex: null, dot: 'refused', quotes: 'long' }),
  driftwood: habits('Driftwood Zones', { dot: 'needed', quotes: 'taken', priority: 'value', ttls: [60, 600, 7200] }),
  millrace: habits('Millrace DNS', { appends: 'where it lacks', apex: '@', quotes: 'taken', ttls: [900, 14_400] }),
  rookery: habits('Rookery DNS', { appends: 'where it lacks', apex: null, dot: 'needed', quotes: 'long', priority: 'value', ttls: 600 }),
  hollowell: habits('Hollowell', { ttls: [300, 3600] }),
  fernlight: habits('Fernlight', { dot: 'needed' }),
  tollgate: habits('Tollgate DNS', { dot: 'refused', ttls: [300, 1800], lacks: ['TLSA', 'CAA'] }),
};

const TYPES = ['A', 'AAAA', 'CNAME', 'MX', 'TXT', 'SRV', 'CAA', 'NS', 'TLSA'];
/** Types with a priority field, and those whose last word is a target. */
const PRIORITY = new Set(['MX', 'SRV']);
const TARGET = new Set(['CNAME', 'MX', 'SRV', 'NS']);

export interface Typed {
  readonly name: string;
  readonly type: string;
  readonly priority: string;
  readonly value: string;
  readonly ttl: string;
}

/** Adds what was typed to a zone, as this panel would. Throws a RangeError with what the panel says where it refuses. */
export function add(habits: PanelHabits, zone: AuthZone, typed: Typed): void {
  if (habits.lacks.includes(typed.type)) throw new RangeError(`there is no type ${typed.type} here`);
  const owner = Name.parse(ownerOf(habits, zone.origin.toString(), typed.name.trim()));
  if (!owner.isAtOrBelow(zone.origin)) throw new RangeError(`${typed.name.trim()} is not in this zone`);
  const type = typeCode(typed.type)!;
  const data = parseRdata(type, valueOf(habits, typed, zone.origin.toString()));
  const [others, alias] = [zone.all().filter((set) => set.owner.equals(owner)), TYPE_CODES.CNAME];
  if (others.some((set) => (set.type === alias) !== (type === alias))) throw new RangeError('an alias cannot stand beside other records: delete those first');
  const known = zone.get(owner, type)?.data ?? [];
  const ttl = typeof habits.ttls === 'number' ? habits.ttls : Number(typed.ttl);
  zone.put(owner, type, ttl, type === alias ? [data] : [...known, data]);
}

function ownerOf({ appends, apex }: PanelHabits, origin: string, name: string): string {
  if (apex !== null && name === apex) return origin;
  const isWhole = `${name}.`.toLowerCase() === origin.toLowerCase() || `${name}.`.toLowerCase().endsWith(`.${origin.toLowerCase()}`);
  return appends === 'never' || (appends === 'where it lacks' && isWhole) ? `${name}.` : `${name}.${origin}`;
}

export function remove(zone: AuthZone, owner: string, type: string, data: string): void {
  const [name, code] = [Name.parse(owner), typeCode(type)!];
  const set = zone.get(name, code);
  if (!set) throw new RangeError('this record is not there any more');
  zone.put(
    name,
    code,
    set.ttl,
    set.data.filter((one) => printRdata(code, one) !== data),
  );
}

function valueOf(habits: PanelHabits, { type, priority, value }: Typed, origin: string): string {
  const text = value.trim();
  if (type === 'TXT') {
    // Several quoted parts, each of them closed.
    const inParts = /^"(?:[^"\\]|\\.)*"(?:\s+"(?:[^"\\]|\\.)*")+$/s.test(text);
    if (habits.quotes === 'taken' || (habits.quotes === 'long' && inParts)) return text;
    return (text.match(/.{1,255}/gs) ?? ['']).map((part) => `"${part.replace(/["\\]/g, '\\$&')}"`).join(' ');
  }
  const own = PRIORITY.has(type) && habits.priority === 'field' ? [priority.trim() || '0'] : [];
  const words = [...own, ...text.split(/\s+/)];
  if (!TARGET.has(type)) return words.join(' ');
  const target = words.pop()!;
  if (habits.dot === 'refused' && target.endsWith('.') && target !== '.') throw new RangeError(`${target} must not end in a dot`);
  return [...words, target.endsWith('.') ? target : habits.dot === 'needed' ? `${target}.${origin}` : `${target}.`].join(' ');
}

/** The pages of one panel. */
export function panelPage(id: string, host: DnsHost, zoneName: string | null): string {
  const habits = PANELS[id]!;
  const zone = zoneName === null ? undefined : host.zones.get(Name.parse(zoneName).key);
  if (!zone) {
    const list = [...host.zones.values()].map(({ origin }) => origin.toString()).filter((name) => !name.startsWith(`${id}.`));
    const links = list.map((name) => `<li><a href="/panel/${id}?zone=${encodeURIComponent(name)}">${escapeHtml(name.replace(/\.$/, ''))}</a></li>`);
    return page(
      'Domains',
      habits.company,
      `<form method="post" action="/panel/${id}/domain"><label>Domain <input type="text" name="name"></label> <button>Add domain</button></form><ul>${links.join('')}</ul>`,
    );
  }
  const origin = zone.origin.toString();
  const locked = (set: RRset): boolean => set.owner.equals(zone.origin) && (set.type === TYPE_CODES.SOA || set.type === TYPE_CODES.NS);
  const rows = zone.all().flatMap((set) =>
    set.data.map((data) => {
      const [owner, type, text] = [set.owner.toString(), typeMnemonic(set.type), printRdata(set.type, data)];
      const hidden = Object.entries({ zone: origin, owner, type, data: text }).map(
        ([name, value]) => `<input type="hidden" name="${name}" value="${escapeHtml(value)}">`,
      );
      const button = locked(set)
        ? '<small>locked</small>'
        : `<form method="post" action="/panel/${id}/delete">${hidden.join('')}<button>Delete</button></form>`;
      return `<tr><td>${escapeHtml(owner.replace(/\.$/, ''))}</td><td>${type}</td><td style="word-break:break-all">${escapeHtml(text)}</td><td>${set.ttl}</td><td>${button}</td></tr>`;
    }),
  );
  const options = (all: readonly (string | number)[]): string => all.map((one) => `<option>${one}</option>`).join('');
  const form = `<form method="post" action="/panel/${id}/add"><input type="hidden" name="zone" value="${escapeHtml(origin)}">
<p><label>Host <input type="text" name="name"></label></p><p><label>Type <select name="type">${options(TYPES.filter((type) => !habits.lacks.includes(type)))}</select></label>
${habits.priority === 'field' ? '<label>Priority <input type="text" name="priority" style="width:4rem"></label>' : ''} ${secondsField(habits)}</p>
<p><label>Points to <input type="text" name="value"></label></p><button>Add record</button></form>`;
  return page(origin.replace(/\.$/, ''), habits.company, `${form}<table>${rows.join('')}</table><p><a href="/panel/${id}">All domains</a></p>`);
}

function secondsField({ ttls }: PanelHabits): string {
  if (typeof ttls === 'number') return '';
  if (ttls === null) return '<label>Seconds <input type="text" name="ttl" style="width:6rem"></label>';
  return `<label>Seconds <select name="ttl">${ttls.map((one) => `<option>${one}</option>`).join('')}</select></label>`;
}
