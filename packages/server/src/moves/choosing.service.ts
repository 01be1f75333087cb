import { isDeepStrictEqual } from 'node:util';
import { Injectable } from '@nestjs/common';
import { Acted, BackInput, ChooseHosts, Host } from '@wanderon/contract';
import {
  Name,
  HostKnowledge,
  NextLeg,
  OF_THE_WAY,
  PlanAgain,
  RRset,
  Ruling,
  VARIES,
  askedKeys,
  backPlan,
  decisionWords,
  formerOf,
  isAsFound,
  isDone,
  isFirstUse,
  isRaised,
  isSamePlace,
  isTooLate,
  keyOfRow,
  legKindOf,
  legsOf,
  planAgain,
  proposeFresh,
  proposeRepoint,
  proposeRulings,
  sameNameSet,
  setKey,
  setWords,
  stepOf,
  titleIn,
  unusedStep,
  waysBack,
} from '@wanderon/core';
import { givenServers } from '../hosts/givenServers';
import { HostStore, knowledgeOf } from '../hosts/host.store';
import { Caller } from '../people/allow';
import { InvalidInput, NotNow } from '../refusals';
import { Surveyed } from '../survey/survey.store';
import { FrontService, LegFront } from './front.service';
import { LegRow } from './move.rows';
import { MoveStore } from './move.store';
import { Act, KEPT, MoveActs } from './moveActs';

/** A web host with what is known of it for this site. */
type WebHost = Host & { readonly known: HostKnowledge };

/** A choice, and what the leg is by it. */
interface Made {
  readonly choice: ChooseHosts;
  readonly leg: Partial<LegRow>;
}

interface Chosen {
  readonly rulings: readonly Ruling[];
  /** The DNS host takes an alias at the domain itself. */
  readonly apexAlias: boolean;
  readonly leg: Partial<LegRow>;
  readonly text: string;
}

/** In which way a domain moves and where it goes; proposes the rulings anew. */
@Injectable()
export class ChoosingService {
  constructor(
    private readonly store: MoveStore,
    private readonly hosts: HostStore,
    private readonly acts: MoveActs,
    private readonly front: FrontService,
  ) {}

  /**
   * Makes the plan, or the plan anew: what people decided of single rows stands where the same is proposed for them as before. Where way and
   * hosts stay, what is given is added to the plan, and all else that was decided stands too. Throws an InvalidInput or a NotNow that names
   * the field.
   */
  async choose(legId: string, choice: ChooseHosts, person: Caller): Promise<Acted> {
    return this.acts.act(legId, person, async (act) => {
      const { leg, transaction } = act;
      const { row } = leg;
      if (!row.survey_id || !isDone(leg.leg, 'survey')) throw new NotNow('The survey is not finished yet.', { kept: KEPT });
      const late = isTooLate(leg.leg);
      // What the old zone leads to already is added to as long as nothing was switched.
      if (late !== undefined && leg.leg.ts !== undefined) throw new NotNow(late, { kept: KEPT });
      const { newDnsHost, newWebHost, given } = choice;
      const known = await this.front.of(act, leg, given ?? { items: [], newDnsHost, newWebHost, names: {} }, transaction);
      const to = given ? await this.front.hostsFor(act, known, choice.way, transaction) : await this.hostsOf(choice);
      const { first, next } = legsOf(choice.way, { newDnsHost: to.dns?.id ?? null, newWebHost: to.web?.id ?? null });
      if (next) checkNext(next, to);
      if (to.web && to.web.role !== 'web') throw new InvalidInput(`${to.web.name} is not a web host.`, { field: 'newWebHost', kept: KEPT });
      if (next && row.position > 0) throw new NotNow('This is the last stage of the move already.', { field: 'way', kept: KEPT });
      const dns = first.newDnsHost === null ? undefined : to.dns;
      const host = first.newWebHost === null ? undefined : to.web;
      const web = host && { ...host, known: known.front.newWeb ?? knowledgeOf(host) };
      const { found, survey } = known;
      const chosen =
        choice.way === 'another account'
          ? await this.anotherAccount(act, known, dns, web)
          : legKindOf(choice.way) === 'delegation'
            ? await this.nameservers(act, known, dns, web)
            : await this.inPlace(act, found, web);
      const whole = choice.fresh ? this.emptied(act, chosen, { web, next, fresh: choice.fresh }) : chosen.rulings;
      const proposed = saidToVary(known.front.withGiven(whole, { webMoves: web !== undefined, byTicks: given !== null && choice.fresh === null }), survey);
      const made: Made = { choice, leg: { new_web_host: web?.id ?? null, web: web?.known ?? null, next: next ?? null, ...chosen.leg } };
      const again = planAgain(await this.store.rulings(row.id, transaction), leg.rows, proposed);
      if (leg.leg.plan.chosen && isAsChosen(row, made)) await this.add(act, made, again);
      else await this.makeAnew(act, made, again, chosen.text, known);
    });
  }

