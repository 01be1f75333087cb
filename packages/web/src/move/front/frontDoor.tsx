import { AllGivenItem, ChooseHosts, FrontView, Host, LegView, MoveView } from '@wanderon/contract';
import { TEXT_LIMIT, WayId, counted, givenKey, isFirstUse, rebuildsZone, tickedOn } from '@wanderon/core';
import { useEffect, useMemo, useState } from 'react';
import { useHosts, useMoveAction } from '../../api';
import { useNow, COARSE } from '../../time';
import { Button } from '../../ui/button';
import { inputLook } from '../../ui/field';
import { LoadFile } from '../../ui/loadFile';
import { Failed, Loading } from '../../ui/states';
import { MarkedText } from '../../reading/markedText';
import { useReading } from '../../reading/useReading';
import { stepIn } from '../movePlace';
import { AddByHand } from './addByHand';
import { Draft, EMPTY_DRAFT, draftOf, dropDraft, givenOf, keepDraft } from './draft';
import { GivenList } from './givenList';
import { NamesList } from './namesList';
import { readItems } from './readItems';
import { useFront } from './useFront';
import { WaysList } from './waysList';

const ACCEPT = '.txt,.html,.htm,.eml,.csv,.json,.zone,text/*,message/rfc822,application/json';
/** Lines of the box while nothing is in it, and with a text. */
const EMPTY_ROWS = 5;
const TEXT_ROWS = 7;

/** The front door of a leg: how the domain stands, what the new place gave, what follows from it, and the one button that makes the plan. */
export function FrontDoor({ move, leg, may, onDone, isAgain }: { move: MoveView; leg: LegView; may: boolean; onDone: () => void; isAgain: boolean }) {
  const surveyed = stepIn(leg, 'survey')?.state === 'done';
  if (!surveyed) return <p className="py-6 text-faded">Where the domain goes is asked once the survey is finished.</p>;
  return <Door move={move} leg={leg} may={may} onDone={onDone} isAgain={isAgain} />;
}

