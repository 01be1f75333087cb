/** What a label on a host's page is for. */
export type PageLabel = 'name' | 'type' | 'value' | 'ttl' | 'priority' | 'nameserver' | 'address' | 'ipv6';

/** Labels as pages in several languages have them, without marks and numbers; the longer ones first where one begins another. */
const LABELS: Readonly<Record<PageLabel, readonly string[]>> = {
  name: 'host|hostname|host name|name|record name|subdomain|name / host|host / name|owner|prefix|host/name|hote|nom|nom dhote|nombre|nome|naam|hostnaam|subdomein|sous-domaine|subdominio|bezeichnung|präfix'.split(
    '|',
  ),
  type: 'type|record type|record|typ|eintragstyp|tipo|soort|type denregistrement|tipo de registro|recordtype|art'.split('|'),
  value:
    'value|points to|point to|target|data|content|answer|destination|record value|txt value|points at|address / value|wert|ziel|inhalt|zeigt auf|valeur|cible|contenu|pointe vers|valor|destino|apunta a|contenido|waarde|doel|inhoud|wijst naar|valore|destinazione|contenuto'.split(
      '|',
    ),
  ttl: 'ttl|time to live|lebensdauer|durée|duración|durata'.split('|'),
  priority: 'priority|prio|preference|priorität|priorité|prioridad|prioriteit|priorità'.split('|'),
  nameserver:
    'nameserver|name server|nameservers|name servers|dns server|dns servers|ns|primary nameserver|secondary nameserver|primary name server|secondary name server|serveur de noms|serveurs de noms|serveur dns|serveurs dns|servidor de nombres|servidores de nombres|servidor dns|servidores dns|server dei nomi|server dns|naamserver|naamservers|nameserver-adressen'.split(
      '|',
    ),
  address:
    'ip|ip address|ip addresses|ipv4|ipv4 address|server ip|ip-adresse|ipv4-adresse|adresse ip|adresse ipv4|dirección ip|dirección ipv4|ip-adres|ipv4-adres|indirizzo ip|indirizzo ipv4|server address|address'.split(
      '|',
    ),
  ipv6: 'ipv6|ipv6 address|ipv6-adresse|adresse ipv6|dirección ipv6|ipv6-adres|indirizzo ipv6'.split('|'),
};

const BY_WORD = new Map(Object.entries(LABELS).flatMap(([label, words]) => words.map((word): [string, PageLabel] => [plainWord(word), label as PageLabel])));

/**
 * What a label is for; undefined where it is none that is known. Case, accents, numbers and marks make no difference.
 *
 *     labelOf('Nameserver 2:')  // 'nameserver'
 *     labelOf('Zeigt auf')      // 'value'
 */
export function labelOf(text: string): PageLabel | undefined {
  if (text.length > 40) return undefined;
  return BY_WORD.get(plainWord(text));
}

function plainWord(text: string): string {
  return text
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[#:’'"()\d]/g, '')
    .replace(/\s+/g, ' ')
    .trim();
}