  /** Way and hosts are as before: what is otherwise in the plan by what was given is ruled so, and the rest of the plan stands. */
  private async add(act: Act, { choice: { given }, leg: { web, scope } }: Made, again: PlanAgain): Promise<void> {
    const { row } = act.leg;
    await this.store.replaceRulings(row.id, again.proposed, act.transaction);
    await this.store.updateLeg(row.id, { given, web: web ?? null, ...(scope && { scope }) }, act.transaction);
    const { changed } = again;
    const text =
      changed.length === 0
        ? 'What the new place gave was looked through once more: nothing in the plan is otherwise.'
        : `What the new place gave was added to the plan: ${listed(changed)} ${changed.length === 1 ? 'is' : 'are'} otherwise.`;
    await act.note({ kind: 'choose', text, before: row.given?.items ?? null, after: given?.items ?? null });
    await this.overrule(act, again);
  }

  private async makeAnew(act: Act, { choice, leg: more }: Made, again: PlanAgain, text: string, known: LegFront): Promise<void> {
    const { leg, transaction, decide } = act;
    const { row } = leg;
    const late = isTooLate(leg.leg);
    if (late !== undefined) throw new NotNow(late, { kept: KEPT });
    const former = leg.leg.plan.chosen ? formerOf(leg.leg, row.new_dns_host) : null;
    for (const old of leg.stands.filter((one) => OF_THE_WAY.has(one.kind) || one.subject === unusedStep(more.new_dns_host ?? '')))
      await decide(
        { kind: old.kind, subject: old.subject, undoes: old.id },
        { kind: old.kind, text: `What was decided went with the way that was chosen before: ${decisionWords(old, titleIn(leg.leg))}.`, before: old.value },
      );
    await this.store.replaceRulings(row.id, again.proposed, transaction);
    const { way, given } = choice;
    await this.store.updateLeg(row.id, { kind: legKindOf(way), account: way === 'another account', former, given, ...more }, transaction);
    const value = { way, dns: more.new_dns_host ?? null, web: more.new_web_host ?? null, next: more.next ?? null };
    await decide(
      { kind: 'hosts', value },
      {
        kind: 'choose',
        text: `${text}; ${again.proposed.length} rows proposed.`,
        before: { dns: row.new_dns_host, web: row.new_web_host },
        after: { ...value, given: known.front.items.flatMap(({ isTaken, owner, type, data }) => (isTaken ? [[owner, type, data].join(' ').trim()] : [])) },
      },
    );
    await this.overrule(act, again);
  }

  /** What people decided of rows gives way where something else is proposed for them now. */
  private async overrule({ decide }: Act, { overruled }: PlanAgain): Promise<void> {
    if (overruled.length === 0) return;
    const rows = overruled.map(({ id, row }) => ({ id, row: row ?? null }));
    const were = overruled.flatMap(({ row, before }) => row ?? before ?? []);
    await decide(
      { kind: 'rulings', value: { rows } },
      {
        kind: 'ruling',
        text: `Decided before, and proposed otherwise by what was given since: ${listed(were)}.`,
        before: overruled.map(({ before }) => before ?? null),
        after: rows,
      },
    );
  }

  /** Hosts that somebody described. */
  private async hostsOf({ newDnsHost, newWebHost }: ChooseHosts): Promise<{ dns: Host | undefined; web: Host | undefined }> {
    return { dns: newDnsHost ? await this.hosts.get(newDnsHost) : undefined, web: newWebHost ? await this.hosts.get(newWebHost) : undefined };
  }