function Door({ move, leg, may, onDone, isAgain }: Parameters<typeof FrontDoor>[0]) {
  const now = useNow(COARSE);
  const hosts = useHosts(move.id);
  const [draft, setDraft] = useState<Draft | undefined>(() => draftOf(leg.id));
  const [marked, setMarked] = useState<string>();
  const zone = `${move.domain}.`;
  const subject = useMemo(() => ({ zone, as: 'new' as const, own: [] }), [zone]);
  const text = draft?.text ?? '';
  const { reading, isReading } = useReading(text, subject);
  const read = useMemo(() => readItems(text, reading), [text, reading]);
  const front = useFront(leg, draft === undefined ? null : givenOf(draft, read.items));
  const choose = useMoveAction<ChooseHosts>(move.id, 'PUT', () => '/hosts');
  // What was kept with the leg is where a draft begins.
  const kept = front.data?.given;
  const begun: Draft = draft ?? {
    ...EMPTY_DRAFT,
    ...(kept && { items: kept.items, names: kept.names, newDnsHost: kept.newDnsHost, newWebHost: kept.newWebHost }),
  };
  const change = (part: Partial<Draft>): void => setDraft((before) => ({ ...(before ?? begun), ...part }));
  useEffect(() => {
    if (draft) keepDraft(leg.id, draft);
  }, [draft, leg.id]);
  if (hosts.isPending || front.isPending || now === 0) return <Loading what="how the domain stands" />;
  if (front.isError && front.data === undefined) return <Failed error={front.error} retry={() => void front.refetch()} />;
  if (hosts.isError && hosts.data === undefined) return <Failed error={hosts.error} retry={() => void hosts.refetch()} />;
  const view = front.data!;
  const first = isFirstUse(leg);
  const way = pickedWay(begun.way, view, leg.chosen ? takenWay(leg) : undefined);
  const missing = way === undefined ? undefined : view.missing[way];
  const isOpen = (key: string): boolean =>
    view.items.some((item) => givenKey(item) === key && item.question !== null && item.taken === undefined && item.use !== 'none');
  const stays = view.web === null;
  const questions = view.items.filter((item) => isOpen(givenKey(item))).length;
  const add = (items: readonly AllGivenItem[]): void => {
    const fresh = items.filter((item) => !begun.items.some((one) => givenKey(one) === givenKey(item)));
    change({ items: [...begun.items, ...fresh], said: { ...begun.said, ...Object.fromEntries(items.map((item) => [givenKey(item), true])) } });
  };
  // Of two stages the first would leave the domain without a website.
  const mayEmpty = move.scope.kind === 'whole' && way !== undefined && (way === 'nameservers' || (view.web !== null && way !== 'nameservers first'));
  // Where mail goes today, nobody wants it declined by a tick that they did not set.
  const declineMail = begun.declineMail ?? !view.hasMail;
  const empties = mayEmpty && (first || begun.fresh);
  const adds = isAgain && view.isAddition && way === takenWay(leg) && !empties;
  const submit = (): void =>
    choose.mutate(
      {
        ...{ way: way!, newDnsHost: begun.newDnsHost, newWebHost: begun.newWebHost, given: givenOf(begun, read.items) },
        fresh: empties ? { declineMail } : null,
      },
      {
        onSuccess: () => {
          dropDraft(leg.id);
          onDone();
        },
      },
    );
  const addText = (more: string): void => change({ text: text.trim() === '' ? more : `${text.replace(/\n*$/, '')}\n\n${more}` });
  const files = async (all: readonly File[]): Promise<void> => {
    for (const file of all) if (file.size <= TEXT_LIMIT) addText(await file.text());
  };
  return (
    <section className="flex min-h-full max-w-7xl flex-col">
      <p className="mb-3 text-[1.1rem] leading-snug">{view.standing}</p>
      <div className="grid grow grid-cols-[minmax(0,5fr)_minmax(0,6fr)] gap-x-8 gap-y-4 max-md:grid-cols-1">
        <div>
          <h2 className="smallcaps mb-1 border-b border-ink">What the new place gave you</h2>
          <fieldset disabled={!may}>
            <MarkedText
              label="What the new place gave you"
              text={text}
              mark={marked === undefined ? undefined : read.lines.get(marked)}
              rows={text === '' ? EMPTY_ROWS : TEXT_ROWS}
              placeholder={'Paste the mail, page, chat or table of the new host:\nits nameservers, addresses, an alias, records to add.'}
              onChange={(typed) => change({ text: typed })}
              onFiles={(all) => void files(all)}
              onLine={(line) => setMarked([...read.lines].find(([, at]) => at.line <= line && line <= at.lastLine)?.[0])}
            />
            <p className="mt-0.5 text-sm text-faded">
              <LoadFile accept={ACCEPT} largest={TEXT_LIMIT} onText={addText} /> or drop files here.{' '}
              {move.note !== '' && !text.includes(move.note) && (
                <Button kind="quiet" className="px-0 text-sm" onClick={() => addText(move.note)}>
                  Read the note of this move
                </Button>
              )}{' '}
              <span role="status">{isReading ? 'Reading …' : givenGist(view, text, questions)}</span>
            </p>
            <div className="max-h-[15.5rem] overflow-y-auto" tabIndex={0} aria-label="What was understood, and what of it is taken" role="group">
              <GivenList
                items={view.items}
                marked={marked}
                lineOf={(key) => read.lines.get(key)?.text}
                onMark={setMarked}
                onSay={(key, taken) => change({ said: { ...begun.said, [key]: taken } })}
                onForget={(key) =>
                  read.lines.has(key) || !begun.items.some((item) => givenKey(item) === key)
                    ? undefined
                    : () => change({ items: begun.items.filter((item) => givenKey(item) !== key) })
                }
              />
            </div>
            {read.unread.length > 0 && (
              <details className="text-sm" open={read.unread.length < 3}>
                <summary className="cursor-pointer text-rust">{counted(read.unread.length, 'line was', 'lines were')} not understood, or not all of it</summary>
                <ul>
                  {read.unread.map(({ line, text: unread, problem }) => (
                    <li key={line} className="mono [overflow-wrap:anywhere]">
                      {unread} {problem !== undefined && <span className="font-sans text-faded">{problem}</span>}
                    </li>
                  ))}
                </ul>
              </details>
            )}
            <AddByHand zone={zone} onAdd={add} />
            <div className="mt-2 grid grid-cols-2 gap-3">
              <KnownHost
                title="New DNS host"
                hosts={choosable(hosts.data!, 'dns', leg)}
                value={begun.newDnsHost}
                onChange={(newDnsHost) => change({ newDnsHost })}
              />
              <KnownHost
                title="New web host"
                hosts={choosable(hosts.data!, 'web', leg)}
                value={begun.newWebHost}
                onChange={(newWebHost) => change({ newWebHost })}
              />
            </div>
          </fieldset>
        </div>
        <div className={front.isBehind ? 'opacity-70' : ''} aria-busy={front.isBehind}>
          <h2 className="smallcaps mb-1 border-b border-ink">What follows</h2>
          <p className="mb-1 leading-snug">{placesWords(view, first)}</p>
          <WaysList front={view} value={way} now={now} onChange={(picked) => change({ way: picked })} disabled={!may} />
          {mayEmpty && (
            <fieldset className="mt-1" disabled={!may}>
              {!first && (
                <label className="flex items-baseline gap-2">
                  <input type="checkbox" checked={begun.fresh} onChange={(event) => change({ fresh: event.target.checked })} />
                  <span>
                    Start from nothing <span className="text-faded">{emptyWords(way, view)}</span>
                  </span>
                </label>
              )}
              {(first || begun.fresh) && (
                <label className="flex items-baseline gap-2">
                  <input type="checkbox" checked={declineMail} onChange={(event) => change({ declineMail: event.target.checked })} />
                  <span>
                    Decline mail <span className="text-faded">a null MX, and an SPF record that lets nobody send</span>
                  </span>
                </label>
              )}
            </fieldset>
          )}
        </div>
      </div>
      {!first && (
        <div className="mt-2">
          <h2 className="mb-1 flex items-baseline gap-3 border-b border-ink">
            <span className="smallcaps">Names that show the website now</span>
            {stays && <span className="text-sm text-faded">They stay where they are until an address or an alias is given.</span>}
          </h2>
          <div className="max-h-36 overflow-y-auto" tabIndex={0} aria-label="Names that show the website" role="group">
            <NamesList front={view} disabled={!may} onTick={(owner, moves) => change({ names: { ...begun.names, [owner]: moves } })} />
          </div>
        </div>
      )}
      {choose.isError && <Failed error={choose.error} />}
      <div className="sticky bottom-0 mt-1.5 flex flex-wrap items-baseline justify-end gap-3 border-t border-rule bg-paper py-2">
        <span className="text-sm text-faded">{footWords(missing, questions, isAgain)}</span>
        {isAgain && <Button onClick={onDone}>Leave it</Button>}
        <Button kind="main" disabled={!may || way === undefined || missing !== undefined || front.isBehind || isReading || choose.isPending} onClick={submit}>
          {adds ? 'Add to the plan' : isAgain ? 'Make the plan anew' : 'Make the plan'}
        </Button>
      </div>
      {isAgain && <Stays leg={leg} adds={adds} host={hosts.data!.find((host) => host.id === leg.newDnsHost)?.name} />}
    </section>
  );
}

