import { Name, RRsetText, rrsetFromText, sameNameSet } from '@wanderon/core';
import { NetError } from '@wanderon/net';
import { Given } from '../../survey/surveyWorld';
import { TakenSurvey } from '../../survey/takeSurvey';
import { InHandGiven } from '../../survey/inHand.store';
import { sentence } from '../outward';
import { StepWork } from '../stepContext';

/** Takes the first survey and recognises the hosts the domain stands at. */
export const survey: StepWork = async (context) => {
  const { config, hosts, zone, clock, store, surveys, leg, move } = context;
  const known = await hosts.list();
  const given = givenIn(await context.inHand.latest(leg.id));
  let taken: TakenSurvey;
  try {
    taken = await context.surveyor.take({ move: move.id }, zone, { given, pages: leg.facts.pages ?? [] });
  } catch (error) {
    if (error instanceof NetError && error.kind === 'cancelled' && !context.surveyor.closing)
      return { state: 'failed', problem: 'It was stopped. A survey taken before stands; take it again when it suits.' };
    if (error instanceof NetError) return { state: 'wait', until: clock.now() + config.WANDERON_LOOK_EVERY, problem: sentence(error.message) };
    throw error;
  }
  const dns = taken.host;
  const addresses = new Set(taken.survey.sets.filter((set) => set.type === 'A' || set.type === 'AAAA').flatMap((set) => set.stored ?? set.data));
  const aliases = new Set(taken.survey.sets.filter((set) => set.type === 'CNAME').flatMap((set) => set.data.map((target) => target.toLowerCase())));
  const web = known.find(
    (host) =>
      host.role === 'web' && (host.addresses.some((address) => addresses.has(address)) || (host.aliasTarget && aliases.has(host.aliasTarget.toLowerCase()))),
  );
  await store.database.transaction(async (transaction) => {
    const id = await surveys.add(move.domain_id, move.id, taken.survey, transaction);
    await transaction('legs')
      .where({ id: leg.id })
      .update({ survey_id: id, old_dns_host: dns?.id ?? null, old_web_host: web?.id ?? null, old_nameservers: JSON.stringify(taken.nameservers) });
    await store.addFacts(
      leg.id,
      { lastSurvey: id, P: taken.P, C: taken.C, N: taken.N, ds: taken.ds, oldAuthorities: [...taken.authorities], fronted: unknownValues(taken.survey.sets) },
      transaction,
    );
  });
  if (taken.survey.sets.length === 0) {
    const reasons = taken.survey.authorities.map((authority) => authority.problem ?? `${authority.server} gave nothing`);
    return {
      state: 'failed',
      problem: `No authority gave anything of the zone: ${[...new Set(reasons)].join('; ')}. See whether the domain is added at its DNS host, then take the survey again.`,
    };
  }
  await context.note(
    'survey',
    `Survey taken: ${taken.survey.sets.length} record sets, ${taken.survey.coverage.grade}${hintWords(taken.survey.hints.length)}.${sameNameSet(taken.nameservers, [...(dns?.nameservers ?? [])]) ? '' : ' The nameservers are not those of a host we know whole.'}`,
  );
  return { state: 'done' };
};

/** Sets of which only the answers of the host's front are known. */
function unknownValues(sets: TakenSurvey['survey']['sets']): RRsetText[] {
  return sets.filter((set) => set.fronted !== null && set.stored === null).map(({ owner, type, ttl, data }) => ({ owner, type, ttl, data }));
}

function givenIn({ names, sets, serial }: InHandGiven): Given {
  return { names: names.map((name) => Name.parse(name)), sets: sets.map(rrsetFromText), serial };
}

function hintWords(hints: number): string {
  return hints === 0 ? '' : `, ${hints} ${hints === 1 ? 'hint' : 'hints'} open`;
}
