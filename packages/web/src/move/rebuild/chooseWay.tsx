import { ComparedWayView, Host, LegView, MoveView } from '@wanderon/contract';
import { WayId, isFirstUse, isSamePlace, listWords, rebuildsZone } from '@wanderon/core';
import { ReactNode, useState } from 'react';
import { Link } from 'react-router';
import { useHosts, useMoveAction, useWays } from '../../api';
import { duration } from '../../time';
import { Button } from '../../ui/button';
import { DerivedTime } from '../../ui/derivation';
import { Failed, Loading } from '../../ui/states';
import { stepIn } from '../movePlace';

type Choosing = { way: WayId; newDnsHost: string | null; newWebHost: string | null; fresh: { declineMail: boolean } | null };

/** The ways open to a domain, side by side with what each costs, and where it goes. */
export function ChooseWay({ move, leg, may, onDone, cancel }: { move: MoveView; leg: LegView; may: boolean; onDone: () => void; cancel: boolean }) {
  const surveyed = stepIn(leg, 'survey')?.state === 'done';
  if (!surveyed) return <p className="py-6 text-faded">The way is chosen once the survey is finished.</p>;
  return <Ways move={move} leg={leg} may={may} onDone={onDone} cancel={cancel} />;
}

function Ways({ move, leg, may, onDone, cancel }: { move: MoveView; leg: LegView; may: boolean; onDone: () => void; cancel: boolean }) {
  const hosts = useHosts();
  const ways = useWays(leg);
  // What was meant for this leg when the first one was chosen is proposed again.
  const meant = move.legs.length > 1 && !leg.chosen ? move.legs.at(-2)!.next : null;
  const [way, setWay] = useState<WayId | undefined>(meant ? wayOf(meant.kind) : leg.chosen ? takenWay(leg) : undefined);
  const [dns, setDns] = useState(meant?.newDnsHost ?? (rebuildsZone(leg) ? leg.newDnsHost : leg.next?.newDnsHost) ?? '');
  const [web, setWeb] = useState<string | undefined>(meant?.newWebHost ?? (leg.chosen ? (leg.newWebHost ?? leg.next?.newWebHost ?? '') : undefined));
  const first = isFirstUse(leg);
  const [fresh, setFresh] = useState(false);
  const [declineMail, setDeclineMail] = useState(true);
  const choose = useMoveAction<Choosing>(move.id, 'PUT', () => '/hosts');
  if (hosts.isPending || ways.isPending) return <Loading what="the ways" />;
  if (hosts.isError && hosts.data === undefined) return <Failed error={hosts.error} retry={() => void hosts.refetch()} />;
  if (ways.isError && ways.data === undefined) return <Failed error={ways.error} retry={() => void ways.refetch()} />;
  const { recommended, reason, website } = ways.data;
  const taken = way ?? recommended ?? undefined;
  const inPlace = taken === 'repoint';
  const takeover = taken === 'another account';
  const inTurn = taken === 'nameservers first' || taken === 'website first';
  const offered = ways.data.ways.filter((one) => move.legs.length === 1 || (one.way !== 'nameservers first' && one.way !== 'website first'));
  const name = (id: string | null): string | undefined => hosts.data.find((host) => host.id === id)?.name;
  const list = (role: Host['role'], old: string | null): Host[] =>
    hosts.data
      .filter((host) => host.role === role && host.id !== old && (role !== 'dns' || host.nameservers.length > 0 || host.habits.nameservers === 'by domain'))
      // Where Wanderon can push comes first; each group stays in the order of names.
      .sort((a, b) => Number(b.keyName !== null) - Number(a.keyName !== null));
  // An account is one of a host that has these nameservers.
  const here = hosts.data.filter(
    (host) => host.role === 'dns' && isSamePlace({ nameservers: leg.oldNameservers, addresses: [] }, { nameservers: host.nameservers, addresses: [] }),
  );
  const account = here.find((host) => host.id === dns) ?? here.find((host) => host.id === leg.oldDnsHost) ?? here[0];
  const chosenDns = takeover ? (account?.id ?? '') : dns;
  const complete = inPlace ? !!web : taken !== undefined && chosenDns !== '' && (inTurn ? !!web : web !== undefined);
  return (
    <section className="max-w-7xl">
      <h2 className="text-[1.25rem] leading-tight">Choose the way {move.shown} goes</h2>
      <p className="mb-3 text-faded">
        {first
          ? 'Nothing is delegated to yet.'
          : `It stands at ${name(leg.oldDnsHost) ?? `nameservers of no host we know (${leg.oldNameservers.join(', ')})`}, ${websiteWords(name(leg.oldWebHost), website)}.`}{' '}
        {reason}
      </p>
      <Compared ways={offered} recommended={recommended} value={taken} onChange={setWay} disabled={!may} />
      <div className="mt-5 grid grid-cols-2 gap-8 max-md:grid-cols-1">
        {takeover && <Choice title="The accounts are at" hosts={here} value={chosenDns} onChange={setDns} disabled={!may} />}
        {taken !== undefined && !inPlace && !takeover && (
          <Choice title="New DNS host" hosts={list('dns', leg.oldDnsHost)} value={dns} onChange={setDns} disabled={!may} />
        )}
        {taken !== undefined && (
          <Choice
            title="New web host"
            hosts={list('web', leg.oldWebHost)}
            value={web}
            onChange={setWeb}
            disabled={!may}
            {...(inPlace || inTurn ? {} : { none: 'The website stays where it is' })}
          />
        )}
      </div>
      {taken === 'nameservers' && (
        <fieldset className="mt-4 flex flex-wrap gap-x-8" disabled={!may}>
          {!first && (
            <label className="flex items-baseline gap-2">
              <input type="checkbox" checked={fresh} onChange={(event) => setFresh(event.target.checked)} />
              Start from nothing: what stands there is only parking
            </label>
          )}
          {(first || fresh) && (
            <label className="flex items-baseline gap-2">
              <input type="checkbox" checked={declineMail} onChange={(event) => setDeclineMail(event.target.checked)} />
              <span>
                Decline mail <span className="text-faded">a null MX, and an SPF record that lets nobody send</span>
              </span>
            </label>
          )}
        </fieldset>
      )}
      {choose.isError && <Failed error={choose.error} />}
      <div className="mt-5 flex gap-2">
        <Button
          kind="main"
          disabled={!may || !complete || choose.isPending}
          onClick={() =>
            choose.mutate(
              {
                ...{ way: taken!, newDnsHost: inPlace ? null : chosenDns, newWebHost: web || null },
                fresh: taken === 'nameservers' && (first || fresh) ? { declineMail } : null,
              },
              { onSuccess: onDone },
            )
          }
        >
          {cancel ? 'Propose the rulings anew' : 'Propose the rulings'}
        </Button>
        {cancel && <Button onClick={onDone}>Leave it</Button>}
      </div>
      {cancel && <Stays leg={leg} host={name(leg.newDnsHost)} />}
    </section>
  );
}

