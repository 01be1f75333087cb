import { isIpv4, isIpv6 } from '../dns/address';
import { Name, NameError } from '../dns/name';
import { inPrefix, parsePrefix } from '../dns/prefix';
import { Decision } from '../move/said';
import { Purpose } from '../survey/purpose';
import { ledgerFilter } from './ledgerFilter';
import { ledgerGroups } from './ledgerGroups';
import { CHANGED_SINCE, LedgerRow, RowDecision, editRow, sameRow } from './ledgerRow';
import { isLead } from './leads';
import { RulingsValue } from './rowWords';
import { isHostsOwn } from './ruling';

export const RULE_RULINGS = ['carry', 'repoint', 'drop'] as const;

/** What a person wants of every row of a kind. It is made for the rows that are there, and offered to those that come later. */
export interface StandingRule {
  /** As the filter of the ledger takes it; empty: whatever stands there. */
  readonly like: string;
  /** Title of the group of the ledger that it is about; null: all of them. */
  readonly group: string | null;
  readonly ruling: (typeof RULE_RULINGS)[number];
  /** Where they lead then, if they are repointed: addresses, and a name for aliases. */
  readonly to: readonly string[];
}

/** Ids of rows that it was not made for, though they are like it: a person took them out. */
export interface MadeRule extends StandingRule {
  readonly except: readonly string[];
}

type Purposes = readonly { readonly owner: string; readonly type: string; readonly purpose: Purpose }[];

/** The rows that a rule is about. */
export interface Ruled {
  /** Those that it makes otherwise. */
  readonly changes: readonly { readonly before: LedgerRow; readonly row: RowDecision }[];
  /** Those that are so already. */
  readonly same: number;
  /** Those that it cannot change, and why. */
  readonly left: readonly { readonly row: LedgerRow; readonly why: string }[];
}

/**
 * What a rule makes of a plan. Of a set of addresses only those values go that are like it, where it is about addresses: a set that holds
 * others as well keeps them. What belongs to the DNS host is not ruled.
 *
 *     { like: '203.0.113.0/24', group: null, ruling: 'repoint', to: ['198.51.100.7'] }
 *     // 203.0.113.9 and 192.0.2.1  ->  198.51.100.7 and 192.0.2.1
 */
export function ruledBy(zone: Name, rows: readonly LedgerRow[], rule: StandingRule, purposes: Purposes = []): Ruled {
  const isLike = ledgerFilter(rule.like);
  const inGroup = rule.group === null ? rows : ledgerGroups(zone, rows, purposes).flatMap((group) => (group.title === rule.group ? group.rows : []));
  const about = inGroup.filter((row) => !isHostsOwn(row) && isLike(row));
  const changes: { before: LedgerRow; row: RowDecision }[] = [];
  const left: { row: LedgerRow; why: string }[] = [];
  let same = 0;
  for (const before of about) {
    const result = madeOf(zone, before, rule);
    if (typeof result === 'string') left.push({ row: before, why: result });
    else if (result.row && sameRow(before, result.row)) same += 1;
    else changes.push({ before, row: result.row });
  }
  return { changes, same, left };
}

function madeOf(zone: Name, before: LedgerRow, rule: StandingRule): { readonly row: RowDecision } | string {
  // What was not found has nothing to be carried as; it stays what somebody wanted it to be.
  if (rule.ruling === 'carry' && !before.found) return 'it was not found at the old host';
  const data = rule.ruling === 'repoint' ? repointed(before, rule) : undefined;
  if (data && !data.ok) return data.why;
  const ruling = rule.ruling === 'repoint' && !before.found ? 'new' : rule.ruling;
  const result = editRow(zone, before, { ruling, ...(data && { data: data.values.join('\n') }) });
  return result.ok ? result : result.problem;
}

