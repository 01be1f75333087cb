import { LookView } from '@wanderon/contract';
import { Link } from 'react-router';
import { useMoveAction } from '../../api';
import { duration, fullTime, relative, shortTime } from '../../time';
import { Button } from '../../ui/button';
import { DerivedTime } from '../../ui/derivation';
import { useToast } from '../../ui/toast';
import { VerdictMark, VerdictWord } from '../../ui/verdictMark';
import { AskedNote } from '../asked/askedNote';
import { ChapterSteps } from '../chapterSteps';
import { KeepPlaces } from '../keepPlaces';
import { ChapterProps, stepIn } from '../movePlace';
import { ownerBelow } from '../owner';
import { StepNote } from '../stepNote';
import { Parent } from '../switch/switch';
import { Curve } from './curve';
import { NotYet } from './notYet';
import { WebsiteLook } from './websiteLook';

/** What every lookout says of every name that changes, until when it may, and when it is over. */
export function Watch({ move, leg, me, now, may }: ChapterProps) {
  const next = useMoveAction<void>(move.id, 'POST', () => '/next');
  const close = useMoveAction<void>(move.id, 'POST', () => '/close');
  const { fail, say } = useToast();
  const { watch } = move;
  const { times } = leg;
  if (!watch || !times) return <p className="py-6 text-faded">What is watched is known once the way is chosen.</p>;
  const questions = [...new Map(watch.looks.map((look) => [`${look.owner}/${look.type}`, look])).values()].sort(
    (a, b) => Number(a.steady) - Number(b.steady) || rank(a) - rank(b) || a.owner.length - b.owner.length,
  );
  const changing = watch.looks.filter((look) => !look.steady && !look.silent);
  const fresh = changing.filter((look) => look.verdict === 'new').length;
  const watched = questions.filter((question) => !question.steady && !(question.type === 'NS' && question.owner === `${move.domain}.`)).length;
  /** Somebody else's resolver is among them. */
  const isOutside = watch.lookouts.some((one) => !one.isAfresh);
  const mail = watch.looks.filter((look) => look.steady);
  const mailWell = mail.every((look) => look.verdict === 'new');
  // Where nothing had to be forgotten there is nothing to draw.
  const until = times.last.at ?? now;
  const ready = stepIn(leg, 'close')?.state === 'ready';
  const goesOn = stepIn(leg, 'next-leg')?.state === 'ready';
  const cell = (lookout: string, question: LookView): LookView | undefined =>
    watch.looks.find((look) => look.lookout === lookout && look.owner === question.owner && look.type === question.type);
  return (
    <section>
      <div className="mb-3 flex items-start justify-between gap-6">
        <div>
          <h2 className="text-[1.25rem] leading-tight">
            {move.state === 'closed'
              ? 'The move is closed'
              : watch.settled
                ? 'Finished everywhere'
                : leg.seen.t0
                  ? changing.length > 0
                    ? `${fresh} of ${changing.length} answers are new`
                    : 'Waiting until old answers have run out'
                  : `Before the ${leg.kind === 'repoint' ? 'change' : 'switch'}: this is how it stands`}
          </h2>
          <p className="text-faded">
            {leg.isBack && 'Going back: “new” is what it goes back to. '}
            {watch.settled
              ? settledWords(changing.length > 0, isOutside)
              : leg.seen.t0
                ? 'Old answers run out by themselves.'
                : isOutside
                  ? 'Resolvers are asked once the TTLs are seen lowered, so that what changes later can be seen.'
                  : 'What the nameservers answer tells when it is over.'}
            {!watch.settled && leg.seen.t0 && (
              <>
                {' '}
                {times.last.at === null ? (
                  'No end is in sight: '
                ) : (
                  <>
                    Over <b className="text-ink">{relative(times.last.at, now)}</b>,{' '}
                  </>
                )}
                <DerivedTime derived={times.last} />.
              </>
            )}
          </p>
          {mail.length > 0 && (
            <p>
              {mailWell ? (
                'Mail records answer unchanged at every resolver.'
              ) : (
                <span className="font-semibold text-rust">Mail records do not answer as planned at every resolver.</span>
              )}
            </p>
          )}
          {watch.looks.length > 0 && watched < times.sets && (
            <p>
              Resolvers are asked for {watched} of the {times.sets} record sets that change, nameservers for all.
            </p>
          )}
          {watch.setAside.length > 0 && <p>Not waited for, since they do not answer: {watch.setAside.join(', ')}.</p>}
        </div>
        {may && goesOn && (
          <Button
            kind="main"
            disabled={next.isPending}
            onClick={() => next.mutate(undefined, { onError: fail, onSuccess: () => say('The second stage is begun.') })}
          >
            Begin the second stage
          </Button>
        )}
        {may && ready && (
          <Button kind="main" onClick={() => close.mutate(undefined, { onError: fail, onSuccess: () => say('The move is closed.') })}>
            Close the move
          </Button>
        )}
      </div>
      <StepNote step={stepIn(leg, 'switch')?.state === 'doing' ? stepIn(leg, 'switch') : undefined} leg={leg} move={move.id} may={may} />
      <StepNote step={stepIn(leg, 'served')?.state === 'doing' ? stepIn(leg, 'served') : undefined} leg={leg} move={move.id} may={may} />
      <StepNote step={stepIn(leg, 'changed')?.state === 'doing' ? stepIn(leg, 'changed') : undefined} leg={leg} move={move.id} may={may} />
      <ChapterSteps leg={leg} chapter="watch" move={move} may={may} elsewhere={['close', 'next-leg']} />
      {!isOutside && (
        <p className="my-2 text-faded">
          No resolver of visitors is asked: what those still give is worked out from what the nameservers answered, and not seen.{' '}
          <Link to="/resolvers" className="text-accent underline">
            Add resolvers
          </Link>
        </p>
      )}
      {watch.looks.length > 0 && (
        <div className="overflow-x-auto">
          <table className="w-full">
            <thead>
              <tr className="border-b border-ink text-left align-bottom">
                <th className="smallcaps py-1 pr-4">Resolver</th>
                {questions.map((question) => (
                  <th key={question.owner + question.type} className="max-w-32 pr-3 pb-1 font-normal">
                    <span className="mono block break-all font-semibold">{ownerBelow(question.owner, move.domain)}</span>
                    <span className="mono text-faded">{question.type}</span>
                    {question.steady && <span className="text-sm text-faded"> stays</span>}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {watch.lookouts.map((lookout) => (
                <tr key={lookout.name} className="border-b border-rule align-baseline">
                  <td className="py-1 pr-4 whitespace-nowrap" title={lookout.address}>
                    <span className="font-semibold">{lookout.name}</span> <span className="text-sm text-faded max-xl:block max-md:hidden">{lookout.note}</span>
                  </td>
                  {questions.map((question) => (
                    <td key={question.owner + question.type} className="pr-3 whitespace-nowrap">
                      <Look look={cell(lookout.name, question)} now={now} />
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      <AskedNote move={move} leg={leg} of="after" />
      <div className="mt-5 grid grid-cols-[3fr_2fr] gap-8 max-lg:grid-cols-1">
        <div>
          {leg.seen.t0 && watch.looks.length > 0 && until > leg.seen.t0.firstNew && (
            <div className="mb-4">
              <h3 className="smallcaps border-b border-ink">Old answers draining</h3>
              <Curve curve={watch.curve} from={leg.seen.t0.firstNew} until={until} now={now} />
            </div>
          )}
          <WebsiteLook move={move} now={now} may={may} />
        </div>
        <div>
          <NotYet reasons={watch.notYet} now={now} />
          <h3 className="smallcaps border-b border-ink">What the registry publishes</h3>
          <Parent watch={watch} same={leg.kind === 'repoint'} />
          <KeepPlaces move={move.id} may={me.role !== 'viewer'} />
        </div>
      </div>
    </section>
  );
}

function Look({ look, now }: { look: LookView | undefined; now: number }) {
  if (!look) return <span className="text-faded">—</span>;
  const title = `${look.answer.join(', ') || look.rcode}\nsince ${shortTime(look.firstSeen)}, last asked ${shortTime(look.lastSeen)}\n${fullTime(look.lastSeen)}`;
  if (look.silent)
    return (
      <span title={title} className="inline-flex items-center gap-1.5 text-faded">
        <VerdictMark verdict="none" /> silent
      </span>
    );
  if (look.steady && look.verdict === 'new')
    return (
      <span title={title} className="text-faded">
        same
      </span>
    );
  const until = look.remainingTtl === null ? 0 : look.lastSeen + look.remainingTtl;
  return (
    <span title={title} className="inline-flex items-center gap-1.5">
      <VerdictWord verdict={look.verdict} />
      {look.verdict !== 'new' && until > now && <span className="text-sm text-faded">{duration(until - now)}</span>}
      {look.verdict === 'none' && <span className="text-sm text-faded">{look.rcode}</span>}
    </span>
  );
}

function rank(look: LookView): number {
  return look.type === 'NS' ? 0 : look.type === 'A' ? 1 : 2;
}

/** What is so once it is finished everywhere. `changes`: a value changed; `isOutside`: resolvers of visitors were asked. */
function settledWords(changes: boolean, isOutside: boolean): string {
  if (!isOutside)
    return `Every nameserver gives the ${changes ? 'new' : 'planned'} records, and no old answer can be remembered any more. No resolver of visitors was asked.`;
  return changes
    ? 'Every nameserver and every resolver that was asked gives the new records, and no old answer can be remembered any more.'
    : 'Every nameserver gives the planned records, and no other answer can be remembered any more.';
}
