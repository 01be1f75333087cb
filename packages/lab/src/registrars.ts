import { RegistrarForm, showName } from '@wanderon/core';
import { escapeHtml, page } from './page';
import { ScenarioDomain } from './scenario/domains';

/** A change that waits for its owner to open the link in a mail. */
export interface PendingChange {
  readonly zone: string;
  readonly names: readonly string[];
}

/** The registrars of the lab: one with a field a name and a page of warnings, one with a list and a mail to be confirmed. */
export const REGISTRARS = { harbourlight: 'Harbourlight Names', cliffpath: 'Cliffpath Domains' } as const;

/** What the agency has noted of their pages. */
export const REGISTRAR_FORMS: Readonly<Record<keyof typeof REGISTRARS, RegistrarForm>> = {
  harbourlight: {
    ...{ entry: 'each', shown: 5, least: 2, most: 5, dot: 'either', emptyFirst: false, apart: true, consent: true, confirm: 'none' },
    warnings: ['“Changing nameservers can interrupt website and mail”'],
  },
  cliffpath: {
    ...{ entry: 'list', shown: 1, least: 2, most: 8, dot: 'required', emptyFirst: false, apart: false, consent: false, confirm: 'mail', warnings: [] },
  },
};

export function registrarOf({ registrar }: Pick<ScenarioDomain, 'registrar'>): keyof typeof REGISTRARS {
  return registrar ?? 'harbourlight';
}

/** What a form sends, as this registrar takes it: a list that takes a name without a dot for one below the domain, or fields. */
export function namesSent(domain: ScenarioDomain, fields: readonly string[]): string[] {
  const names = fields.flatMap((field) => (registrarOf(domain) === 'cliffpath' ? field.split('\n') : [field])).map((name) => name.trim());
  return names.filter((name) => name !== '').map((name) => (registrarOf(domain) === 'cliffpath' && !name.endsWith('.') ? `${name}.${domain.zone}` : name));
}

export function listPage(domains: readonly ScenarioDomain[], nameserversOf: (zone: string) => readonly string[]): string {
  const rows = domains.map(
    (domain) =>
      `<tr><td><a href="/registrar/domain?name=${encodeURIComponent(domain.zone)}">${escapeHtml(shown(domain.zone))}</a></td><td>${escapeHtml(domain.client)}</td><td>${REGISTRARS[registrarOf(domain)]}</td><td>${nameserversOf(domain.zone).map(escapeHtml).join('<br>')}</td></tr>`,
  );
  return page(
    'Your domains',
    'Registrars',
    `<table><tr><th>Domain</th><th>Owner</th><th>Registrar</th><th>Nameservers</th></tr>${rows.join('')}</table><p><a href="/registrar/mail">Mail to the owners</a></p>`,
  );
}

export function formPage(domain: ScenarioDomain, now: readonly string[]): string {
  const id = registrarOf(domain);
  const name = `<input type="hidden" name="name" value="${escapeHtml(domain.zone)}">`;
  const title = `Nameservers of ${shown(domain.zone)}`;
  if (id === 'cliffpath')
    return page(
      title,
      REGISTRARS[id],
      `<form method="post" action="/registrar/domain">${name}<p><label>Name servers, one a line<br><textarea name="ns" rows="8" cols="48">${escapeHtml(now.join('\n'))}</textarea></label></p><button>Save</button></form>`,
    );
  const fields = Array.from(
    { length: 5 },
    (_, i) => `<div><label>Nameserver ${i + 1} <input type="text" name="ns" value="${escapeHtml(now[i]?.replace(/\.$/, '') ?? '')}"></label></div>`,
  );
  return page(title, REGISTRARS[id], `<form method="post" action="/registrar/review">${name}${fields.join('')}<button>Continue</button></form>`);
}

export function reviewPage(domain: ScenarioDomain, names: readonly string[]): string {
  const inputs = names.map((name) => `<input type="hidden" name="ns" value="${escapeHtml(name)}">`).join('');
  return page(
    'Are you sure?',
    REGISTRARS[registrarOf(domain)],
    `<p class="bad">Changing nameservers can interrupt website and mail of ${escapeHtml(shown(domain.zone))}.</p><ul>${names.map((name) => `<li>${escapeHtml(name)}</li>`).join('')}</ul>
<form method="post" action="/registrar/domain"><input type="hidden" name="name" value="${escapeHtml(domain.zone)}">${inputs}<p><label><input type="checkbox" required> These are the nameservers that I was given</label></p><button>Save nameservers</button></form>`,
  );
}

export function sentPage(domain: ScenarioDomain): string {
  const id = registrarOf(domain);
  const text =
    id === 'cliffpath'
      ? `<p>We have written to the owner of <b>${escapeHtml(shown(domain.zone))}</b>. Nothing changes before the link in that mail is opened.</p>`
      : `<p class="good">The change of <b>${escapeHtml(shown(domain.zone))}</b> was sent to the registry.</p>`;
  return page(id === 'cliffpath' ? 'Please confirm' : 'Nameservers saved', REGISTRARS[id], `${text}<p><a href="/registrar">All domains</a></p>`);
}

/** The mailbox of the domains' owners. */
export function mailPage(pending: readonly PendingChange[]): string {
  const mails = pending.map(
    ({ zone, names }) =>
      `<form method="post" action="/registrar/mail"><input type="hidden" name="name" value="${escapeHtml(zone)}"><p>Cliffpath Domains: change the name servers of <b>${escapeHtml(shown(zone))}</b> to ${names.map(escapeHtml).join(', ')}? <button>Yes, change them</button></p></form>`,
  );
  return page('Mail', 'The owners', mails.join('') || '<p>No mail.</p>');
}

function shown(zone: string): string {
  return showName(zone.replace(/\.$/, ''));
}