/** What becomes of what was decided and done for the way so far. */
function Stays({ leg, host }: { leg: LegView; host: string | undefined }) {
  const sent = (id: string): boolean => leg.sent.includes(id);
  const words = [
    'Rulings made by hand are replaced.',
    leg.approved && 'The timetable is approved anew.',
    sent('lower') && 'TTLs that were lowered stay low, and are raised at the end.',
    rebuildsZone(leg) && (sent('push') || leg.typed.length > 0) && host && `The zone at ${host} stays there until somebody takes it out: that is a step then.`,
  ].filter((one) => typeof one === 'string');
  return <p className="mt-1 text-sm text-faded">{words.join(' ')}</p>;
}

function backOut({ back, backWords, delegationBack }: ComparedWayView): string {
  const records = back === null ? 'no bound is known' : `${duration(back)}: ${backWords}`;
  return delegationBack === null ? records : `${records}; the nameservers set back at the registrar, ${duration(delegationBack)} at least`;
}

function wayOf(kind: LegView['kind']): WayId {
  return kind === 'repoint' ? 'repoint' : 'nameservers';
}

function takenWay({ kind, account, next }: LegView): WayId {
  if (account) return 'another account';
  if (!next) return wayOf(kind);
  return kind === 'repoint' ? 'website first' : 'nameservers first';
}

