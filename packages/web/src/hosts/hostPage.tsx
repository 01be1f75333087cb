import { Host, HostPageView, Me } from '@wanderon/contract';
import { ACTS_OF_ROLE, PLACE_ACT_WORDS, capital, wayThere } from '@wanderon/core';
import { styleWords } from './styleWords';
import { Link, useNavigate, useParams } from 'react-router';
import { useHostPage } from '../api';
import { shortTime } from '../time';
import { Button } from '../ui/button';
import { Failed, Loading } from '../ui/states';
import { ACCOUNT_WORDS, APEX_ALIAS_WORDS, EDGE_WORDS, NAMESERVER_WORDS, SIGNS_WORDS } from './dnsFields';
import { FRONTING_WORDS } from './webFields';
import { HostForm } from './hostForm';
import { ROLE_NAMES, Values } from './hosts';
import { formWords } from './formWords';

/** One host: what it is known for, what it asks for in its order, which moves use it, and what became of it. */
export function HostPlace({ me }: { me: Me }) {
  const { id = '', act } = useParams();
  const page = useHostPage(id === 'new' ? undefined : id);
  const go = useNavigate();
  const may = me.role !== 'viewer';
  const frame = (children: React.ReactNode) => (
    <div className="mx-auto w-full max-w-[1240px] px-4 py-5">
      <Link to="/hosts" className="text-sm text-faded hover:text-accent">
        Hosts
      </Link>
      {children}
    </div>
  );
  if (id === 'new')
    return frame(
      <>
        <h1 className="mb-3">Add a host</h1>
        <HostForm host={undefined} onSaved={(saved) => void go(`/hosts/${saved.id}`)} onLeave={() => void go('/hosts')} />
      </>,
    );
  if (page.isPending) return frame(<Loading what="the host" />);
  if (page.isError) return frame(<Failed error={page.error} retry={() => void page.refetch()} />);
  const { host } = page.data;
  if (act === 'change' && may)
    return frame(
      <>
        <h1 className="mb-3">Change {host.name}</h1>
        <HostForm key={host.id} host={host} onSaved={() => void go(`/hosts/${id}`)} onLeave={() => void go(`/hosts/${id}`)} />
      </>,
    );
  return frame(
    <>
      <div className="mb-3 flex items-baseline gap-4 border-b border-ink pb-1">
        <h1>{host.name}</h1>
        <span className="text-faded">{ROLE_NAMES[host.role]}</span>
        {may && (
          <Button className="ml-auto" onClick={() => void go(`/hosts/${id}/change`)}>
            Change
          </Button>
        )}
      </div>
      <div className="grid grid-cols-[3fr_2fr] gap-10 max-lg:grid-cols-1">
        <div>
          <Known host={host} />
          <WhereList host={host} />
          {host.role === 'web' && <Records host={host} />}
          {(host.role === 'web' || host.tasks.length > 0) && <Tasks host={host} />}
        </div>
        <div>
          <Uses uses={page.data.uses} />
          <History history={page.data.history} />
        </div>
      </div>
    </>,
  );
}

