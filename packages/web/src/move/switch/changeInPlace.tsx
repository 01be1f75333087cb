import { LedgerView, RulingView } from '@wanderon/contract';
import { STARTING_TTL, isHostsOwn } from '@wanderon/core';
import { Link } from 'react-router';
import { useHosts, useMoveAction } from '../../api';
import { duration, shortTime } from '../../time';
import { Button } from '../../ui/button';
import { Copy } from '../../ui/copy';
import { Failed } from '../../ui/states';
import { VerdictMark } from '../../ui/verdictMark';
import { ChapterSteps } from '../chapterSteps';
import { LedgerProps } from '../movePlace';
import { ownerBelow } from '../owner';
import { slipsAt } from '../rebuild/ledgerRow';
import { WebsiteLook } from '../watch/websiteLook';
import { BackOut } from './backOut';
import { GateLines } from './gateLine';
import { gateWords } from './gateWords';
import { Parent } from './switch';

/** Records that change where they are: what is deleted, set and added, whether it may be yet, and what each authority serves. */
export function ChangeInPlace({ move, leg, now, may }: LedgerProps) {
  const submitted = useMoveAction<void>(move.id, 'POST', () => '/submitted');
  const hosts = useHosts(move.id);
  if (!leg.chosen) return <p className="py-6 text-faded">What changes is known once the way is chosen.</p>;
  const { t0, ts } = leg.seen;
  const host = hosts.data?.find((one) => one.id === (leg.account ? leg.newDnsHost : leg.oldDnsHost));
  const where = host?.name ?? 'the DNS host';
  const open = ts === null && t0 === null;
  return (
    <section>
      <h2 className="text-[1.25rem] leading-tight">{headline(leg)}</h2>
      <p className="mb-3 text-faded">{intro(leg, where, now)}</p>
      <ChapterSteps leg={leg} chapter="switch" move={move} may={may} />
      <div className="grid grid-cols-[3fr_2fr] gap-10 max-lg:grid-cols-1">
        <div>
          <h3 className="smallcaps border-b border-ink">What changes at {where}</h3>
          <Changes leg={leg} domain={move.domain} begun={!open} />
          {may && open && (
            <div className="mt-3">
              <Button kind="main" disabled={!leg.gate.open || submitted.isPending} onClick={() => submitted.mutate()}>
                {submitted.isPending
                  ? 'Looking once more …'
                  : leg.account
                    ? 'The other account takes over now'
                    : leg.byHand
                      ? 'I am changing them now'
                      : 'Change the records now'}
              </Button>
            </div>
          )}
          {leg.byHand && (
            <p className="mt-2">
              <Link className="text-accent underline" to={`/moves/${move.id}/sheet`}>
                Handover sheet
              </Link>
              : each field as the panel wants it, to copy and tick.
            </p>
          )}
          {submitted.isError && <Failed error={submitted.error} />}
          {may && !open && <BackOut move={move.id} leg={leg} />}
        </div>
        <div>
          <h3 className="smallcaps border-b border-ink">{open ? 'Checks' : 'What each nameserver gives'}</h3>
          {open ? <GateLines gate={leg.gate} may={may} move={move.id} /> : <Authorities served={leg.served} domain={move.domain} />}
          <div className="mt-5">
            <WebsiteLook move={move} now={now} may={may} />
          </div>
          <div className="mt-5">
            <h3 className="smallcaps border-b border-ink">Where the registry delegates</h3>
            <Parent watch={move.watch} same />
          </div>
        </div>
      </div>
    </section>
  );
}

function headline(leg: LedgerProps['leg']): string {
  const { t0, ts } = leg.seen;
  if (leg.account) return takeoverHeadline(leg);
  if (leg.isBack) return t0 ? `Every nameserver gives the old values again since ${shortTime(t0.firstNew)}` : 'Setting the old values back';
  if (t0 && leg.unseen.length > 0) return `Changed ${shortTime(t0.firstNew)}, by the word of whoever did it`;
  if (t0) return `Every nameserver gives the new values since ${shortTime(t0.firstNew)}`;
  if (ts !== null) return 'Waiting until every nameserver gives the new values';
  return leg.gate.open ? 'Everything is ready: change the records' : 'Not ready to change yet';
}

function takeoverHeadline({ seen: { t0, ts }, gate }: LedgerProps['leg']): string {
  if (t0) return `Every nameserver gives the whole plan since ${shortTime(t0.firstNew)}`;
  if (ts !== null) return 'Waiting until every nameserver gives the whole plan';
  return gate.open ? 'Everything is ready: the other account can take over' : 'Not ready to change yet';
}

