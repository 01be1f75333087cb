/** What a label of a panel, a form or a program is for; `noise`: what says nothing about a record. */
export type Label = 'name' | 'type' | 'value' | 'ttl' | 'class' | 'priority' | 'weight' | 'port' | 'nameserver' | 'address' | 'ipv6' | 'domain' | 'noise';

const list = (words: string): readonly string[] => words.split('|');

/** Labels as six languages have them, without accents, marks and numbers. */
const LABELS: Readonly<Record<Label, readonly string[]>> = {
  name: list(
    'host|hostname|host name|name|record name|recordname|subdomain|sub domain|name / host|host / name|owner|prefix|host/name|host record|dns name|label|rrname|record|hote|nom|nom dhote|sous-domaine|sous domaine|nombre|nombre de host|subdominio|bezeichnung|prafix|nome|nome host|sottodominio|naam|hostnaam|subdomein|fqdn|entry|eintrag',
  ),
  type: list('type|record type|recordtype|rrtype|rr type|typ|eintragstyp|record-typ|tipo|tipo de registro|tipo di record|soort|type denregistrement|art|kind'),
  value: list(
    'value|points to|point to|points at|target|data|rdata|content|answer|answers|destination|record value|txt value|address / value|address|ip|ip address|result|text|current value|new value|old value|wert|ziel|inhalt|zeigt auf|aktueller wert|neuer wert|alter wert|zielwert|valeur|cible|contenu|pointe vers|valeur actuelle|nouvelle valeur|ancienne valeur|valor|destino|apunta a|contenido|valor actual|nuevo valor|valor anterior|waarde|doel|inhoud|wijst naar|huidige waarde|nieuwe waarde|oude waarde|valore|destinazione|contenuto|punta a|valore attuale|nuovo valore|vecchio valore|values|contents|records|txtdata|exchange|exchanger|mail server|mailserver|mail exchanger|nsdname|old|new|current|required|should be|before|after|alt|neu|vorher|nachher|bisher|ancien|nouveau|ancienne|nouvelle|antiguo|nuevo|viejo|vecchio|nuovo|oud|nieuw|huidig|inhoud|gegevens|daten|donnees|datos|dati|informatie|adresse / wert',
  ),
  ttl: list('ttl|time to live|lifetime|lebensdauer|duree|duree de vie|duracion|durata|levensduur|cache'),
  class: list('class|klasse|classe|clase|rr class|rrclass'),
  priority: list('priority|prio|pri|preference|pref|mx priority|mx preference|distance|prioritat|priorite|prioridad|prioriteit|priorita'),
  weight: list('weight|gewicht|gewichtung|poids|peso'),
  port: list('port|puerto|porta|poort'),
  nameserver: list(
    'nameserver|name server|nameservers|name servers|dns server|dns servers|dns-server|ns|primary nameserver|secondary nameserver|primary name server|secondary name server|primary dns|secondary dns|serveur de noms|serveurs de noms|serveur dns|serveurs dns|servidor de nombres|servidores de nombres|servidor dns|servidores dns|server dei nomi|server dns|naamserver|naamservers|primary|secondary|primar|sekundar|primaire|secondaire|primario|secundario|secondario|primair|secundair|nameserver-adressen|primarer nameserver|sekundarer nameserver',
  ),
  address: list(
    'ipv4|ipv4 address|server ip|ip addresses|ip-adresse|ipv4-adresse|adresse ip|adresse ipv4|direccion ip|direccion ipv4|ip-adres|ipv4-adres|indirizzo ip|indirizzo ipv4|server address|server-ip|webserver',
  ),
  ipv6: list('ipv6|ipv6 address|ipv6-adresse|adresse ipv6|direccion ipv6|ipv6-adres|indirizzo ipv6'),
  domain: list('domain|domain name|domainname|zone|domaine|nom de domaine|dominio|nombre de dominio|nome a dominio|domein|domeinnaam|zona'),
  noise: list(
    'status|state|active|enabled|zustand|aktiv|statut|etat|estado|stato|actief|actions|action|aktionen|aktion|acciones|accion|azioni|azione|acties|actie|options|optionen|comment|comments|note|notes|kommentar|bemerkung|commentaire|remarque|comentario|nota|commento|opmerking|notiz|id|#|no|nr|created|modified|last modified|updated|erstellt|geandert|modifie|modificado|modificato|gewijzigd|date|datum|fecha|data di modifica|tags|edit|delete|bearbeiten|loschen|description|beschreibung|service|purpose|zweck|server|user|username|password|benutzer|passwort|utilisateur|gebruiker',
  ),
};

const BY_WORD = new Map(Object.entries(LABELS).flatMap(([label, words]) => words.map((word): [string, Label] => [plainWord(word), label as Label])));

/** Characters of the longest label. */
const LONGEST = 48;

/**
 * What a label is for; undefined where it is none that is known. Case, accents, numbers and marks make no difference.
 *
 *     labelOf('Nameserver 2:')  // 'nameserver'
 *     labelOf('Zeigt auf')      // 'value'
 */
export function labelOf(text: string): Label | undefined {
  // Numbers and names of a value leave words that look like a label.
  if (text.length > LONGEST || /\d[.:]\d|[@=]|:\S/.test(text)) return undefined;
  const word = plainWord(text);
  return word === '' ? undefined : BY_WORD.get(word);
}

/** A label without the mark behind it: `Name :` → Name. */
export function withoutColon(text: string): string {
  const bare = text.trimEnd();
  return /[:=]$/.test(bare) ? bare.slice(0, -1).trimEnd() : bare;
}

/** Small letters without accents, marks, numbers and what stands in brackets; the numbers of IPv4 and IPv6 stay. */
export function plainWord(text: string): string {
  return withoutBrackets(text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase())
    .replace(/[:’'"“”*?.]|(?<!ipv)\d/g, '')
    .replace(/_/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();
}

/**
 * A text without what stands in brackets, and the blanks before it; one bracket that is never closed stays. In one pass: an expression that
 * looks for the end of each bracket anew takes hours for a hostile text.
 *
 *     withoutBrackets('name (or @) of host')  // 'name of host'
 */
function withoutBrackets(text: string): string {
  if (!text.includes('(') && !text.includes('[')) return text;
  const [open, close] = [/[([]/g, /[)\]]/g];
  let kept = '';
  let at = 0;
  for (;;) {
    open.lastIndex = at;
    const start = open.exec(text)?.index;
    close.lastIndex = start ?? text.length;
    const end = start === undefined ? undefined : close.exec(text)?.index;
    if (start === undefined || end === undefined) return kept + text.slice(at);
    kept += text.slice(at, start).trimEnd();
    at = end + 1;
  }
}