function Known({ host }: { host: Host }) {
  const { role, entry, form } = host;
  const plain = (name: string): string => name.replace(/\.$/, '');
  return (
    <dl className="mb-5 grid grid-cols-[9rem_1fr] gap-x-4 gap-y-0.5">
      <Values title="Nameservers" values={host.nameservers.map(plain)} />
      <Values title={role === 'dns' ? 'Their addresses' : 'Addresses'} values={host.addresses} />
      <Values title="Alias target" values={host.aliasTarget ? [plain(host.aliasTarget)] : []} />
      <Values title="Answers with its own" values={host.fronts} />
      {role === 'dns' && (
        <Words title="Updates">
          {host.keyName ? (
            <>
              taken from us, with the key <span className="mono">{plain(host.keyName)}</span>
            </>
          ) : (
            'none: zones are typed in its panel'
          )}
        </Words>
      )}
      {role === 'dns' && <Zones host={host} />}
      {role === 'web' && host.fronting !== 'either' && <Words title="Its names">{FRONTING_WORDS[host.fronting]}, at a DNS host that can</Words>}
      {role === 'web' && host.issuers.length > 0 && <Words title="Certificates">made by {host.issuers.join(', ')}</Words>}
      {role === 'web' && host.provisional !== '' && (
        <Words title="Beforehand">
          a site is at <span className="mono">{host.provisional}</span>
        </Words>
      )}
      {role === 'web' && host.holding.length > 0 && (
        <Words title="Unknown domains">get a page titled {host.holding.map((one) => `“${one}”`).join(' or ')}</Words>
      )}
      {role === 'web' && host.forcesHttps && <Words title="Visitors">sent to HTTPS</Words>}
      {role === 'dns' && <Words title="Its panel">{entry ? styleWords(entry).join('; ') : 'nobody has said yet how it wants names and values'}</Words>}
      {role === 'registrar' && <Words title="Its page">{form ? formWords(form).join('; ') : 'nothing is known of it'}</Words>}
      {host.note && <Words title="Note">{host.note}</Words>}
    </dl>
  );
}

/** Where things are done in its panel, as they were noted. */
function WhereList({ host }: { host: Host }) {
  const ways = ACTS_OF_ROLE[host.role].flatMap((act) => {
    const way = wayThere({ login: '', where: host.where }, act, 'the domain');
    return way ? [{ act, way }] : [];
  });
  if (ways.length === 0 && host.login === '') return null;
  return (
    <>
      <h2 className="smallcaps border-b border-ink">Where to click</h2>
      <dl className="mb-5 grid grid-cols-[12rem_1fr] gap-x-4 gap-y-0.5 py-1">
        {host.login !== '' && (
          <Words title="To log in">
            <a className="text-accent underline" href={host.login} target="_blank" rel="noreferrer noopener">
              {host.login}
            </a>
          </Words>
        )}
        {ways.map(({ act, way }) => (
          <Words key={act} title={capital(PLACE_ACT_WORDS[act])}>
            {way.clicks.join(' › ')} {way.first && <span className="text-faded">First: {way.first}</span>}
          </Words>
        ))}
      </dl>
    </>
  );
}

function Zones({ host: { holdsEarly, habits } }: { host: Host }) {
  const words = [
    !holdsEarly && 'taken only once the domain is delegated to it',
    habits.afterLeaving === 'drops' && 'dropped or parked once the domain is delegated elsewhere',
  ].filter((one) => typeof one === 'string');
  return (
    <>
      {habits.company !== '' && <Words title="Company">{habits.company}</Words>}
      {habits.nameservers === 'by domain' && <Words title="Nameservers">{NAMESERVER_WORDS['by domain']}, shown once it was added</Words>}
      {habits.most !== null && <Words title="Holds">{habits.most} records in a zone at the most</Words>}
      {habits.accounts !== 'unknown' && <Words title="Accounts">a domain stands {ACCOUNT_WORDS[habits.accounts]}</Words>}
      {habits.apexAlias !== 'unknown' && <Words title="Alias at the domain itself">{APEX_ALIAS_WORDS[habits.apexAlias]}</Words>}
      {habits.signs !== 'unknown' && <Words title="Signing">{SIGNS_WORDS[habits.signs]}</Words>}
      {habits.standIn !== '' && (
        <Words title="Redirects at its edge">
          need a record to stand in: <span className="mono">{habits.standIn}</span>
        </Words>
      )}
      {habits.edge !== 'unknown' && <Words title="Its edge">reaches the web host {EDGE_WORDS[habits.edge]}</Words>}
      {words.length > 0 && <Words title="Zones">{words.join('; ')}</Words>}
      <Values title="Begins with" values={habits.begins} />
      <Values title="Locks" values={habits.locks} />
      <Values title="Forwards by" values={habits.forwards} />
      {habits.warnings.length > 0 && <Words title="Warnings you can ignore">{habits.warnings.map((one) => `“${one}”`).join('; ')}</Words>}
    </>
  );
}

