import { Lookout } from '../network/lookout';
import { SiteView, WatchView } from '@wanderon/contract';
import { Leg, ParentSight, oldShare, provisionalOf, publishesNew, sameNameSet, spellingsOf, whyNotYet } from '@wanderon/core';
import { ObservationRow } from '../moves/move.rows';
import { WebsiteLookRow } from './websiteLook.store';

/** What lookouts, parent and website say of a leg. `runs`: of lookouts, as they were seen; `website`: the last look at it. */
export function watchView(leg: Leg, lookouts: readonly Lookout[], runs: readonly ObservationRow[], website: WebsiteLookRow | undefined): WatchView {
  const { chosen } = leg.plan;
  const questions = new Map((chosen ? leg.questions : []).map((question) => [question.key, question]));
  const looks = leg.seen.lookouts.filter((look) => questions.has(look.key));
  const settled = chosen && leg.settled;
  const steady = new Set([...questions.values()].filter((question) => question.steady).map((question) => question.key));
  const shown = runs.filter((run) => questions.has(run.item) && !steady.has(run.item));
  return {
    lookouts: lookouts.map(({ name, address, note, stands, over }) => ({
      name,
      address,
      note: [stands, note].filter(Boolean).join('; '),
      isAfresh: over === 'afresh',
    })),
    looks: looks.map((look) => {
      const { owner, type, steady: stays } = questions.get(look.key)!;
      return {
        lookout: look.lookout,
        owner,
        type,
        verdict: look.verdict,
        answer: [...look.answer],
        rcode: look.rcode,
        firstSeen: look.first,
        lastSeen: look.last,
        remainingTtl: look.remainingTtl,
        silent: look.silent,
        steady: stays,
      };
    }),
    parent: leg.seen.parent.map((one) => {
      const last = one.sightings.at(-1);
      return {
        server: one.server,
        address: one.address,
        nameservers: last ? shownNames(last.value) : [],
        state: !last || one.silence ? 'none' : parentState(leg, last.value),
        problem: one.silence?.problem ?? null,
        seenAt: last?.last ?? null,
      };
    }),
    settled: settled ? settled.settled : false,
    notYet: chosen ? whyNotYet(leg, website?.changes ?? []) : [],
    missing: settled ? [...settled.missing] : [],
    setAside: settled ? [...settled.setAside] : [],
    website: website
      ? { surveyedAt: website.surveyed_at, firstSeen: website.first_seen, lastSeen: website.last_seen, asked: website.looks.length, changes: website.changes }
      : null,
    site: siteView(leg),
    curve: oldShare(
      shown.map((run) => {
        const { verdict, silent } = run.value as { verdict: 'old'; silent: boolean };
        return { lookout: run.subject, key: run.item, verdict, silent, first: run.first_seen };
      }),
    ),
  };
}

function siteView({ plan, said }: Leg): SiteView {
  const domain = plan.zone.toString().replace(/\.$/, '');
  const spellings = plan.chosen ? spellingsOf(plan.zone, plan.scope, plan.rulings) : [];
  return { spellings, main: said.site.main, provisional: said.site.provisional, forms: provisionalOf(plan.newWeb?.provisional ?? '', domain) };
}

function parentState({ plan }: Leg, sight: ParentSight): 'new' | 'old' | 'other' {
  if (publishesNew(plan, sight)) return 'new';
  return sight.onlyAddresses || sameNameSet(shownNames(sight), plan.oldNameservers) ? 'old' : 'other';
}

/** An authority for the nameservers' names says where they are. */
function shownNames({ nameservers, glue, onlyAddresses }: ParentSight): string[] {
  return onlyAddresses ? glue.map((one) => `${one.name.replace(/\.$/, '')} ${one.address}`) : [...nameservers];
}
