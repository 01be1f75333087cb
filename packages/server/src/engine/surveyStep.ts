import { Injectable, Inject } from '@nestjs/common';
import { GRADE_WORDS, AnswerSight, Name, RRsetText, SetKey, TYPE_CODES, ZoneSight, rrsetFromText, sameNameSet, setKey, typeCode } from '@wanderon/core';
import { NetError } from '@wanderon/net';
import { CLOCK, Clock } from '../clock/clock';
import { HostStore } from '../hosts/host.store';
import { Sighted } from '../moves/observation.store';
import { InHandGiven, InHandStore } from '../survey/inHand.store';
import { SurveyStore } from '../survey/survey.store';
import { Given } from '../survey/surveyWorld';
import { Surveyor } from '../survey/surveyor';
import { TakenSurvey } from '../survey/takeSurvey';
import { MoveStore } from '../moves/move.store';
import { isChosen } from '../moves/move.rows';
import { parentSighted } from './looks/parent';
import { ActResult, Outcome, WorkContext, sentence } from './context';

/** Takes a survey: the first one makes the plan, later ones stand beside it. */
@Injectable()
export class SurveyStep {
  constructor(
    @Inject(CLOCK) private readonly clock: Clock,
    private readonly store: MoveStore,
    private readonly surveys: SurveyStore,
    private readonly surveyor: Surveyor,
    private readonly inHand: InHandStore,
    private readonly hosts: HostStore,
  ) {}

  /** The process is ending: what is cut short is taken by the next one. */
  get closing(): boolean {
    return this.surveyor.closing;
  }

  async take({ move, loaded, zone, leg }: WorkContext): Promise<{ result: ActResult; outcome: Outcome }> {
    const given = givenIn(await this.inHand.latest(loaded.row.id));
    // The names that a move is about are asked for, also where nothing but asking finds names.
    const about = loaded.row.scope.kind === 'names' ? loaded.row.scope.names.map((name) => Name.parse(`${name}.`)) : [];
    const pages = (loaded.stands.findLast((one) => one.kind === 'pages')?.value ?? []) as string[];
    const before = leg.plan.chosen ? this.surveys.asQuestions(leg.plan.rulings.flatMap((ruling) => (ruling.found ? [ruling.found] : []))) : [];
    let taken: TakenSurvey;
    try {
      taken = await this.surveyor.take({ move: move.id }, zone, { given, about, pages, before });
    } catch (error) {
      if (!(error instanceof NetError)) throw error;
      const nothing = { sights: [], at: this.clock.now() };
      if (error.kind === 'cancelled')
        return { result: { outcome: 'stopped', problem: 'It was stopped. A survey taken before stands; take it again when it suits.' }, outcome: nothing };
      // What took all the time or all the questions that there are would take them again at once.
      if (error.kind === 'timeout' || error.kind === 'limit')
        return {
          result: { outcome: 'stopped', problem: `${sentence(error.message)} Take it again when it suits, or give the zone in hand.` },
          outcome: nothing,
        };
      return { result: { outcome: 'trying', problem: sentence(error.message) }, outcome: nothing };
    }
    return { result: this.resultOf(taken), outcome: await this.outcomeOf(move.domain_id, move.id, loaded.row.id, taken) };
  }

  private resultOf({ survey }: TakenSurvey): ActResult {
    // Nothing is delegated to, and there is nothing to be found.
    const unused = survey.referrals.some((one) => one.problem === null) && survey.referrals.every((one) => one.nameservers.length === 0);
    if (survey.sets.length > 0 || unused) return { outcome: 'done', problem: null };
    const reasons = survey.authorities.map((authority) => authority.problem ?? `${authority.server} gave nothing`);
    const why = [...new Set(reasons)].join('; ') || 'no address of its nameservers is known';
    return {
      outcome: 'stopped',
      problem: `No nameserver gave anything of the zone: ${why}. See whether the domain is added at its DNS host, then try again; or give what you have of it: a zone file, a table copied from the panel, a list of names, a mail of the host, or another server that has it.`,
    };
  }