function intro(leg: LedgerProps['leg'], where: string, now: number): string {
  const { t0, ts } = leg.seen;
  if (t0) return 'Old answers drain away from here on.';
  if (ts !== null && leg.account) return `Begun ${shortTime(ts)}: every server is asked for every planned set.`;
  if (ts !== null) return leg.byHand ? `Begun ${shortTime(ts)}, by hand.` : `Decided ${shortTime(ts)}.`;
  if (!leg.gate.open) return gateWords(leg.gate, now, 'change');
  if (leg.account) return `Say so before the live account at ${where} lets go: from then on new answers may be given, or none.`;
  return leg.byHand
    ? `It is done in the panel of ${where}. Say when you begin: from then on new answers may be given.`
    : `Wanderon sends the update to ${where} once you say so.`;
}

/** The changes in an order that panels allow: what goes first, then what is set anew, then what is added. */
function Changes({ leg, domain, begun }: { leg: LedgerProps['leg']; domain: string; begun: boolean }) {
  const { byHand } = leg;
  const rank = { drop: 0, repoint: 1, new: 2, carry: 3 };
  const rows = leg.rulings.filter((row) => row.ruling !== 'carry' && !isHostsOwn(row)).sort((a, b) => rank[a.ruling] - rank[b.ruling]);
  if (rows.length === 0)
    return (
      <p className="py-2 text-faded">{leg.account ? 'No value: every record set is typed again as it is.' : 'Nothing: say in Rebuild what is to change.'}</p>
    );
  return (
    <ol>
      {rows.map((row) => (
        <li key={row.id} className="grid grid-cols-[4rem_9rem_1fr_auto] items-baseline gap-3 border-b border-rule py-1 max-md:grid-cols-[4rem_1fr]">
          <span className={row.ruling === 'drop' ? 'text-rust' : 'font-semibold text-accent'}>{WORDS[row.ruling]}</span>
          <span className="mono break-words">
            <b className="font-semibold">{ownerBelow(row.owner, domain)}</b> <span className="text-faded">{row.type}</span>
          </span>
          <span className="mono min-w-0 break-words">
            {row.found?.data.map((one) => (
              <span key={one} className="block text-faded line-through">
                {one}
              </span>
            ))}
            {row.planned?.data.map((one) => (
              <span key={one} className="block font-semibold">
                {one} {byHand && <Copy value={one} label={`${ownerBelow(row.owner, domain)} ${row.type}`} />}
              </span>
            ))}
            {byHand && row.planned && (
              <span className="block text-sm text-faded">TTL {duration(Math.min(row.planned.ttl, STARTING_TTL))} until finished everywhere</span>
            )}
          </span>
          <ServedBy served={leg.served} row={row} />
          {begun &&
            slipsAt(leg.served, row, true).map((slip) => (
              <span key={slip} className="col-start-3 col-end-[-1] text-rust max-md:col-start-2">
                {slip}
              </span>
            ))}
        </li>
      ))}
    </ol>
  );
}

const WORDS = { drop: 'delete', repoint: 'set', new: 'add', carry: '' };

function ServedBy({ served, row }: { served: LedgerView['served']; row: RulingView }) {
  if (!served) return <span />;
  const differs = (server: (typeof served.servers)[number]): boolean =>
    server.problem !== null || server.differs.some((set) => set.owner === row.owner && set.type === row.type);
  const good = served.servers.filter((server) => !differs(server)).length;
  const all = served.servers.length;
  return (
    <span className="inline-flex items-center gap-1.5 whitespace-nowrap">
      <VerdictMark verdict={good === all ? 'new' : good === 0 ? 'old' : 'mixed'} size={12} />{' '}
      {good === all ? 'new' : good === 0 ? 'old' : `new at ${good} of ${all}`}
    </span>
  );
}

function Authorities({ served, domain }: { served: LedgerView['served']; domain: string }) {
  if (!served) return <p className="py-1.5 text-faded">They were not asked yet.</p>;
  return (
    <ul>
      {served.servers.map((server) => (
        <li key={server.address} className="grid grid-cols-[5rem_1fr] gap-3 border-b border-rule py-1">
          <span className="inline-flex items-center gap-1.5">
            <VerdictMark verdict={server.problem !== null ? 'none' : server.differs.length === 0 ? 'new' : 'old'} size={12} />
            {server.problem !== null ? 'none' : server.differs.length === 0 ? 'new' : 'not all'}
          </span>
          <span>
            {server.server.replace(/\.$/, '')} <span className="mono text-faded">{server.address}</span>
            {server.problem !== null && <span className="block text-sm text-rust">{server.problem}</span>}
            {server.differs.slice(0, 6).map((set) => (
              <span key={`${set.owner}/${set.type}`} className="mono block break-words text-faded">
                {ownerBelow(set.owner, domain)} {set.type} {set.data.join(', ') || 'nothing'}
              </span>
            ))}
            {server.differs.length > 6 && <span className="block text-faded">and {server.differs.length - 6} more</span>}
          </span>
        </li>
      ))}
    </ul>
  );
}
