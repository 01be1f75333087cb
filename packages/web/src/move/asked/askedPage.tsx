import { LegView, StepView } from '@wanderon/contract';
import { Find } from '@wanderon/core';
import { FormEvent, useState } from 'react';
import { Link } from 'react-router';
import { ProblemError, useHosts, useMoveAction } from '../../api';
import { shortTime } from '../../time';
import { PasteDialog } from '../../hosts/pasteDialog';
import { Button } from '../../ui/button';
import { Copy } from '../../ui/copy';
import { inputLook } from '../../ui/field';
import { useToast } from '../../ui/toast';
import { ChapterProps, stepIn } from '../movePlace';
import { ownerBelow } from '../owner';
import { StepNote } from '../stepNote';
import { WhereThere } from '../where/whereThere';
import { askedOf, askers } from './askedOf';

/** What the new hosts ask for: the web host's records, and what has to be done at each before the cutover and after it. */
export function AskedPage({ move, leg, may }: ChapterProps) {
  const hosts = useHosts(move.id);
  const [pasting, setPasting] = useState(false);
  const give = useMoveAction<{ requirement: string; data: string }>(move.id, 'POST', () => '/given');
  const { fail, say } = useToast();
  const { asked } = leg;
  if (!asked) return <p className="py-6 text-faded">Nothing is asked for: no host is chosen yet, or none wants anything.</p>;
  const web = hosts.data?.find((host) => host.id === leg.newWebHost);
  const { before, after, open } = askedOf(leg);
  const wanted = asked.needs.filter((need) => need.given && need.state === 'open');
  const needFor = (find: Find) =>
    wanted.find((need) => find.kind === 'record' && find.type === need.type && find.owner.toLowerCase() === ownerBelow(need.owner, move.domain).toLowerCase());
  return (
    <section className="max-w-5xl">
      <h2 className="text-[1.25rem] leading-tight">{headline(asked, open.length, leg.seen.ts !== null)}</h2>
      <p className="mb-3 text-faded">
        {open.length > 0
          ? `Next: ${open[0]!}.`
          : after.some((step) => step.state === 'ready')
            ? 'What follows the cutover can be done now.'
            : 'Nothing else is needed there before the switch.'}
      </p>
      {web && <WhereThere host={web} name={web.name} act="site" domain={move.domain} may={may} />}
      {asked.changes.length > 0 && (
        <p role="status" className="my-2 border-l-4 border-accent bg-shade px-3 py-1.5">
          Since this move was planned, {asked.web} was changed at Hosts: {asked.changes.join('; ')}. The move keeps what it was planned with; choose the way
          again to take it, until the cutover.
        </p>
      )}
      {(['early', 'early-seen'] as const).map((id) => (
        <StepNote key={id} step={stepIn(leg, id)} leg={leg} move={move.id} may={may} />
      ))}
      <div className="grid grid-cols-2 gap-10 max-lg:grid-cols-1">
        <div>
          <h3 className="smallcaps border-b border-ink">Records</h3>
          {asked.needs.length === 0 && <p className="py-1.5 text-faded">None besides addresses and alias targets, which the plan has.</p>}
          <ul>
            {asked.needs.map((need) => (
              <NeedRow key={need.id} need={need} move={move.id} domain={move.domain} host={asked.web ?? 'The web host'} may={may && leg.seen.ts === null} />
            ))}
          </ul>
          {may && wanted.length > 0 && leg.seen.ts === null && (
            <p className="pt-1.5">
              <Button onClick={() => setPasting(true)}>Paste its page or mail</Button>{' '}
              <span className="text-sm text-faded">{wanted.length === 1 ? 'The open value is' : 'Open values are'} found in it.</span>
            </p>
          )}
          {pasting && (
            <PasteDialog
              own={[move.domain]}
              takes={(find) => (needFor(find) ? 'asked for' : undefined)}
              onTake={(finds) => {
                for (const find of finds)
                  give.mutate(
                    { requirement: needFor(find)!.id, data: find.data },
                    { onError: fail, onSuccess: () => say(`${find.owner} ${find.type} is in the plan.`) },
                  );
              }}
              onClose={() => setPasting(false)}
            />
          )}
          {asked.needs.length > 0 && (
            <p className="py-1.5 text-sm text-faded">
              They stand in the{' '}
              <Link className="text-accent underline" to={`/moves/${move.id}/rebuild`}>
                plan
              </Link>{' '}
              beside everything else, and are read back with it.
            </p>
          )}
        </div>
        <div>
          <Tasks title="Before the cutover" steps={before} move={move.id} may={may} />
          <Tasks title="After it" steps={after} move={move.id} may={may} />
        </div>
      </div>
    </section>
  );
}

type Asked = NonNullable<LegView['asked']>;

function headline(asked: Asked, open: number, begun: boolean): string {
  if (open === 0) return begun ? `What ${askers(asked)} for` : `${askers(asked)} for nothing more before the cutover`;
  return `${askers(asked, 'still ')} for ${open === 1 ? 'one thing' : `${open} things`} before the cutover`;
}

type Need = Asked['needs'][number];
const NEED_WORDS = { planned: 'planned', open: 'open', instead: 'not needed' };

