import { MoveSurvey, PagesInput } from '@wanderon/contract';
import { useState } from 'react';
import { useMoveAction } from '../../api';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { inputLook } from '../../ui/field';
import { Failed } from '../../ui/states';

/** Pages that have to go on working: their answers are kept with each survey. */
export function PagesDialog({ move, domain, survey, onClose }: { move: string; domain: string; survey: MoveSurvey; onClose: () => void }) {
  const list = useMoveAction<PagesInput>(move, 'PUT', () => '/pages');
  const [text, setText] = useState(survey.listed.join('\n'));
  return (
    <Dialog open onClose={onClose} title="Pages to keep an eye on">
      <p className="mb-2">
        One address a line, beside the front pages of <span className="mono">{domain}</span> and <span className="mono">www.{domain}</span>. How each answers
        now is what it is held against after the move.
      </p>
      <textarea
        aria-label="Pages"
        autoFocus
        rows={6}
        spellCheck={false}
        placeholder={`www.${domain}/contact`}
        value={text}
        onChange={(event) => setText(event.target.value)}
        className={`${inputLook} mono`}
      />
      {list.isError && <Failed error={list.error} />}
      <div className="mt-4 flex gap-2">
        <Button kind="main" disabled={list.isPending} onClick={() => list.mutate({ pages: text.split('\n') }, { onSuccess: onClose })}>
          Keep them and take the survey again
        </Button>
        <Button onClick={onClose}>Not now</Button>
      </div>
    </Dialog>
  );
}
