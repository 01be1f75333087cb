import { RCODE } from './codes';
import { Name, NameError } from './name';
import { NameMap } from './nameMap';
import { namesIn } from './rdata';
import { RRset } from './record';
import { negativeTtl, readSoa } from './soa';
import { TYPE_CODES } from './typeNames';

/** What an authoritative server of a zone answers to one question. */
export interface ZoneAnswer {
  readonly rcode: number;
  /** Aliases and data in the order in which they were met; sets that a wildcard or DNAME makes stand under the name asked for. */
  readonly answers: readonly RRset[];
  /** The NS set of the cut that was met, where the answer is a referral. */
  readonly referral: RRset | undefined;
  /** Addresses at and below the cut, of the names of the referral. */
  readonly glue: readonly RRset[];
  /** The wildcard or DNAME owner that the answer to the name itself was made from. */
  readonly from: Name | undefined;
}

/** Aliases that are followed inside a zone: servers stop as well, the number is theirs. */
const HOPS = 16;

interface Node {
  readonly sets: Map<number, RRset>;
}

/**
 * A zone's contents as its server answers from them: RFC 1034 §4.3.2, with wildcards by RFC 4592 §3.3.1, DNAME by RFC 6672
 * §3.2, cuts and glue. What signing adds is not answered.
 */
export class ZoneAnswers {
  private readonly nodes = new NameMap<Node>();
  private readonly apex: Name;

  constructor(zone: Name, sets: Iterable<RRset>) {
    this.apex = zone;
    this.node(zone);
    for (const set of sets) if (set.owner.isAtOrBelow(zone)) this.node(set.owner).sets.set(set.type, set);
  }

  /** Seconds that a denial of this zone may be remembered (RFC 2308 §5); undefined without an SOA. */
  get negative(): number | undefined {
    const soa = this.nodes.get(this.apex)!.sets.get(TYPE_CODES.SOA);
    return soa && negativeTtl(soa.ttl, readSoa(soa.data[0]!).minimum);
  }

  ask(name: Name, type: number): ZoneAnswer {
    const answers: RRset[] = [];
    let first: Name | undefined;
    let at = name;
    for (let hop = 0; hop <= HOPS; hop++) {
      const found = this.lookUp(at, type);
      if (hop === 0) first = found.from;
      answers.push(...found.answers);
      if (!found.next) return { ...found, answers, from: first };
      if (!found.next.isAtOrBelow(this.apex)) break;
      at = found.next;
    }
    return { rcode: RCODE.NOERROR, answers, referral: undefined, glue: [], from: first };
  }

  /** The data of `type` that the answer gives for the name itself: what read-back and verdicts compare. */
  own(name: Name, type: number): RRset | undefined {
    return this.ask(name, type).answers.find((set) => set.type === type && set.owner.equals(name));
  }

  private lookUp(name: Name, type: number): Omit<ZoneAnswer, 'from'> & { from: Name | undefined; next?: Name } {
    const nothing = { rcode: RCODE.NOERROR as number, answers: [] as RRset[], referral: undefined, glue: [] as RRset[], from: undefined };
    if (!name.isAtOrBelow(this.apex)) return { ...nothing, rcode: RCODE.REFUSED };
    // From the apex down: a cut refers, a DNAME above the name rewrites it.
    for (const ancestor of this.between(name)) {
      const node = this.nodes.get(ancestor);
      if (!node) break;
      const ns = node.sets.get(TYPE_CODES.NS);
      if (ns && !ancestor.equals(this.apex) && !(type === TYPE_CODES.DS && ancestor.equals(name)))
        return { ...nothing, referral: ns, glue: this.glueOf(ns, ancestor) };
      const dname = node.sets.get(TYPE_CODES.DNAME);
      if (dname && !ancestor.equals(name)) {
        const next = rewritten(name, ancestor, namesIn(TYPE_CODES.DNAME, dname.data[0]!)[0]!);
        if (!next) return { ...nothing, rcode: RCODE.YXDOMAIN, answers: [dname], from: ancestor };
        return { ...nothing, answers: [dname, alias(name, dname.ttl, next)], from: ancestor, next };
      }
    }
    const own = this.nodes.get(name);
    if (own) return { ...nothing, ...answerOf(own, name, type) };
    let encloser = name.parent;
    while (!this.nodes.has(encloser)) encloser = encloser.parent;
    const wildcard = encloser.child('*');
    const source = this.nodes.get(wildcard);
    if (!source) return { ...nothing, rcode: RCODE.NXDOMAIN };
    return { ...nothing, ...answerOf(source, name, type), from: wildcard };
  }

  private glueOf(ns: RRset, cut: Name): RRset[] {
    const names = ns.data.flatMap((data) => namesIn(ns.type, data)).filter((target) => target.isAtOrBelow(cut));
    return names.flatMap((target) => [TYPE_CODES.A, TYPE_CODES.AAAA].flatMap((type) => this.nodes.get(target)?.sets.get(type) ?? []));
  }

  /** The apex, and every name from there down to `name`. */
  private between(name: Name): Name[] {
    const names: Name[] = [];
    for (let at = name; ; at = at.parent) {
      names.push(at);
      if (at.equals(this.apex)) return names.reverse();
    }
  }

  /** A name exists where anything stands at or below it (RFC 4592 §2.2.2). */
  private node(name: Name): Node {
    return this.nodes.getOr(name, () => {
      if (!name.equals(this.apex)) this.node(name.parent);
      return { sets: new Map<number, RRset>() };
    });
  }
}

function answerOf(node: Node, name: Name, type: number): { answers: RRset[]; next?: Name } {
  const data = node.sets.get(type);
  if (data) return { answers: [{ ...data, owner: name }] };
  const cname = node.sets.get(TYPE_CODES.CNAME);
  if (!cname) return { answers: [] };
  return { answers: [{ ...cname, owner: name }], next: namesIn(TYPE_CODES.CNAME, cname.data[0]!)[0]! };
}

function alias(owner: Name, ttl: number, target: Name): RRset {
  return { owner, type: TYPE_CODES.CNAME, ttl, data: [target.wire] };
}

/** `www.old.example.` with `old.example.` led to `new.example.` is `www.new.example.`; undefined where that is too long. */
function rewritten(name: Name, owner: Name, target: Name): Name | undefined {
  try {
    return Name.fromLabels([...name.labels.slice(0, name.labelCount - owner.labelCount), ...target.labels]);
  } catch (error) {
    if (error instanceof NameError) return undefined;
    throw error;
  }
}
