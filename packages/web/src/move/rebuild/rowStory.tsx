import { RowStory as Story, RulingView } from '@wanderon/contract';
import { useEffect, useState } from 'react';
import { useQuery } from '@tanstack/react-query';
import { call, useMoveAction } from '../../api';
import { relative, shortTime } from '../../time';
import { Button } from '../../ui/button';
import { inputLook } from '../../ui/field';
import { Failed } from '../../ui/states';
import { useToast } from '../../ui/toast';
import { evidenceShort, evidenceWords } from '../survey/surveyRows';

/** Milliseconds for which the cursor rests on a row before what lies behind it is asked for: who works through hundreds does not ask. */
const REST = 350;
/** Of the history, what is shown at once. */
const LATEST = 3;

/** What lies behind the row under the cursor: where it was seen, where it ends, what was decided, and what people wrote. */
export function RowStory({
  move,
  leg,
  ruling,
  now,
  writing,
  onWritten,
}: {
  move: string;
  leg: string;
  ruling: RulingView;
  now: number;
  /** A comment is being written; undefined: nothing can be. */
  writing: boolean | undefined;
  onWritten: () => void;
}) {
  const rested = useRest(ruling.id);
  const story = useQuery({
    queryKey: ['move', move, 'row', leg, ruling.id],
    queryFn: () => call<Story>('GET', `/api/legs/${leg}/rows/${ruling.id}`),
    enabled: rested || writing === true,
  });
  const takeBack = useMoveAction<number>(move, 'DELETE', (id) => `/comments/${id}`);
  const { fail } = useToast();
  const [all, setAll] = useState(false);
  const { data } = story;
  const history = all ? data?.history : data?.history.slice(0, LATEST);
  return (
    <>
      {data && data.evidence.length > 0 && (
        <span className="block text-faded" title={data.evidence.map(evidenceWords).join('\n')}>
          Seen by {evidenceShort(data.evidence) || 'what the survey shows'}
        </span>
      )}
      {data && <Ends before={data.before} after={data.after} />}
      {history?.map(({ at, who, text, undone }, index) => (
        <span key={index} className="block text-faded">
          {who ?? 'somebody'}: <span className={undone ? 'line-through' : ''}>{text}</span>
          {undone && ' taken back'}, <span title={shortTime(at)}>{relative(at, now)}</span>
        </span>
      ))}
      {data && data.history.length > LATEST && !all && (
        <button type="button" className="block cursor-pointer text-accent hover:underline" onClick={() => setAll(true)}>
          {data.history.length - LATEST} earlier
        </button>
      )}
      {data?.comments.map(({ id, at, who, text, mine }) => (
        <span key={id} className="block border-l-2 border-accent pl-2 [overflow-wrap:anywhere] whitespace-pre-wrap">
          {text}{' '}
          <span className="text-faded" title={shortTime(at)}>
            {who ?? 'somebody'}, {relative(at, now)}
          </span>{' '}
          {mine && writing !== undefined && (
            <button type="button" className="cursor-pointer text-accent hover:underline" onClick={() => takeBack.mutate(id, { onError: fail })}>
              take back
            </button>
          )}
        </span>
      ))}
      {writing && <Write move={move} row={ruling.id} onDone={onWritten} />}
    </>
  );
}

function useRest(id: string): boolean {
  const [rested, setRested] = useState<string>();
  useEffect(() => {
    const timer = setTimeout(() => setRested(id), REST);
    return () => clearTimeout(timer);
  }, [id]);
  return rested === id;
}

/** Said once where nothing changes. */
function Ends({ before, after }: Pick<Story, 'before' | 'after'>) {
  const words = (ends: Story['before']): string =>
    ends.map(({ target, addresses }) => `${target.replace(/\.$/, '')} at ${addresses.join(', ') || 'no address that is known'}`).join('; ');
  const [was, is] = [words(before), words(after)];
  if (was === '' && is === '') return null;
  const text = was === is ? `Ends at ${is}` : was === '' ? `Will end at ${is}` : is === '' ? `Ended at ${was}` : `Ends at ${was}; by the plan at ${is}`;
  return <span className={`block [overflow-wrap:anywhere] ${was !== is && was !== '' && is !== '' ? 'font-semibold' : 'text-faded'}`}>{text}</span>;
}

function Write({ move, row, onDone }: { move: string; row: string; onDone: () => void }) {
  const write = useMoveAction<{ text: string }>(move, 'POST', () => `/rows/${row}/comments`);
  const [text, setText] = useState('');
  return (
    <form
      className="mt-1 flex items-start gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (text.trim() !== '') write.mutate({ text }, { onSuccess: onDone });
      }}
    >
      <textarea
        aria-label="Comment on this row"
        autoFocus
        rows={2}
        maxLength={2000}
        value={text}
        placeholder="for everybody who works on this move"
        onChange={(event) => setText(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === 'Escape') onDone();
          if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) event.currentTarget.form!.requestSubmit();
        }}
        className={`${inputLook} max-w-[60ch] py-0.5`}
      />
      <Button type="submit" disabled={write.isPending || text.trim() === ''}>
        Write it
      </Button>
      <Button type="button" onClick={onDone}>
        Leave it
      </Button>
      {write.isError && <Failed error={write.error} />}
    </form>
  );
}