  /** The second leg begins: it has a survey of its own, and what was meant for it is proposed again. */
  async begin(legId: string, person: Caller): Promise<Acted> {
    return this.acts.act(legId, person, async ({ move, leg, transaction, note }) => {
      const { next } = leg.leg.plan;
      if (!next || stepOf(leg.leg, 'next-leg')?.standing.state !== 'ready') throw new NotNow('The stage before it is not over yet.', { kept: KEPT });
      await this.store.addLeg(move.id, { kind: next.kind, scope: leg.row.scope }, transaction);
      await note({ kind: 'leg', text: 'The second stage was begun.', before: null, after: next });
    });
  }

  /**
   * Sets back what a leg changed: a leg of its own, decided by this word. Records in place change at once, since a visitor who finds the
   * site broken cannot wait for a gate; where the nameservers go back, the old zone is made ready first and somebody goes to the registrar.
   * What has to run out before it is over counts from what was served in both directions. Throws a NotNow that says why it cannot be.
   */
  async backOut(legId: string, { how }: BackInput, person: Caller): Promise<Acted> {
    return this.acts.act(legId, person, async ({ move, leg, transaction, at, note, decideOn }) => {
      const way = waysBack(leg.leg).find((one) => one.how === how);
      if (!way) throw new NotNow('There is nothing to set back: nothing was changed.', { kept: KEPT });
      if (way.ruledOut !== null) throw new NotNow(way.ruledOut, { kept: KEPT });
      const { row } = leg;
      const plan = backPlan(leg.leg.plan, how, at, isRaised(leg.leg));
      const [oldDns, newDns] = how === 'records' ? [row.new_dns_host, row.new_dns_host] : [row.new_dns_host, row.old_dns_host];
      const id = await this.store.addLeg(
        move.id,
        {
          ...{
            kind: plan.kind,
            scope: row.scope,
            back_of: row.id,
            back_since: at,
            back_raised: plan.backRaised ?? false,
            survey_id: row.survey_id,
            last_survey: row.last_survey,
          },
          ...{ old_dns_host: oldDns, new_dns_host: newDns, old_web_host: row.new_web_host, new_web_host: row.old_web_host },
          ...{ old_nameservers: [...plan.oldNameservers], new_nameservers: [...plan.newNameservers] },
          ...{ old_servers: [...plan.oldServers], new_servers: [...plan.newServers], keys_ttl: row.keys_ttl },
        },
        transaction,
      );
      await this.store.replaceRulings(id, plan.rulings, transaction);
      const decide = decideOn(id);
      const approval = leg.said.approved?.value ?? { lowerTo: leg.said.lowerTo, lowerAt: null, plannedSwitch: null };
      await decide(
        { kind: 'approve', value: approval },
        { kind: 'approve', text: 'Backing out: the TTLs are raised at its end.', before: null, after: approval },
      );
      if (how === 'records') await decide({ kind: 'submitted' }, { kind: 'submitted', text: 'Backing out: the change of the records was decided.' });
      else if (plan.newHost?.keyed) await decide({ kind: 'push' }, { kind: 'push', text: 'Backing out: the old zone is made ready.' });
      else await decide({ kind: 'leave', subject: 'push' }, { kind: 'skip', text: 'Backing out: the old zone is made ready by hand.' });
      const text =
        how === 'records' ? 'Backing out: the records are set back as they were.' : 'Backing out: the domain goes back to the nameservers that it had.';
      await note({ kind: 'leg', text, before: { leg: row.id }, after: { leg: id } });
    });
  }