/** What a person picked; else what was chosen before, the first that fits, or the one that speaks for itself. */
function pickedWay(picked: WayId | undefined, view: ReturnType<typeof useFront>['data'] & object, taken: WayId | undefined): WayId | undefined {
  const isOpen = (id: WayId | undefined): boolean => view.ways.some(({ way, ruledOut }) => way === id && ruledOut === null);
  const given = view.dns !== null || view.web !== null || view.items.some(({ isTaken }) => isTaken);
  const recommended = view.recommended !== null && view.fit.includes(view.recommended) ? view.recommended : undefined;
  return [picked, taken, given ? undefined : recommended, ...view.fit].find(isOpen);
}

/** What starting from nothing comes to, and why it may be right. */
function emptyWords(way: WayId, { parked, hasMail }: FrontView): string {
  const records = way === 'nameservers' ? 'none of the records that are there is rebuilt' : 'the records that are there are taken out';
  const goes = hasMail ? `${records}, and mail ends` : records;
  return parked === null ? goes : `${goes}. The page there calls itself “${parked}”`;
}

function takenWay({ kind, account, next }: LegView): WayId {
  if (account) return 'another account';
  if (!next) return kind === 'repoint' ? 'repoint' : 'nameservers';
  return kind === 'repoint' ? 'website first' : 'nameservers first';
}

