import { MoveSurvey, PageView } from '@wanderon/contract';
import { counted, remarksOnPages } from '@wanderon/core';
import { Button } from '../../ui/button';
import { Fold } from '../../ui/fold';

/** How the website answers today: redirects and certificates live outside DNS, and vanish unseen. */
export function Website({ survey, onList }: { survey: MoveSurvey; onList?: (() => void) | undefined }) {
  if (survey.pages.length === 0 && !onList) return null;
  const remarks = remarksOnPages(survey.pages, survey.takenAt);
  const bad = survey.pages.filter(
    (look) => look.problem !== null || (look.hops.at(-1)?.status ?? 0) >= 400 || look.hops.some((hop) => hop.certificate?.problem),
  ).length;
  const ends = new Set(survey.pages.flatMap((look) => (look.page ? [look.hops.at(-1)!.url] : [])));
  const gist =
    survey.pages.length === 0
      ? 'no name with an address to ask for a page'
      : `${counted(survey.pages.length, 'address', 'addresses')} asked, ${bad === 0 ? 'all answer' : `${bad} fail`}${ends.size === 1 ? `, all end at ${[...ends][0]}` : ''}`;
  return (
    <Fold title="Website today" gist={gist} alarming={bad > 0}>
      {survey.pages.map((look) => (
        <Page key={look.start} look={look} />
      ))}
      {remarks.map((remark) => (
        <p key={remark} className="border-b border-rule py-1 leading-snug">
          {remark}
        </p>
      ))}
      {onList && (
        <Button kind="quiet" className="px-0" onClick={onList}>
          List more pages
        </Button>
      )}
    </Fold>
  );
}

function Page({ look }: { look: PageView }) {
  const last = look.hops.at(-1);
  const certificate = last?.certificate;
  return (
    <div className="grid grid-cols-[minmax(0,21rem)_minmax(0,1fr)_minmax(0,16rem)] gap-3 border-b border-rule py-1 leading-snug max-md:grid-cols-1 max-md:gap-0">
      <span className="[overflow-wrap:anywhere]">{look.start}</span>
      <span className="min-w-0">
        {look.hops.map((hop, index) => (
          <span key={hop.url} className="inline-block">
            {index > 0 && <span className="text-faded">{'\u00a0→\u00a0'}</span>}
            <span className={hop.status >= 400 ? 'text-rust' : ''}>{hop.status}</span>
            {index > 0 && <span className="break-all"> {hop.url}</span>}
          </span>
        ))}
        {look.problem !== null && (
          <span className="text-rust">
            {look.hops.length > 0 && ' · '}
            {look.problem}
          </span>
        )}
        {look.page?.title && <span className="text-faded"> · “{look.page.title}”</span>}
      </span>
      <span className={`min-w-0 text-sm ${certificate?.problem ? 'text-rust' : 'text-faded'}`}>
        {certificate &&
          (certificate.problem !== null
            ? `certificate: ${certificate.problem}`
            : `certificate of ${certificate.issuer}, until ${new Date(certificate.until * 1000).toISOString().slice(0, 10)}`)}
        {look.keepsPath !== null && <span className="block">{look.keepsPath ? 'the redirect keeps the path' : 'the redirect drops the path'}</span>}
      </span>
    </div>
  );
}