  /** Nothing of what was found is kept. Throws a NotNow where the website would stay on what goes, or the move is about some names only. */
  private emptied(
    { leg }: Act,
    { rulings, apexAlias }: Chosen,
    { web, next, fresh }: { web: WebHost | undefined; next: NextLeg | undefined; fresh: NonNullable<ChooseHosts['fresh']> },
  ): Ruling[] {
    const { plan } = leg.leg;
    if (plan.scope.kind === 'names') throw new NotNow('This move is about some names of the domain: the others stay.', { field: 'fresh', kept: KEPT });
    if (next && !web)
      throw new NotNow('Where all records go first, the domain leads nowhere until the website follows.', {
        field: 'fresh',
        detail: 'Change the nameservers and the website at once, or keep the records.',
        kept: KEPT,
      });
    return proposeFresh(plan.zone, rulings, { newWeb: web?.known, apexAlias, ...fresh });
  }

  private async nameservers({ move, leg }: Act, { found, front }: LegFront, dns: Host | undefined, web: WebHost | undefined): Promise<Chosen> {
    const { row } = leg;
    const byDomain = dns?.habits.nameservers === 'by domain';
    if (!dns || dns.role !== 'dns' || (dns.nameservers.length === 0 && !byDomain))
      throw new InvalidInput(dns ? `${dns.name} is not a DNS host with nameservers.` : 'Give the nameservers of the new DNS host, or choose a host.', {
        field: 'newDnsHost',
        kept: KEPT,
      });
    if (row.scope.kind === 'names')
      throw new NotNow('The nameservers of a domain change for all of its names.', {
        field: 'way',
        detail: 'This move is about some of them: change their records where they are.',
        kept: KEPT,
      });
    if (isSamePlace({ nameservers: row.old_nameservers, addresses: leg.leg.plan.oldServers.map((one) => one.address) }, dns))
      throw new NotNow(`The domain is at ${dns.name} already: its nameservers have the same names and addresses.`, {
        field: 'newDnsHost',
        detail:
          'Nothing would change hands at the registrar. Where the servers keep their names and get other addresses, give those addresses at Hosts. To change only records where they are, or to go into another account there, take that way.',
        kept: KEPT,
      });
    const zone = Name.parse(`${move.domain}.`);
    const [newDns, newWeb] = [knowledgeOf(dns), web?.known];
    return {
      rulings: proposeRulings(zone, found, { oldWeb: await this.oldWeb(row), newDns, newWeb, fronted: row.fronted }),
      apexAlias: newDns.apexAlias ?? false,
      leg: {
        new_dns_host: dns.id,
        // What the host gave this domain is known already where it was chosen before.
        ...(!byDomain
          ? { new_nameservers: dns.nameservers, new_servers: givenServers(dns) }
          : front.givesServers === 'new'
            ? { new_nameservers: [...front.places.nameservers], new_servers: [] }
            : row.new_dns_host === dns.id && row.kind === 'delegation'
              ? {}
              : { new_nameservers: [], new_servers: [] }),
      },
      text: `Goes to ${dns.name}${web ? ` and ${web.name}` : ''}`,
    };
  }

  /** The zone is typed into another account behind the same nameservers: nothing of it is there before. */
  private async anotherAccount({ move, leg }: Act, { found }: LegFront, dns: Host | undefined, web: WebHost | undefined): Promise<Chosen> {
    const { row } = leg;
    if (!dns || dns.role !== 'dns') throw new InvalidInput('Say at which DNS host the accounts are.', { field: 'newDnsHost', kept: KEPT });
    if (row.scope.kind === 'names')
      throw new NotNow('An account holds all names of a domain.', { field: 'way', detail: 'This move is about some of them.', kept: KEPT });
    if (isFirstUse({ kind: 'delegation', oldNameservers: row.old_nameservers, oldServers: row.old_servers }))
      throw new NotNow('Nothing is delegated yet: there is no account from which it could go.', { field: 'way', kept: KEPT });
    if (!isSamePlace({ nameservers: row.old_nameservers, addresses: leg.leg.plan.oldServers.map((one) => one.address) }, dns))
      throw new NotNow(`${dns.name} has other nameservers than the domain is delegated to.`, {
        field: 'newDnsHost',
        detail: 'Going there changes the nameservers: take that way.',
        kept: KEPT,
      });
    const [newDns, newWeb] = [knowledgeOf(dns), web?.known];
    return {
      rulings: proposeRulings(Name.parse(`${move.domain}.`), found, { oldWeb: await this.oldWeb(row), newDns, newWeb, fronted: row.fronted }),
      apexAlias: newDns.apexAlias ?? false,
      leg: { new_dns_host: dns.id, new_nameservers: row.old_nameservers, new_servers: row.old_servers },
      text: `Goes into another account at ${dns.name}${web ? `, and leads to ${web.name}` : ''}`,
    };
  }

