import { RCODE } from '../dns/codes';
import { Name, NameError } from '../dns/name';
import { NameMap } from '../dns/nameMap';
import { namesIn } from '../dns/rdata';
import { RRset, groupRecords } from '../dns/record';
import { addressLabels, isReverse } from '../dns/reverse';
import { TYPE_CODES } from '../dns/typeNames';
import { CATALOGUE_NAMES } from './catalogue';
import { Explored, FoundSet, MOST_NAMES, Node, Parent, Unanswered, exploredOf, wildFor } from './explored';
import { namesInText } from './namesInText';
import { SurveyAnswer, SurveyQuestion, denies, setsAt } from './surveyAnswer';

/** A name to ask for beside those of the catalogue. */
export interface KnownName {
  readonly name: Name;
  readonly types: readonly number[];
  /** Given by a person, where it is absent. */
  readonly because?: string;
}

/** What may stand at any name. */
const COMMON: readonly number[] = (
  [
    'A',
    'AAAA',
    'MX',
    'TXT',
    'SRV',
    'CAA',
    'HTTPS',
    'SVCB',
    'NAPTR',
    'SSHFP',
    'TLSA',
    'LOC',
    'HINFO',
    'RP',
    'PTR',
    'SPF',
    'URI',
    'DNAME',
    'CERT',
    'AFSDB',
    'OPENPGPKEY',
    'SMIMEA',
  ] as const
).map((mnemonic) => TYPE_CODES[mnemonic]);
/** What the catalogue means by a name: enough to tell a name that is there from what a wildcard gives for it. */
const UNDERSCORED: readonly number[] = (['TXT', 'SRV', 'TLSA', 'URI'] as const).map((mnemonic) => TYPE_CODES[mnemonic]);
const PLAIN: readonly number[] = (['A', 'AAAA', 'MX', 'TXT'] as const).map((mnemonic) => TYPE_CODES[mnemonic]);
/** The same of a name that stands for an address. */
const REVERSED: readonly number[] = (['PTR', 'TXT'] as const).map((mnemonic) => TYPE_CODES[mnemonic]);
const AT_APEX: readonly number[] = (['SOA', 'NS', 'DNSKEY', 'CDS', 'CDNSKEY', 'NSEC3PARAM', 'CSYNC', 'ZONEMD'] as const).map(
  (mnemonic) => TYPE_CODES[mnemonic],
);

/**
 * An inventory by questions, for a zone that no server gives whole. It says what to ask next and takes the answers;
 * asking is somebody else's. Each question is given once. Names come from the catalogue (in a zone of addresses, from these), from the
 * person, and from what is found; below names that do not exist nothing is asked, once the server was seen to be honest about names that hold
 * nothing themselves (RFC 8020).
 */
export class Exploration {
  private readonly parents = new NameMap<Parent>();
  private readonly nodes = new NameMap<Node>();
  /** Those before `given` are given out; they are let go of from time to time, since taking each off the head would move all the rest. */
  private queue: SurveyQuestion[] = [];
  private given = 0;
  private readonly wasAsked = new Set<string>();
  private readonly inFlight = new Map<string, { node?: Node; parent?: Parent }>();
  private readonly wildcards: FoundSet[] = [];
  private readonly cuts = new NameMap<FoundSet[]>();
  private held: Node[] = [];
  /** A name without data of its own, but with a name below it, was answered as existing (`honest`) or denied. */
  private honest = false;
  private dishonest: Name | undefined;
  private asked = 0;
  private spared = 0;
  private refused = 0;
  private leftOut = false;

  /** Its names are those of addresses. */
  private readonly isRange: boolean;
  /** Types that a person knows of at a name. */
  private readonly extra = new NameMap<number[]>();

  /** `random`: labels that nobody has; one is used for each parent. `given`: names that are known of otherwise, with the types known there, and why. */
  constructor(
    readonly zone: Name,
    private readonly random: (parent: Name) => string,
    given: readonly KnownName[] = [],
  ) {
    for (const { name, types } of given) this.extra.getOr(name, () => []).push(...types);
    this.add(zone, 'the apex');
    for (const { name, because } of given) this.addIfFits(name, because ?? 'given by a person');
    this.isRange = isReverse(zone);
    if (this.isRange) this.addAddresses(zone);
    else for (const text of CATALOGUE_NAMES) this.add(zone.child(text), 'in the catalogue of common names');
  }