function repointed({ type, found, planned }: LedgerRow, { like, to }: StandingRule): { ok: true; values: readonly string[] } | { ok: false; why: string } {
  if (!isLead(type)) return { ok: false, why: `a ${type} record leads nowhere by itself` };
  const fresh = to.filter(type === 'A' ? isIpv4 : type === 'AAAA' ? isIpv6 : isName);
  if (fresh.length === 0) return { ok: false, why: `the rule names no ${type === 'A' ? 'IPv4 address' : type === 'AAAA' ? 'IPv6 address' : 'name'}` };
  const prefixes = like.split(/\s+/).flatMap((word) => parsePrefix(word) ?? []);
  const kept = type === 'CNAME' || prefixes.length === 0 ? [] : (found ?? planned)!.data.filter((one) => !prefixes.some((prefix) => inPrefix(prefix, one)));
  return { ok: true, values: [...new Set([...fresh, ...kept])] };
}

function isName(text: string): boolean {
  return !isIpv4(text) && !isIpv6(text);
}

/** Where a rule is to lead, as it was typed: addresses and at most one name, between blanks or commas. Names are absolute afterwards. */
export function readRuleTo(zone: Name, text: string): { readonly ok: true; readonly to: readonly string[] } | { readonly ok: false; readonly problem: string } {
  const words = text.split(/[\s,;]+/).filter(Boolean);
  if (words.length === 0) return { ok: false, problem: 'Say where it leads: addresses, and a name for aliases.' };
  const names = words.filter(isName);
  if (names.length > 1) return { ok: false, problem: `An alias leads to one name: ${names.join(' or ')}?` };
  const to: string[] = [];
  for (const word of words) {
    if (!isName(word)) {
      to.push(word);
      continue;
    }
    if (/^[\d.]+$|[/:]/.test(word)) return { ok: false, problem: `"${word}" is neither an address nor a name.` };
    try {
      to.push(Name.parse(word, zone).toString());
    } catch (error) {
      if (!(error instanceof NameError)) throw error;
      return { ok: false, problem: `"${word}" cannot be read: ${error.message}.` };
    }
  }
  return { ok: true, to: [...new Set(to)] };
}

/** `Everything like “203.0.113.0/24” leads to 198.51.100.7`; `Everything in “Mail” is kept`. */
export function ruleWords({ like, group, ruling, to }: StandingRule): string {
  const what = ['Everything', like.trim() !== '' && `like “${like.trim()}”`, group !== null && `in “${group}”`].filter((part) => typeof part === 'string');
  const how = ruling === 'carry' ? 'is kept' : ruling === 'drop' ? 'is left out' : `leads to ${to.map((one) => one.replace(/\.$/, '')).join(', ')}`;
  return `${what.join(' ')} ${how}`;
}

/** A rule that stands, and the rows that came later, or changed at the old host, to which it is offered. */
export interface RuleOffer {
  /** Of the decision that made it. */
  readonly id: number;
  readonly rule: MadeRule;
  readonly person: string | null;
  readonly rows: Ruled['changes'];
}

/** Under which a decision says that a rule is over. */
export const RULE_OVER = 'rule over';

/**
 * The rules of a plan, in the order in which they were made, each with the rows that it would change and of which nobody has decided
 * anything. `stands`: decisions that stand. It is never applied by itself.
 */
export function ruleOffers(zone: Name, rows: readonly LedgerRow[], stands: readonly Decision[], purposes: Purposes = []): readonly RuleOffer[] {
  const over = new Set(stands.flatMap((one) => (one.kind === RULE_OVER ? [one.subject] : [])));
  return stands.flatMap((decision): RuleOffer[] => {
    const rule = decision.kind === 'rulings' ? (decision.value as RulingsValue).rule : undefined;
    if (!rule || over.has(String(decision.id))) return [];
    const except = new Set(rule.except);
    const isFree = ({ id, decidedBy, reason }: LedgerRow): boolean => (decidedBy === null || reason === CHANGED_SINCE) && !except.has(id);
    const changes = ruledBy(zone, rows, rule, purposes).changes.filter(({ before }) => isFree(before));
    return [{ id: decision.id, rule, person: decision.person, rows: changes }];
  });
}
