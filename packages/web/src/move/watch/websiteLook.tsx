import { counted } from '@wanderon/core';
import { useMoveAction } from '../../api';
import { relative, shortTime } from '../../time';
import { Button } from '../../ui/button';
import { useToast } from '../../ui/toast';
import { ChapterProps } from '../movePlace';
import { SiteWishes } from './siteWish';

/** How the website answers where the plan leads, against how it was surveyed: a rehearsal before the switch, the proof after it. */
export function WebsiteLook({ move, now, may }: { move: ChapterProps['move']; now: number; may: boolean }) {
  const look = useMoveAction<void>(move.id, 'POST', () => '/website');
  const { fail, say } = useToast();
  const { watch } = move;
  if (!watch || move.to === null) return null;
  const { website, settled } = watch;
  const broken = website?.changes.filter((change) => change.weight === 'broken').length ?? 0;
  return (
    <div>
      <div className="flex items-baseline justify-between gap-4 border-b border-ink">
        <h3 className="smallcaps">The website at the new place</h3>
        {may && !settled && move.state === 'open' && (
          <Button
            kind="quiet"
            className="-my-1 px-0"
            disabled={look.isPending}
            onClick={() => look.mutate(undefined, { onError: fail, onSuccess: () => say('The website is being looked at.') })}
          >
            Look now
          </Button>
        )}
      </div>
      {website ? (
        <>
          <p className={`border-b border-rule py-1 ${broken > 0 ? 'font-semibold text-rust' : ''}`}>
            {website.changes.length === 0
              ? website.asked === 1
                ? 'The website works at the new place.'
                : `The website works at the new place: all ${website.asked} addresses answer as before.`
              : broken > 0
                ? `${counted(broken, 'thing', 'things')} of the website ${broken === 1 ? 'is' : 'are'} broken at the new place and worked before.`
                : `The website works at the new place. ${counted(website.changes.length, 'thing differs', 'things differ')}.`}
          </p>
          <ul>
            {website.changes.map((change) => (
              <li key={change.text} className="grid grid-cols-[5.5rem_minmax(0,1fr)] gap-3 border-b border-rule py-1 leading-snug">
                <span className={change.weight === 'broken' ? 'text-rust' : 'text-faded'}>{change.weight === 'broken' ? 'broken' : 'differs'}</span>
                <span>
                  <span className="[overflow-wrap:anywhere]">{change.text}</span>
                  <span className="block text-faded">
                    {change.pages.length === website.asked
                      ? `at all ${website.asked} addresses`
                      : change.pages.map((page) => (
                          <span key={page} className="mono mr-4 inline-block [overflow-wrap:anywhere]">
                            {page}
                          </span>
                        ))}
                  </span>
                </span>
              </li>
            ))}
          </ul>
          <p className="py-1 text-sm text-faded">
            Asked at the planned addresses {relative(website.lastSeen, now)}, compared with the survey of {shortTime(website.surveyedAt)}.
          </p>
        </>
      ) : (
        <p className="py-1 text-faded">Not looked at yet. It is, once the new DNS host serves the plan.</p>
      )}
      <SiteWishes move={move} may={may} />
    </div>
  );
}