  /** Up to `most` questions that can be asked now; none while answers are awaited or all is done. */
  next(most: number): SurveyQuestion[] {
    if (this.waiting === 0 && this.inFlight.size === 0) this.release();
    const out = this.queue.slice(this.given, this.given + most);
    this.given += out.length;
    if (this.given * 2 > this.queue.length) {
      this.queue = this.queue.slice(this.given);
      this.given = 0;
    }
    this.asked += out.length;
    return out;
  }

  /** Questions that are known to be still to ask; answers may add to them. */
  get waiting(): number {
    return this.queue.length - this.given;
  }

  get done(): boolean {
    if (this.waiting === 0 && this.inFlight.size === 0) this.release();
    return this.waiting === 0 && this.inFlight.size === 0;
  }

  /** The answer to a question, or undefined where none came, and why. */
  take(question: SurveyQuestion, answer: SurveyAnswer | undefined, why: Unanswered = 'silent'): void {
    const key = keyOf(question);
    const what = this.inFlight.get(key);
    if (!what) return;
    this.inFlight.delete(key);
    const usable = answer && (answer.rcode === RCODE.NOERROR || answer.rcode === RCODE.NXDOMAIN) ? answer : undefined;
    if (!usable) this.refused += 1;
    if (!usable && what.node) what.node.unanswered.set(question.type, answer ? 'refused' : why);
    if (what.parent) this.takeControl(what.parent, question, usable);
    else this.takeNode(what.node!, question, usable);
  }

  report(): Explored {
    const { zone, parents, nodes, wildcards, cuts, dishonest, asked, spared, refused, leftOut } = this;
    return exploredOf({ zone, parents, nodes, wildcards, cuts, dishonest, asked, spared, refused, leftOut });
  }

  private add(name: Name, because: string): void {
    if (!name.isAtOrBelow(this.zone) || this.nodes.has(name)) return;
    if (this.nodes.size >= MOST_NAMES) {
      this.leftOut = true;
      return;
    }
    if (name.isWildcard) {
      // What a wildcard has is told by a name below its parent that cannot exist.
      this.add(name.parent, because);
      this.parentOf(name);
      return;
    }
    const node: Node = { name, because, state: 'waiting', sets: new Map(), open: 0, unanswered: new Map(), asWildcard: 0, unsure: [] };
    this.nodes.set(name, node);
    if (name.equals(this.zone)) return this.askAll(node, [...COMMON, ...AT_APEX]);
    // What is above it may exist only for its sake; that tells whether the server is honest.
    if (!name.parent.equals(this.zone)) this.add(name.parent, `above ${name.toString()}`);
    this.begin(node);
  }

  /** An address has a name below those of the ranges that it lies in. */
  private addAddresses(range: Name): void {
    for (const label of addressLabels(range)) this.add(range.child(label), `may be the name of an address of ${range.toString()}`);
  }

  /** A name is asked for once it is known what its parent does with names that do not exist. */
  private begin(node: Node, evenBelowDenied = false): void {
    if (this.isCut(node.name)) {
      node.state = 'spared';
      return;
    }
    const above = this.nodes.get(node.name.parent);
    if (above && !evenBelowDenied && UNDECIDED.has(above.state) && !node.name.parent.equals(this.zone)) {
      node.state = 'held';
      this.held.push(node);
      return;
    }
    const parent = this.parentOf(node.name);
    if (parent.state === 'asking') parent.waiting.push(node);
    else this.ask(node, parent);
  }

  /** What is known of names below a name's parent; asked for where nobody has yet. */
  private parentOf(child: Name): Parent {
    return this.parents.getOr(child.parent, (name) => {
      const fresh: Parent = { name, state: 'asking', wild: new Map(), unknown: new Set(), waiting: [], open: 0 };
      this.control(fresh, name.child(this.random(name)), TYPE_CODES.A);
      return fresh;
    });
  }

  private ask(node: Node, parent: Parent): void {
    node.state = 'asking';
    // Under a wildcard answers have to be held against it; elsewhere one question tells whether there is anything.
    const types = node.name.wire[1] === UNDERSCORE ? UNDERSCORED : this.isRange ? REVERSED : PLAIN;
    if (parent.state === 'denies') this.askOne(node, types[0]!);
    // An address may stand at any name: beside a wildcard of other types nothing else would tell.
    else this.askAll(node, types === PLAIN ? PLAIN : [...types, ...PLAIN]);
  }