  private async outcomeOf(domainId: string, move: string, leg: string, taken: TakenSurvey): Promise<Outcome> {
    const { survey, host: dns, nameservers } = taken;
    const known = await this.hosts.list(undefined, move);
    const addresses = new Set(survey.sets.filter((set) => set.type === 'A' || set.type === 'AAAA').flatMap((set) => set.stored ?? set.data));
    const aliases = new Set(survey.sets.filter((set) => set.type === 'CNAME').flatMap((set) => set.data.map((target) => target.toLowerCase())));
    const leads = (host: (typeof known)[number]): boolean =>
      host.addresses.some((address) => addresses.has(address)) || (host.aliasTarget !== null && aliases.has(host.aliasTarget.toLowerCase()));
    const web = known.find((host) => host.role === 'web' && leads(host));
    const apex = survey.sets.find((set) => set.type === 'SOA')?.owner.toLowerCase();
    const keys = survey.sets.find((set) => set.type === 'DNSKEY' && set.owner.toLowerCase() === apex);
    const hints = survey.hints.length;
    const text = `Survey taken: ${survey.sets.length} record sets, ${GRADE_WORDS[survey.coverage.grade]}${hints === 0 ? '' : `, ${hints} ${hints === 1 ? 'sign' : 'signs'} of missing records open`}.${
      dns?.gives || sameNameSet(nameservers, [...(dns?.nameservers ?? [])]) ? '' : ' The nameservers are not those of a host we know whole.'
    }`;
    return {
      at: this.clock.now(),
      sights: sightsOf(taken),
      notes: [{ kind: 'survey', text }],
      also: async (transaction) => {
        const id = await this.surveys.add(domainId, move, survey, transaction);
        const chosen = isChosen((await this.store.legs(move, transaction)).find((one) => one.id === leg)!);
        await this.store.updateLeg(leg, { last_survey: id }, transaction);
        // Once the hosts are chosen the plan stands on its own survey; a new one is held against it.
        if (chosen) return [];
        await this.store.updateLeg(
          leg,
          {
            survey_id: id,
            old_dns_host: dns?.id ?? null,
            old_web_host: web?.id ?? null,
            old_nameservers: [...nameservers],
            old_servers: oldServers(taken),
            fronted: frontedSets(survey.sets),
            keys_ttl: keys?.ttl ?? null,
          },
          transaction,
        );
        return [];
      },
    };
  }
}

/** Every server that the parent or the zone itself names, by address; those that are only named are asked as well. */
function oldServers({ survey }: TakenSurvey): { server: string; address: string }[] {
  return survey.authorities.map(({ server, address }) => ({ server, address }));
}

/** What the survey heard of each parent server and each authority, as observations. */
function sightsOf({ survey }: TakenSurvey): Sighted[] {
  const parents = survey.referrals.map((one) =>
    parentSighted({ ...one, ttl: one.ttl ?? undefined, dsTtl: one.dsTtl ?? undefined, problem: one.problem ?? undefined }),
  );
  const zones = survey.authorities.map(({ server, address, authoritative, problem }): Sighted => {
    const base = { kind: 'zone', subject: address, server } as const;
    const sets: Record<SetKey, AnswerSight> = {};
    const heard = survey.sets.flatMap((set) => {
      const type = typeCode(set.type);
      const one = set.evidence.find((evidence) => evidence.address === address && !evidence.absent && evidence.ttl !== null);
      return one && type !== undefined && type !== TYPE_CODES.SOA && type !== TYPE_CODES.RRSIG
        ? [{ key: setKey(set.owner, set.type), ttl: one.ttl!, data: one.data ?? set.data }]
        : [];
    });
    for (const { key, ttl, data } of heard.sort((a, b) => (a.key < b.key ? -1 : 1))) sets[key] = { ttl, data: [...data].sort() };
    if (!authoritative) return { ...base, value: undefined, problem: problem ?? 'it does not answer with authority' };
    const value: ZoneSight = { serial: null, refused: false, sets };
    return { ...base, value };
  });
  return [...parents, ...zones];
}

/** Sets that the host's front answers, as it does. */
function frontedSets(sets: TakenSurvey['survey']['sets']): RRsetText[] {
  return sets.filter((set) => set.fronted !== null).map(({ owner, type, ttl, data }) => ({ owner, type, ttl, data }));
}

function givenIn({ names, sets, serial, servers }: InHandGiven): Given {
  return { names: names.map((name) => Name.parse(name)), sets: sets.map(rrsetFromText), serial, servers };
}