function Words({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <>
      <dt className="text-faded">{title}</dt>
      <dd>{children}</dd>
    </>
  );
}

const BY = { us: 'we', client: 'the client', host: 'the host' };

function Records({ host }: { host: Host }) {
  return (
    <>
      <h2 className="smallcaps border-b border-ink">Records it asks for</h2>
      {host.requires.length === 0 && <p className="py-1.5 text-faded">None besides its addresses and alias target.</p>}
      <ul className="mb-5">
        {host.requires.map((need) => (
          <li key={need.id} className="grid grid-cols-[14rem_1fr] gap-3 border-b border-rule py-1">
            <span className="mono break-words">
              <b className="font-semibold">{need.owner}</b> <span className="text-faded">{need.type}</span>
            </span>
            <span>
              {need.data === '' ? <i>given for each site</i> : <span className="mono break-all">{need.data}</span>}
              <span className="block text-sm text-faded">
                {[
                  need.needed ? 'the cutover waits for it' : 'can be left out',
                  need.early && 'looked for before the cutover',
                  need.ends === 'verified' ? 'may go once verified' : 'kept',
                  need.fronting !== 'either' && FRONTING_WORDS[need.fronting],
                  need.either && `either of “${need.either}”`,
                ]
                  .filter(Boolean)
                  .join(' · ')}
              </span>
            </span>
          </li>
        ))}
      </ul>
    </>
  );
}

function Tasks({ host }: { host: Host }) {
  const groups = [
    ['Before the cutover', host.tasks.filter((task) => task.when === 'before')],
    ['After it', host.tasks.filter((task) => task.when === 'after')],
  ] as const;
  return (
    <>
      {host.tasks.length === 0 && <h2 className="smallcaps border-b border-ink">What has to be done there</h2>}
      {host.tasks.length === 0 && <p className="py-1.5 text-faded">Nothing is noted.</p>}
      {groups.map(([title, tasks]) =>
        tasks.length === 0 ? null : (
          <section key={title} className="mb-5">
            <h2 className="smallcaps border-b border-ink">{title}</h2>
            <ol>
              {tasks.map((task, index) => (
                <li key={task.id} className="grid grid-cols-[1.5rem_1fr_auto] gap-2 border-b border-rule py-1">
                  <span className="mono text-faded">{index + 1}</span>
                  <span>
                    <b className="font-semibold">{task.title}</b>
                    {(task.note !== '' || task.waits || task.redirects) && (
                      <span className="block text-sm text-faded">
                        {[task.waits && 'Waits for its records to be seen.', task.redirects && 'Rebuilds redirects.', task.note].filter(Boolean).join(' ')}
                      </span>
                    )}
                  </span>
                  <span className="text-faded">{BY[task.by]}</span>
                </li>
              ))}
            </ol>
          </section>
        ),
      )}
    </>
  );
}

function Uses({ uses }: { uses: HostPageView['uses'] }) {
  return (
    <section className="mb-5">
      <h2 className="smallcaps border-b border-ink">Moves that use it</h2>
      {uses.length === 0 && <p className="py-1.5 text-faded">None yet.</p>}
      <ul>
        {uses.map((use) => (
          <li key={use.id} className="flex items-baseline gap-3 border-b border-rule py-1">
            <Link className="mono min-w-0 grow break-all hover:text-accent" to={`/moves/${use.id}`}>
              {use.domain}
            </Link>
            <span className="whitespace-nowrap text-faded">
              {use.as}
              {use.state === 'open' ? '' : `, ${use.state}`}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function History({ history }: { history: HostPageView['history'] }) {
  return (
    <section>
      <h2 className="smallcaps border-b border-ink">What became of it</h2>
      {history.length === 0 && <p className="py-1.5 text-faded">Nothing is on record.</p>}
      <ul>
        {history.map((one, index) => (
          <li key={index} className="grid grid-cols-[8rem_1fr] gap-3 border-b border-rule py-1">
            <span className="text-faded">{shortTime(one.at)}</span>
            <span>
              {one.text} {one.person && <span className="text-faded">{one.person}</span>}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