  private askAll(node: Node, types: readonly number[]): void {
    node.state = node.state === 'waiting' ? 'asking' : node.state;
    for (const type of [...types, ...(this.extra.get(node.name) ?? [])]) this.askOne(node, type);
  }

  private askOne(node: Node, type: number): void {
    if (this.put({ name: node.name, type }, { node })) node.open += 1;
  }

  private control(parent: Parent, name: Name, type: number): void {
    if (this.put({ name, type }, { parent })) parent.open += 1;
  }

  /** A server may deny a name of which a wildcard holds another type only: the wildcards above what was found are asked for its type. */
  private doubt(from: Name, type: number): void {
    for (let at = from; at.isAtOrBelow(this.zone); at = at.parent) {
      const parent = this.parents.get(at);
      if (parent?.state === 'denies') this.control(parent, at.child('*'), type);
      if (at.isRoot) return;
    }
  }

  /** Queues a question that was never asked; false for one that was. */
  private put(question: SurveyQuestion, what: { node?: Node; parent?: Parent }): boolean {
    const key = keyOf(question);
    if (this.wasAsked.has(key)) return false;
    this.wasAsked.add(key);
    this.inFlight.set(key, what);
    this.queue.push(question);
    return true;
  }

  /** First a name that cannot exist; where that is not denied, everything the wildcard may have. */
  private takeControl(parent: Parent, question: SurveyQuestion, answer: SurveyAnswer | undefined): void {
    parent.open -= 1;
    const wildcard = parent.name.child('*');
    if (!question.name.equals(wildcard)) {
      if (answer && this.takeReferral(question.name, answer)) parent.state = 'denies';
      else if (answer && denies(answer, question.name)) parent.state = 'denies';
      // Every name below is made by it, and none of them is there (RFC 6672 §2.4).
      else if (answer && this.takeDname(question.name, answer)) parent.state = 'denies';
      else for (const type of COMMON) this.control(parent, wildcard, type);
    } else if (!answer) parent.unknown.add(question.type);
    else {
      for (const set of setsAt(wildcard, answer)) {
        if (parent.wild.has(set.type)) continue;
        parent.wild.set(set.type, set);
        this.wildcards.push({ set, because: `a name below ${parent.name.toString()} that cannot exist was answered` });
        this.doubt(parent.name.parent, set.type);
        this.grow(set);
      }
    }
    if (parent.open > 0) return;
    if (parent.state === 'asking') parent.state = parent.wild.size > 0 ? 'wildcard' : 'blind';
    else if (parent.wild.size > 0) parent.state = 'wildcard';
    for (const node of parent.waiting.splice(0)) this.begin(node);
  }

  private takeNode(node: Node, question: SurveyQuestion, answer: SurveyAnswer | undefined): void {
    node.open -= 1;
    if (!answer) {
      // Something is here that is too long to be told, and whatever else may be.
      if (node.unanswered.get(question.type) === 'truncated' && node.state !== 'exists') {
        node.state = 'exists';
        this.askAll(node, COMMON);
      }
      // Silence about one type says nothing of the others.
      if (node.state === 'asking') this.askAll(node, PLAIN);
    } else if (this.takeReferral(node.name, answer)) node.state = 'cut';
    else if (denies(answer, node.name)) node.state = 'absent';
    else this.takeData(node, question, answer);
    if (node.open > 0) return;
    this.judge(node);
  }