/** Hosts to choose from: not where the domain is now, and of DNS hosts only those with nameservers; where Wanderon has a key comes first. */
function choosable(hosts: readonly Host[], role: Host['role'], leg: LegView): Host[] {
  return hosts
    .filter(
      (host) =>
        host.role === role &&
        host.ofMove === null &&
        (role === 'web' ? host.id !== leg.oldWebHost : host.nameservers.length > 0 || host.habits.nameservers === 'by domain'),
    )
    .sort((a, b) => Number(b.keyName !== null) - Number(a.keyName !== null));
}

/** A host that somebody described, in the place of what was given. */
function KnownHost({ title, hosts, value, onChange }: { title: string; hosts: readonly Host[]; value: string | null; onChange: (id: string | null) => void }) {
  if (hosts.length === 0) return null;
  return (
    <label className="min-w-0">
      <span className="block text-sm text-faded">{title}, if known</span>
      <select aria-label={title} className={inputLook} value={value ?? ''} onChange={(event) => onChange(event.target.value || null)}>
        <option value="">by what was given</option>
        {hosts.map((host) => (
          <option key={host.id} value={host.id}>
            {host.name}
            {host.role === 'dns' ? (host.keyName !== null ? ', with a key' : ', typed by hand') : ''}
            {host.role === 'dns' && !host.holdsEarly ? ', no zone before it is delegated' : ''}
          </option>
        ))}
      </select>
    </label>
  );
}

function placesWords({ dns, web, items }: NonNullable<ReturnType<typeof useFront>['data']>, first: boolean): string {
  const same = items.some((item) => item.isTaken && item.use === 'nameserver') && dns === null;
  const dnsWords = dns
    ? dns.keyed
      ? `The domain goes to ${dns.name}: Wanderon has a key and writes the zone itself.`
      : `The domain goes to ${dns.name}: its records are typed there from a sheet.`
    : same
      ? 'The domain has these nameservers already.'
      : '';
  const webWords = web ? `The website goes to ${web.name}.` : dns ? 'The website stays where it is: no address and no alias was given.' : '';
  const words = [dnsWords, webWords].filter((one) => one !== '').join(' ');
  if (words !== '') return words;
  return first ? 'Give the nameservers, and where the website is to be.' : 'Nothing was given yet. These are the ways there are.';
}

function givenGist({ items }: NonNullable<ReturnType<typeof useFront>['data']>, text: string, questions: number): string {
  if (text.trim() !== '' && items.length === 0) return 'Nothing was understood in it. Add what it says by hand below.';
  if (questions > 0) return questions === 1 ? 'One thing is asked about.' : `${questions} things are asked about.`;
  return '';
}

function footWords(missing: string | undefined, questions: number, isAgain: boolean): string {
  if (missing !== undefined) return `Still missing: ${missing}.`;
  if (questions > 0)
    return `${questions === 1 ? 'What is asked about is' : 'The things asked about are'} left out unless you tick ${questions === 1 ? 'it' : 'them'}.`;
  return isAgain ? '' : 'All of it can be changed afterwards.';
}

/** What becomes of what was decided and done for the plan so far. */
function Stays({ leg, adds, host }: { leg: LegView; adds: boolean; host: string | undefined }) {
  const sent = (id: string): boolean => leg.sent.includes(id);
  const words = [
    'What you decided for single rows stays, unless what is given now asks for something else there.',
    !adds && leg.approved && 'The timetable is approved anew.',
    !adds && sent('lower') && 'TTLs that were lowered stay low, and are raised at the end.',
    !adds &&
      rebuildsZone(leg) &&
      (sent('push') || tickedOn('records', leg.ticks).length > 0) &&
      host &&
      `The zone at ${host} stays there until somebody takes it out: that is a step then.`,
  ].filter((one) => typeof one === 'string');
  return <p className="mt-1 text-sm text-faded">{words.join(' ')}</p>;
}