/** A column a way, a line a question: what the answers differ in stands side by side. */
function Compared({
  ways,
  recommended,
  value,
  onChange,
  disabled,
}: {
  ways: readonly ComparedWayView[];
  recommended: WayId | null;
  value: WayId | undefined;
  onChange: (way: WayId) => void;
  disabled: boolean;
}) {
  const lines: [string, (way: ComparedWayView) => ReactNode][] = [
    ['Changes hands', (way) => way.changes],
    [
      'Sound',
      (way) =>
        way.untilSound === null ? 'no bound is known' : way.untilSound < 1 ? 'now, as the TTLs are' : `${duration(way.untilSound)} after the TTLs are lowered`,
    ],
    [
      'Settled',
      (way) => (
        <>
          {way.settling === null ? 'no bound is known: ' : `${way.settling < 1 ? 'at once' : duration(way.settling)} after the cutover: `}
          <DerivedTime derived={way.untilSettled} />
          <span className="text-faded"> if lowered now</span>
        </>
      ),
    ],
    ['Back out', backOut],
    [
      'Against it',
      (way) =>
        way.against.length === 0
          ? 'nothing is known'
          : way.against.map((one) => (
              <span key={one} className="block">
                {one}
              </span>
            )),
    ],
    ['Meanwhile', (way) => way.meanwhile],
    ['Who', (way) => way.who],
  ];
  return (
    <table className="w-full table-fixed max-md:block" aria-label="The ways side by side">
      <thead>
        <tr className="border-b border-ink align-baseline">
          <td className="w-28" />
          {ways.map((way) => (
            <th key={way.way} scope="col" className={`px-3 py-1.5 text-left ${value === way.way ? 'bg-shade' : ''}`}>
              <label className={`flex items-baseline gap-2 ${way.ruledOut ? 'text-faded' : 'cursor-pointer'}`}>
                <input
                  type="radio"
                  name="way"
                  value={way.way}
                  disabled={disabled || way.ruledOut !== null}
                  checked={value === way.way}
                  onChange={() => onChange(way.way)}
                />
                <span className="font-semibold">
                  {way.title}
                  {recommended === way.way && <span className="block font-normal text-accent">recommended</span>}
                  {way.ruledOut !== null && <span className="block font-normal text-rust">{way.ruledOut}</span>}
                </span>
              </label>
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {lines.map(([title, show]) => (
          <tr key={title} className="border-b border-rule align-baseline">
            <th scope="row" className="py-1.5 pr-3 text-left font-normal text-faded">
              {title}
            </th>
            {ways.map((way) => (
              <td key={way.way} className={`px-3 py-1.5 ${value === way.way ? 'bg-shade' : ''} ${way.ruledOut ? 'text-faded' : ''}`}>
                {way.ruledOut ? '—' : show(way)}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** The first of them, and how many more: enough to know the host by. */
function Values({ values }: { values: readonly string[] }) {
  return (
    <span className="mono min-w-0 truncate text-faded" title={values.join(', ')}>
      {values[0]}
      {values.length > 1 && ` +${values.length - 1}`}
    </span>
  );
}

function Choice({
  title,
  hosts,
  value,
  onChange,
  disabled,
  none,
}: {
  title: string;
  hosts: readonly Host[];
  value: string | undefined;
  onChange: (id: string) => void;
  disabled: boolean;
  none?: string;
}) {
  return (
    <fieldset disabled={disabled}>
      <legend className="smallcaps w-full border-b border-ink">{title}</legend>
      {hosts.map((host) => (
        <label
          key={host.id}
          className="grid cursor-pointer grid-cols-[auto_10rem_1fr_auto] items-baseline gap-2 border-b border-rule py-1 has-checked:bg-shade max-md:grid-cols-[auto_1fr]"
        >
          <input type="radio" name={title} checked={value === host.id} onChange={() => onChange(host.id)} />
          <b className="font-semibold">{host.name}</b>
          <Values values={(host.role === 'dns' ? host.nameservers : host.addresses).map((text) => text.replace(/\.$/, ''))} />
          {host.role === 'dns' && !host.holdsEarly && <span className="text-sm whitespace-nowrap text-rust">no zone before it is delegated</span>}
          {host.role === 'dns' && host.holdsEarly && !host.keyName && <span className="text-sm whitespace-nowrap text-rust">typed by hand</span>}
          {host.role === 'web' && host.tasks.length > 0 && <span className="text-sm whitespace-nowrap text-faded">{host.tasks.length} tasks</span>}
        </label>
      ))}
      {none && (
        <label className="flex cursor-pointer items-baseline gap-2 border-b border-rule py-1.5 has-checked:bg-shade">
          <input type="radio" name={title} checked={value === ''} onChange={() => onChange('')} />
          {none}
        </label>
      )}
      {hosts.length === 0 && (
        <p className="py-2">
          None is known yet.{' '}
          <Link className="text-accent underline" to="/hosts">
            Add one at Hosts.
          </Link>
        </p>
      )}
    </fieldset>
  );
}

/** Where the website is: at a host that somebody described, else where the domain and www lead. */
function websiteWords(host: string | undefined, website: readonly string[]): string {
  if (host) return `its website at ${host}`;
  return website.length > 0 ? `its website at ${listWords(website)}` : 'and neither the domain nor www leads anywhere';
}
