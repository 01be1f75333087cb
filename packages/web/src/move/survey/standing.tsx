import { MoveSurvey } from '@wanderon/contract';
import { counted, plain } from '@wanderon/core';
import { ReactNode } from 'react';
import { duration, fullTime, relative } from '../../time';
import { Fold } from '../../ui/fold';

/** Where the domain stands: who registered it, what the parent delegates to, and how each authority answers. */
export function Standing({ survey, now }: { survey: MoveSurvey; now: number }) {
  const sound = survey.authorities.filter((authority) => authority.authoritative).length;
  const names = new Set(survey.referrals.flatMap((referral) => referral.nameservers.map((name) => name.toLowerCase())));
  const look = survey.registration;
  const at = look?.kind === 'found' ? `at ${look.registration.registrar ?? 'a registrar nobody names'}${until(look.registration.expires)}` : 'nothing known';
  return (
    <Fold
      title="Where it stands"
      alarming={sound < survey.authorities.length || names.size === 0}
      gist={`Registered ${at} · ${names.size === 0 ? 'not delegated' : `delegated to ${counted(names.size, 'nameserver')}`} · ${sound} of ${survey.authorities.length} nameservers answer`}
    >
      <div className="mt-2 grid grid-cols-[minmax(0,2fr)_minmax(0,3fr)_minmax(0,4fr)] gap-x-8 gap-y-3 max-lg:grid-cols-1">
        <Registration survey={survey} now={now} />
        <div>
          <h3 className="smallcaps border-b border-ink">Delegated by {survey.parent === '.' ? 'the root' : plain(survey.parent)}</h3>
          {alike(survey.referrals).map(([referral, ...others]) => (
            <Row key={referral!.address} servers={[referral!, ...others]}>
              {referral!.problem !== null ? (
                <span className="text-rust">{referral!.problem}</span>
              ) : referral!.nameservers.length === 0 ? (
                <span className="text-rust">no delegation</span>
              ) : (
                <>
                  {referral!.nameservers.map(plain).map((name) => (
                    <span key={name} className="block">
                      {name}
                    </span>
                  ))}
                  <span className="text-faded">
                    {referral!.ttl !== null && `TTL ${duration(referral!.ttl)}`}
                    {referral!.glue.length > 0 && ` · ${referral!.glue.length} glue`}
                    {referral!.ds.length > 0 && ` · DS ${referral!.dsTtl === null ? '' : duration(referral!.dsTtl)}`}
                  </span>
                </>
              )}
            </Row>
          ))}
        </div>
        <div>
          <h3 className="smallcaps border-b border-ink">Nameservers</h3>
          {survey.authorities.length === 0 && <p className="py-1 text-faded">None could be asked.</p>}
          {survey.authorities.map((authority) => (
            <Row key={authority.address} servers={[authority]}>
              {authority.authoritative ? (
                <>
                  <span className="block">
                    serial <span className="mono">{authority.serial}</span>
                    {authority.signed && ' · signed'}
                    {authority.transferred ? ' · transferred' : ' · no transfer'}
                  </span>
                  {authority.tcpProblem !== null && <span className="block text-rust">not over TCP</span>}
                  {!authority.delegated && <span className="block text-rust">not delegated to</span>}
                  {!authority.transferred && authority.problem !== null && <span className="block text-sm text-faded">{authority.problem}</span>}
                </>
              ) : (
                <span className="text-rust">{authority.problem ?? 'no answer'}</span>
              )}
            </Row>
          ))}
        </div>
      </div>
    </Fold>
  );
}

function Registration({ survey, now }: { survey: MoveSurvey; now: number }) {
  const look = survey.registration;
  return (
    <div>
      <h3 className="smallcaps border-b border-ink">Registered</h3>
      {look === null && <p className="py-1 text-faded">No registry was asked: this installation fetches no list of them.</p>}
      {look?.kind === 'unknown' && <p className="py-1 text-rust">{look.problem}</p>}
      {look?.kind === 'absent' && <p className="py-1 text-rust">{look.service} does not know it</p>}
      {look?.kind === 'found' && (
        <>
          <Fact word="at">{look.registration.registrar ?? 'nobody named'}</Fact>
          {look.registration.expires !== undefined && (
            <Fact word="until">
              <span title={fullTime(look.registration.expires)}>
                {new Date(look.registration.expires * 1000).toISOString().slice(0, 10)}{' '}
                <span className="text-faded">{relative(look.registration.expires, now)}</span>
              </span>
            </Fact>
          )}
          {look.registration.statuses.length > 0 && <Fact word="status">{look.registration.statuses.join(', ')}</Fact>}
          <Fact word="signed">{look.registration.delegationSigned === undefined ? 'not said' : look.registration.delegationSigned ? 'yes' : 'no'}</Fact>
          <Fact word="says">{look.registration.service}</Fact>
        </>
      )}
    </div>
  );
}

function Fact({ word, children }: { word: string; children: ReactNode }) {
  return (
    <p className="grid grid-cols-[3.2rem_1fr] gap-2 border-b border-rule py-1 leading-snug">
      <span className="text-faded">{word}</span>
      <span className="min-w-0 break-words">{children}</span>
    </p>
  );
}

function Row({ servers, children }: { servers: readonly { readonly server: string; readonly address: string }[]; children: ReactNode }) {
  return (
    <div className="flex justify-between gap-4 border-b border-rule py-1 leading-snug">
      <span className="min-w-0">
        {servers.map(({ server, address }) => (
          <span key={address} className="block">
            <span className="block break-words">{plain(server)}</span>
            <span className="mono text-faded">{address}</span>
          </span>
        ))}
      </span>
      <span className="min-w-0 text-right">{children}</span>
    </div>
  );
}

type Referral = MoveSurvey['referrals'][number];

/** Servers of the parent that say the same, together. */
function alike(referrals: readonly Referral[]): Referral[][] {
  const groups = new Map<string, Referral[]>();
  for (const referral of referrals) {
    const said = JSON.stringify({ ...referral, server: '', address: '', nameservers: [...referral.nameservers].sort() });
    groups.set(said, [...(groups.get(said) ?? []), referral]);
  }
  return [...groups.values()];
}

function until(expires: number | undefined): string {
  return expires === undefined ? '' : ` until ${new Date(expires * 1000).toISOString().slice(0, 10)}`;
}