  private takeData(node: Node, question: SurveyQuestion, answer: SurveyAnswer): void {
    const parent = this.parents.get(node.name.parent);
    const wild = parent?.wild;
    const sets = setsAt(node.name, answer);
    if (this.takeDname(node.name, answer)) {
      node.state = 'spared';
      return;
    }
    const wasAsked = node.state;
    for (const set of sets) {
      const from = wildFor({ zone: this.zone, parents: this.parents }, node.name.parent, set);
      if (from === 'same') {
        node.asWildcard += 1;
        continue;
      }
      if (from === 'unknown') {
        node.unsure.push(set);
        continue;
      }
      if (node.sets.has(set.type)) continue;
      node.sets.set(set.type, set);
      this.doubt(node.name.parent, set.type);
      this.grow(set);
    }
    // A wildcard that has this type, or is an alias, would have answered: a name that has less than it is there.
    const expected = wild?.get(question.type) ?? wild?.get(TYPE_CODES.CNAME);
    const there = !parent || parent.state === 'denies' || node.sets.size > 0 || (expected !== undefined && sets.length === 0);
    if (node.state !== 'exists') node.state = there ? 'exists' : 'synthesized';
    const alias = node.sets.has(TYPE_CODES.CNAME);
    // Beside an alias there is nothing else (RFC 1034 §3.6.2).
    if (wasAsked !== 'exists' && there && !alias) this.askAll(node, COMMON);
    if (wasAsked !== 'exists' && there && this.isRange) this.addAddresses(node.name);
  }

  /** What hangs on whether a name exists: names below it, and the server's honesty. */
  private judge(node: Node): void {
    if (node.state === 'exists' && node.sets.size > 0) {
      for (let above = node.name.parent; above.isBelow(this.zone); above = above.parent) {
        const other = this.nodes.get(above);
        if (other?.state === 'absent') this.dishonest ??= above;
        if (other?.state === 'exists' && other.sets.size === 0 && other.asWildcard === 0) this.honest = true;
      }
    }
    const mine = this.held.filter((one) => one.name.parent.equals(node.name));
    if (mine.length === 0 || !['exists', 'cut', 'synthesized'].includes(node.state)) return;
    this.held = this.held.filter((one) => !mine.includes(one));
    for (const one of mine) this.begin(one);
  }

  /** Nothing else is left to ask: names below denied ones are asked for after all, unless denials were seen to be honest. */
  private release(): void {
    const held = this.held;
    this.held = [];
    for (const node of held) {
      if (this.honest && !this.dishonest) {
        node.state = 'spared';
        this.spared += 1;
        continue;
      }
      this.begin(node, true);
    }
  }

  /** A CNAME that a DNAME makes is not there (RFC 6672 §3.1): the DNAME is, and is asked for. */
  private takeDname(name: Name, answer: SurveyAnswer): boolean {
    const dname = answer.answers.find((record) => record.type === TYPE_CODES.DNAME && name.isBelow(record.owner) && record.owner.isAtOrBelow(this.zone));
    if (dname) this.add(dname.owner, `answers for ${name.toString()}`);
    return dname !== undefined;
  }

  /** NS records of a zone below this one, without authority: a delegated subzone. */
  private takeReferral(name: Name, answer: SurveyAnswer): boolean {
    if (answer.authoritative || answer.answers.length > 0) return false;
    const ns = answer.authorities.filter((record) => record.type === TYPE_CODES.NS && record.owner.isBelow(this.zone) && name.isAtOrBelow(record.owner));
    const owner = ns[0]?.owner;
    if (!owner) return false;
    if (!this.cuts.has(owner)) {
      const glue = answer.additionals.filter((record) => (record.type === TYPE_CODES.A || record.type === TYPE_CODES.AAAA) && record.owner.isAtOrBelow(owner));
      this.cuts.set(
        owner,
        groupRecords([...ns.filter((record) => record.owner.equals(owner)), ...glue]).map((set) => ({ set, because: `${owner.toString()} is delegated` })),
      );
      for (const set of this.cuts.get(owner)!) this.grow(set.set);
    }
    return true;
  }

  private isCut(name: Name): boolean {
    return this.cuts.names().some((cut) => name.isBelow(cut));
  }

  /** Names of this zone that found data leads to. */
  private grow(set: RRset): void {
    const because = `named by ${set.owner.toString()}`;
    for (const data of set.data) for (const name of [...namesIn(set.type, data), ...namesInText(set.type, data)]) this.addIfFits(name, because);
  }

  private addIfFits(name: Name, because: string): void {
    try {
      this.add(name, because);
    } catch (error) {
      // A name so long that no label fits below it has no control question.
      if (!(error instanceof NameError)) throw error;
    }
  }
}

const UNDERSCORE = 95;
const UNDECIDED: ReadonlySet<Node['state']> = new Set(['absent', 'held', 'waiting', 'asking']);

function keyOf({ name, type }: SurveyQuestion): string {
  return `${type}/${name.key}`;
}
