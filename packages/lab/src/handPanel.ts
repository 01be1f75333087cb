import { Name, RRset, TYPE_CODES, parseRdata, printRdata, typeCode, typeMnemonic } from '@wanderon/core';
import { AuthZone } from './authZone';
import { DnsHost } from './dnsHost';
import { escapeHtml, page } from './page';

/** What a panel does with what is typed into it. It stores to the letter; nothing is set right. */
export interface PanelHabits {
  readonly company: string;
  /** The zone is appended to every name that is typed; else names are taken as they stand. */
  readonly appends: boolean;
  /** What stands for the domain itself. */
  readonly apex: string;
  /** A dot at the end of a target: refused, or without it the zone is appended. */
  readonly dot: 'refused' | 'needed';
  /** Text is taken with its quotes, as in a zone file; else every character is text. */
  readonly quotes: boolean;
  /** Seconds that can be chosen. */
  readonly ttls: readonly number[];
}

export const PANELS: Readonly<Record<string, PanelHabits>> = {
  pebbledock: { company: 'Pebbledock DNS', appends: true, apex: '@', dot: 'refused', quotes: false, ttls: [300, 3600, 86_400] },
  brackenfold: { company: 'Brackenfold DNS', appends: false, apex: '', dot: 'needed', quotes: true, ttls: [120, 1800, 43_200] },
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
  const origin = zone.origin.toString();
  const name = typed.name.trim();
  const owner = Name.parse(name === habits.apex ? origin : habits.appends ? `${name}.${origin}` : `${name}.`);
  if (!owner.isAtOrBelow(zone.origin)) throw new RangeError(`${name} is not in this zone`);
  const type = typeCode(typed.type)!;
  const data = parseRdata(type, valueOf(habits, typed, origin));
  const [others, alias] = [zone.all().filter((set) => set.owner.equals(owner)), TYPE_CODES.CNAME];
  if (others.some((set) => (set.type === alias) !== (type === alias))) throw new RangeError('an alias cannot stand beside other records: delete those first');
  const known = zone.get(owner, type)?.data ?? [];
  zone.put(owner, type, Number(typed.ttl), type === alias ? [data] : [...known, data]);
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
  if (type === 'TXT') return habits.quotes ? text : (text.match(/.{1,255}/gs) ?? ['']).map((part) => `"${part.replace(/["\\]/g, '\\$&')}"`).join(' ');
  const words = [...(PRIORITY.has(type) ? [priority.trim() || '0'] : []), ...text.split(/\s+/)];
  if (!TARGET.has(type)) return words.join(' ');
  const target = words.pop()!;
  if (habits.dot === 'refused' && target.endsWith('.')) throw new RangeError(`${target} must not end in a dot`);
  return [...words, target.endsWith('.') ? target : habits.dot === 'refused' ? `${target}.` : `${target}.${origin}`].join(' ');
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
<p><label>Host <input type="text" name="name"></label></p><p><label>Type <select name="type">${options(TYPES)}</select></label>
<label>Priority <input type="text" name="priority" style="width:4rem"></label> <label>Seconds <select name="ttl">${options(habits.ttls)}</select></label></p>
<p><label>Points to <input type="text" name="value"></label></p><button>Add record</button></form>`;
  return page(origin.replace(/\.$/, ''), habits.company, `${form}<table>${rows.join('')}</table><p><a href="/panel/${id}">All domains</a></p>`);
}