  /** The zone stays where it is; what leads to the old web host, or from the names of the move, leads to the new one. */
  private async inPlace({ move, leg }: Act, found: readonly RRset[], web: WebHost | undefined): Promise<Chosen> {
    const { row } = leg;
    if (!web)
      throw new InvalidInput('Give an address or an alias of the new web host, or choose a host: the records stay where they are.', {
        field: 'newWebHost',
        kept: KEPT,
      });
    const at = row.old_dns_host ? await this.hosts.get(row.old_dns_host) : undefined;
    const none = { nameservers: row.old_nameservers, addresses: [], aliasTarget: undefined, requires: [] };
    const dns = { ...none, name: at?.name ?? 'the DNS host', apexAlias: at !== undefined && knowledgeOf(at).apexAlias === true };
    const zone = Name.parse(`${move.domain}.`);
    const rulings = proposeRepoint(zone, found, {
      scope: row.scope,
      oldWeb: await this.oldWeb(row),
      dns,
      newWeb: web.known,
      fronted: row.fronted,
    });
    return {
      rulings,
      apexAlias: dns.apexAlias,
      leg: {
        ...{ new_dns_host: row.old_dns_host, new_nameservers: row.old_nameservers, new_servers: row.old_servers },
        ...(row.scope.kind === 'names' && { scope: { ...row.scope, asked: askedKeys(zone, web.known) } }),
      },
      text: `Stays at ${dns.name}, and leads to ${web.name}`,
    };
  }

  private async oldWeb(row: LegRow): Promise<ReturnType<typeof knowledgeOf>[]> {
    return row.old_web_host ? [knowledgeOf(await this.hosts.get(row.old_web_host))] : [];
  }
}

/** The second stage is chosen again when its time comes; that its host is one of the kind is checked now. */
function checkNext({ kind }: NextLeg, { dns, web }: { readonly dns: Host | undefined; readonly web: Host | undefined }): void {
  const [host, role, field] = kind === 'repoint' ? ([web, 'web', 'newWebHost'] as const) : ([dns, 'dns', 'newDnsHost'] as const);
  const word = role === 'web' ? 'web' : 'DNS';
  if (!host) throw new InvalidInput(`Say what the new ${word} host of the second stage is too.`, { field, kept: KEPT });
  if (host.role !== role) throw new InvalidInput(`${host.name} is not a ${word} host.`, { field, kept: KEPT });
}

/** The way and the hosts are those that the plan was made for. */
function isAsChosen(row: LegRow, { choice: { way, fresh }, leg }: Made): boolean {
  const servers = leg.new_nameservers ?? row.new_nameservers;
  return (
    fresh === null &&
    row.kind === legKindOf(way) &&
    row.account === (way === 'another account') &&
    (leg.new_dns_host ?? null) === row.new_dns_host &&
    leg.new_web_host === row.new_web_host &&
    isDeepStrictEqual(leg.next, row.next) &&
    servers.length === row.new_nameservers.length &&
    sameNameSet(servers, row.new_nameservers)
  );
}

/** Names of a list of rows that are told. */
const TOLD = 5;

function listed(rows: readonly Pick<Ruling, 'owner' | 'type'>[]): string {
  const more = rows.length > TOLD ? ` and ${rows.length - TOLD} more` : '';
  return `${rows.slice(0, TOLD).map(setWords).join(', ')}${more}`;
}

/** Rows that stand as they were found, where that was one of several answers, say so. */
function saidToVary(rulings: readonly Ruling[], { sets }: Surveyed): readonly Ruling[] {
  const restless = new Set(sets.filter((set) => set.restless && set.stored === null).map((set) => setKey(set.owner, set.type)));
  if (restless.size === 0) return rulings;
  return rulings.map((row) => (isAsFound(row) && restless.has(keyOfRow(row)) ? { ...row, reason: `${row.reason}; ${VARIES}` } : row));
}
