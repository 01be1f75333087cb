import { Host, ServedView } from '@wanderon/contract';
import { KnownStyle, PanelQuestion } from '@wanderon/core';
import { useNoteOfHost } from '../../api';
import { Button } from '../../ui/button';
import { useToast } from '../../ui/toast';

/** What was seen of a panel, each noted with one press: the next sheet for it is written so. */
export function Lessons({ host, lessons }: { host: Host; lessons: ServedView['lessons'] }) {
  const noted = useHabit(host);
  if (lessons.length === 0) return null;
  return (
    <section aria-label="What was learned of the panel" className="my-2 border-l-4 border-accent bg-shade px-3 py-1.5 print:hidden">
      <p>
        <b className="font-semibold">What {host.name}’s panel does.</b> Note it, and every sheet for it is written so from now on.
      </p>
      <ul>
        {lessons.map(({ key, text, choices }) => (
          <li key={key} className="flex flex-wrap items-baseline gap-2 py-0.5">
            <span>{text}</span>
            {choices.map(({ label, change }) => (
              <NoteButton key={label} label={label} noted={noted} change={change} />
            ))}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What nobody has said of the panel yet, asked where it is typed: whoever stands before it sees it. */
export function AskedOfPanel({ host, questions }: { host: Host; questions: readonly PanelQuestion[] }) {
  const noted = useHabit(host);
  if (questions.length === 0) return null;
  return (
    <section aria-label="How the panel wants it" className="my-2 border-l-4 border-rule pl-3 print:hidden">
      <p className="text-sm text-faded">What you see in the panel, noted for every sheet of {host.name}:</p>
      <ul className="grid grid-cols-[max-content_1fr] gap-x-3 max-md:block">
        {questions.map(({ field, question, answers }) => (
          <li key={field} className="col-span-2 grid grid-cols-subgrid items-baseline py-0.5 max-md:block">
            <span>{question}</span>
            <span className="flex flex-wrap gap-2">
              {answers.map(({ label, change }) => (
                <NoteButton key={label} label={label} noted={noted} change={change} />
              ))}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What is seen in the panel, noted with one press; on a phone its words break. */
function NoteButton({ label, noted, change }: { label: string; noted: ReturnType<typeof useHabit>; change: KnownStyle }) {
  return (
    <Button className="max-md:whitespace-normal max-md:[overflow-wrap:anywhere]" disabled={noted.isPending} onClick={() => noted.note(change)}>
      {label}
    </Button>
  );
}

function useHabit(host: Host): { readonly note: (change: KnownStyle) => void; readonly isPending: boolean } {
  const { mutate, isPending } = useNoteOfHost();
  const { say, fail } = useToast();
  return {
    isPending,
    note: (change) => mutate({ id: host.id, of: 'habits', note: change }, { onError: fail, onSuccess: () => say(`Noted for ${host.name}.`) }),
  };
}