function NeedRow({ need, move, domain, host, may }: { need: Need; move: string; domain: string; host: string; may: boolean }) {
  const [typing, setTyping] = useState(false);
  const name = ownerBelow(need.owner, domain);
  const notes = [
    need.early && 'looked for before the cutover',
    need.ends === 'verified' && 'may go once verified',
    !need.needed && 'can be left out',
    need.either !== '' && `one of “${need.either}” is enough`,
  ].filter(Boolean);
  return (
    <li className="grid grid-cols-[5rem_1fr] gap-3 border-b border-rule py-1.5">
      <span className={need.state === 'open' && need.needed ? 'font-semibold text-accent' : 'text-faded'}>{NEED_WORDS[need.state]}</span>
      <div className="min-w-0">
        <span className="mono">
          <b className="font-semibold">{name}</b> <span className="text-faded">{need.type}</span>
        </span>
        {need.data !== null && (
          <span className="mono block break-words">
            {need.data} <Copy value={need.data} label={`${name} ${need.type}`} />
          </span>
        )}
        {need.data === null && <span className="block text-faded">{host} gives a value for this site.</span>}
        {notes.length > 0 && <span className="block text-sm text-faded">{notes.join(' · ')}</span>}
        {may && need.given && need.state !== 'instead' && (need.data === null || typing) && (
          <Give need={need} move={move} name={name} onDone={() => setTyping(false)} />
        )}
        {may && need.given && need.data !== null && !typing && (
          <Button kind="quiet" className="-ml-1" onClick={() => setTyping(true)}>
            {need.state === 'open' ? 'Put it into the plan again' : 'Another value'}
          </Button>
        )}
      </div>
    </li>
  );
}

/** The value that the host shows for this site, typed or pasted. */
function Give({ need, move, name, onDone }: { need: Need; move: string; name: string; onDone: () => void }) {
  const [text, setText] = useState('');
  const give = useMoveAction<{ requirement: string; data: string }>(move, 'POST', () => '/given');
  const { say } = useToast();
  const submit = (event: FormEvent): void => {
    event.preventDefault();
    give.mutate(
      { requirement: need.id, data: text },
      {
        onSuccess: () => {
          say(`${name} ${need.type} is in the plan.`);
          onDone();
        },
      },
    );
  };
  const problem = give.error instanceof ProblemError ? give.error.problem.title : give.error?.message;
  return (
    <form onSubmit={submit} className="mt-1 flex items-start gap-2">
      <div className="grow">
        <input
          aria-label={`Value of ${name} ${need.type}`}
          aria-invalid={problem !== undefined}
          placeholder="as it is shown there"
          value={text}
          onChange={(event) => setText(event.target.value)}
          className={`${inputLook} mono`}
        />
        {problem !== undefined && (
          <p role="alert" className="text-rust">
            {problem}
          </p>
        )}
      </div>
      <Button type="submit" disabled={text.trim() === '' || give.isPending}>
        Put it into the plan
      </Button>
    </form>
  );
}

function Tasks({ title, steps, move, may }: { title: string; steps: readonly StepView[]; move: string; may: boolean }) {
  if (steps.length === 0) return null;
  return (
    <section className="mb-5">
      <h3 className="smallcaps border-b border-ink">{title}</h3>
      <ol>
        {steps.map((step) => (
          <TaskRow key={step.id} step={step} move={move} may={may} />
        ))}
      </ol>
    </section>
  );
}

/** A tick is somebody's word; it can be taken back. */
function TaskRow({ step, move, may }: { step: StepView; move: string; may: boolean }) {
  const take = useMoveAction<{ step: string; act: string; subject: string }>(move, 'POST', () => '/ways');
  const { fail } = useToast();
  const way = (act: string) => step.ways.find((one) => one.act === act);
  const toggle = way('done') ?? way('open again');
  const leave = way('leave');
  const act = (one: NonNullable<typeof toggle>): void => take.mutate({ step: step.id, act: one.act, subject: one.subject }, { onError: fail });
  const over = step.state === 'done' || step.state === 'left';
  return (
    <li className={`grid grid-cols-[1.25rem_1fr_auto] gap-2 border-b border-rule py-1.5 ${step.state === 'waiting' ? 'text-faded' : ''}`}>
      <input
        type="checkbox"
        className="mt-1 self-start"
        aria-label={step.title}
        checked={over}
        disabled={!may || !toggle || take.isPending}
        onChange={() => toggle && act(toggle)}
      />
      <div className="min-w-0">
        <span className={over ? 'text-faded' : step.state === 'ready' ? 'font-semibold' : ''}>{step.title}</span>
        {step.text !== null && <span className="block text-sm text-faded">{step.text}</span>}
        {over && (
          <span className="block text-sm text-faded">
            {step.state === 'left' ? 'left out' : 'done'}
            {step.doneAt !== null && ` ${shortTime(step.doneAt)}`}
            {step.decidedBy && `, ${step.decidedBy}`}
          </span>
        )}
      </div>
      {may && leave && !over && (
        <Button kind="quiet" disabled={take.isPending} onClick={() => act(leave)}>
          Leave it out
        </Button>
      )}
    </li>
  );
}
