import { useMoveAction } from '../../api';
import { shortTime } from '../../time';
import { Button } from '../../ui/button';
import { Failed } from '../../ui/states';
import { VerdictWord } from '../../ui/verdictMark';
import { ChapterSteps } from '../chapterSteps';
import { ChapterProps, stepIn } from '../movePlace';
import { GivenNames } from '../givenNames';
import { WebsiteLook } from '../watch/websiteLook';
import { BackOut } from './backOut';
import { CheckForm } from './checkForm';
import { GateLines } from './gateLine';
import { gateWords } from './gateWords';
import { RegistrationGiven } from './registrationGiven';
import { RegistrarSheet } from './registrarSheet';

/** The gate, the handover sheet for the registrar, and what the parent publishes. */
export function Switch({ move, leg, me, now, may }: ChapterProps) {
  const submitted = useMoveAction<void>(move.id, 'POST', () => '/submitted');
  if (!leg.chosen) return <p className="py-6 text-faded">The new nameservers are known once the hosts are chosen.</p>;
  const named = leg.newNameservers.length > 0;
  const { t0, ts } = leg.seen;
  const done = t0 !== null;
  const sent = ts !== null;
  return (
    <section>
      <h2 className="text-[1.25rem] leading-tight">{headline(leg)}</h2>
      <p className="mb-3 text-faded">
        {done
          ? 'Old answers drain away from here on.'
          : sent
            ? `Submitted ${shortTime(ts)}.`
            : leg.gate.open
              ? 'It is done at the registrar, by whoever holds that login.'
              : gateWords(leg.gate, now, 'switch')}
      </p>
      <ChapterSteps leg={leg} chapter="switch" move={move} may={may} />
      <div className="grid grid-cols-[1fr_1fr] gap-10 max-lg:grid-cols-1">
        <div>
          <GivenNames move={move} leg={leg} may={may} />
          {named && <RegistrarSheet move={move} leg={leg} may={may} now={now} />}
          {named && !done && <CheckForm move={move} leg={leg} />}
          {named && me.lab && (
            <p className="pb-2">
              <a
                className="text-accent underline"
                target="_blank"
                rel="noreferrer"
                href={`${me.lab}/registrar/domain?name=${encodeURIComponent(`${move.domain}.`)}`}
              >
                Open the registrar of the lab
              </a>
            </p>
          )}
          {may && named && !sent && !done && (
            <Button kind="main" disabled={!leg.gate.open || submitted.isPending} onClick={() => submitted.mutate()}>
              {submitted.isPending ? 'Looking once more …' : 'It is saved at the registrar'}
            </Button>
          )}
          {submitted.isError && <Failed error={submitted.error} />}
        </div>
        <div>
          <h3 className="smallcaps border-b border-ink">{sent || done ? 'What the registry publishes' : 'Checks'}</h3>
          {!sent && !done && <GateLines gate={leg.gate} may={may} move={move.id} />}
          {(sent || done) && <Parent watch={move.watch} />}
          {!sent && !done && <RegistrationGiven key={leg.id} move={move} leg={leg} may={may} />}
          <div className="mt-5">
            <WebsiteLook move={move} now={now} may={may} />
          </div>
          {!sent && !done && (move.watch?.parent.length ?? 0) > 0 && (
            <div className="mt-5">
              <h3 className="smallcaps border-b border-ink">What the registry publishes</h3>
              <Parent watch={move.watch} />
            </div>
          )}
          {may && <BackOut move={move.id} leg={leg} />}
        </div>
      </div>
    </section>
  );
}

function headline(leg: ChapterProps['leg']): string {
  const { t0, ts } = leg.seen;
  if (t0) return `The registry publishes the new nameservers since ${shortTime(t0.firstNew)}`;
  if (stepIn(leg, 'switch')?.state === 'stopped') return 'The registry publishes something else than planned';
  if (ts !== null) return 'Waiting for the registry to publish the change';
  if (leg.isBack) return leg.gate.open ? 'Everything is ready: set the nameservers back' : 'Going back: the old zone is made ready';
  return leg.gate.open ? 'Everything is ready: change the nameservers' : 'Not ready to switch yet';
}

/** `same`: the set that is meant to stay, so that it is neither old nor new. */
export function Parent({ watch, same = false }: { watch: ChapterProps['move']['watch']; same?: boolean }) {
  if (!watch || watch.parent.length === 0) return <p className="py-1.5 text-faded">It was not looked at yet.</p>;
  return (
    <ul>
      {watch.parent.map((server) => (
        <li key={server.address} className="grid grid-cols-[5rem_1fr] gap-3 border-b border-rule py-1">
          {same && server.state === 'new' ? <span className="text-faded">as before</span> : <VerdictWord verdict={server.state} />}
          <span>
            {server.server.replace(/\.$/, '')} <span className="mono text-faded">{server.address}</span>
            <span className="mono block text-faded">{server.nameservers.map((name) => name.replace(/\.$/, '')).join(', ') || 'no nameservers'}</span>
            {server.problem !== null && <span className="block text-sm text-rust">{server.problem}</span>}
          </span>
        </li>
      ))}
    </ul>
  );
}
