import { Random } from './random';
import { PARTINGS, cellsOf, columnsOf, drawTable, fields, habitOf, headOf, nameOf, valueOf } from './forms';
import { TextCase } from './oldTexts';
import { ABOUT, FOOTERS, HEADINGS, LANGUAGES, Language } from './words';
import { TextRecord, address, domain, hostName } from './zone';

/** What a new host gives: records to set, and names of nameservers and addresses, each told apart by its type. */
export interface NewCase extends TextCase {
  readonly servers: readonly string[];
  readonly addresses: readonly string[];
}

interface Phrases {
  readonly hello: readonly string[];
  readonly a: readonly string[];
  readonly alias: readonly string[];
  readonly both: readonly string[];
  readonly text: readonly string[];
  readonly servers: readonly string[];
  readonly series: readonly string[];
  readonly address: readonly string[];
  readonly noise: readonly string[];
}

/** `%v` is the value, `%d` the domain. */
const PHRASES: Readonly<Record<Language, Phrases>> = {
  en: {
    hello: ['Hello,\n\nyour new site is ready.', 'Welcome aboard!', 'Hi there,\n\nto connect %d please do the following.'],
    a: ['Point the A record of your domain to %v.', 'Create an A record for @ with the value %v.', 'The A record should be %v.'],
    alias: ['Add a CNAME record for www that points to %v.', 'For www, create a CNAME record to "%v".'],
    both: ['Set an A record for your domain to %v, www the same.', 'Create A records for @ and www pointing to %v.'],
    text: ['Add a TXT record with the value "%v" to prove that the domain is yours.'],
    servers: ['Please change your nameservers to %v.', 'Use these name servers: %v'],
    series: ['Our nameservers are %s of %z.'],
    address: ['Your site has the IP address %v.', 'Server IP: %v'],
    noise: ['Your user name is choir42.', 'Changes can take up to 48 hours.', 'If you have questions, call us on 0800 123456.'],
  },
  de: {
    hello: ['Hallo,\n\nIhre neue Seite ist bereit.', 'Willkommen!', 'Guten Tag,\n\num %d zu verbinden, gehen Sie bitte so vor.'],
    a: ['Setzen Sie den A-Eintrag Ihrer Domain auf %v.', 'Legen Sie einen A-Record für @ mit dem Wert %v an.'],
    alias: ['Legen Sie für www einen CNAME-Eintrag auf %v an.'],
    both: ['Setzen Sie einen A-Eintrag für die Domain auf %v, www ebenso.', 'Erstellen Sie A-Einträge für @ und www mit dem Wert %v.'],
    text: ['Fügen Sie einen TXT-Eintrag mit dem Wert „%v“ hinzu.'],
    servers: ['Bitte ändern Sie die Nameserver auf %v.', 'Unsere Nameserver lauten: %v'],
    series: ['Die Nameserver sind %s von %z.'],
    address: ['Ihre Seite hat die IP-Adresse %v.', 'IP-Adresse: %v'],
    noise: ['Ihr Benutzername ist choir42.', 'Änderungen dauern bis zu 48 Stunden.', 'Bei Fragen rufen Sie uns an.'],
  },
  fr: {
    hello: ['Bonjour,\n\nvotre nouveau site est prêt.', 'Bienvenue !'],
    a: ['Faites pointer l’enregistrement A de votre domaine vers %v.', 'Créez un enregistrement A pour @ avec la valeur %v.'],
    alias: ['Ajoutez un enregistrement CNAME pour www qui pointe vers %v.'],
    both: ['Créez un enregistrement A pour le domaine vers %v, www de même.', 'Créez des enregistrements A pour @ et www vers %v.'],
    text: ['Ajoutez un enregistrement TXT avec la valeur « %v ».'],
    servers: ['Veuillez remplacer les serveurs DNS par %v.', 'Nos serveurs de noms sont : %v'],
    series: ['Les serveurs DNS sont %s de %z.'],
    address: ['Votre site a l’adresse IP %v.', 'Adresse IP : %v'],
    noise: ['Votre identifiant est choir42.', 'Les changements prennent jusqu’à 48 heures.'],
  },
  es: {
    hello: ['Hola,\n\nsu nuevo sitio está listo.', '¡Bienvenido!'],
    a: ['Apunte el registro A de su dominio a %v.', 'Cree un registro A para @ con el valor %v.'],
    alias: ['Añada un registro CNAME para www que apunte a %v.'],
    both: ['Cree un registro A para el dominio con %v, www igual.', 'Cree registros A para @ y www hacia %v.'],
    text: ['Añada un registro TXT con el valor "%v".'],
    servers: ['Cambie los servidores DNS a %v.', 'Nuestros servidores de nombres son: %v'],
    series: ['Los servidores DNS son %s de %z.'],
    address: ['Su sitio tiene la dirección IP %v.', 'Dirección IP: %v'],
    noise: ['Su usuario es choir42.', 'Los cambios tardan hasta 48 horas.'],
  },
  it: {
    hello: ['Buongiorno,\n\nil nuovo sito è pronto.', 'Benvenuti!'],
    a: ['Impostate il record A del dominio su %v.', 'Create un record A per @ con il valore %v.'],
    alias: ['Aggiungete un record CNAME per www che punta a %v.'],
    both: ['Create un record A per il dominio verso %v, www lo stesso.', 'Create record A per @ e www verso %v.'],
    text: ['Aggiungete un record TXT con il valore "%v".'],
    servers: ['Cambiate i server DNS in %v.', 'I nostri server dei nomi sono: %v'],
    series: ['I server DNS sono %s di %z.'],
    address: ['Il sito ha l’indirizzo IP %v.', 'Indirizzo IP: %v'],
    noise: ['Il vostro utente è choir42.', 'Le modifiche richiedono fino a 48 ore.'],
  },
  nl: {
    hello: ['Hallo,\n\nuw nieuwe site is klaar.', 'Welkom!'],
    a: ['Laat het A-record van uw domein naar %v wijzen.', 'Maak een A-record voor @ met de waarde %v.'],
    alias: ['Maak voor www een CNAME-record naar %v.'],
    both: ['Maak een A-record voor het domein naar %v, www hetzelfde.', 'Maak A-records voor @ en www naar %v.'],
    text: ['Voeg een TXT-record toe met de waarde "%v".'],
    servers: ['Wijzig de nameservers in %v.', 'Onze naamservers zijn: %v'],
    series: ['De nameservers zijn %s van %z.'],
    address: ['Uw site heeft het IP-adres %v.', 'IP-adres: %v'],
    noise: ['Uw gebruikersnaam is choir42.', 'Wijzigingen duren tot 48 uur.'],
  },
};

const AND: Readonly<Record<Language, string>> = { en: 'and', de: 'und', fr: 'et', es: 'y', it: 'e', nl: 'en' };

function wantedRecords(random: Random): TextRecord[] {
  const record = (owner: string, type: string, data: string): TextRecord => ({ owner, type, ttl: 3600, data });
  const web = address(random);
  const records = [record('@', 'A', web)];
  if (random.chance(0.3)) records.push(record('@', 'A', address(random)));
  if (random.chance(0.3)) records.push(record('@', 'AAAA', `2001:db8:7::${1 + random.below(900)}`));
  records.push(random.chance(0.5) ? record('www', 'CNAME', hostName(random)) : record('www', 'A', web));
  if (random.chance(0.4)) records.push(record(random.pick(['_hearth', '_verify', '@']), 'TXT', `"hearth-site=${random.hex(16)}"`));
  return records;
}

/** A text that a new host gives. The same seed gives the same text. */
export function newText(seed: number): NewCase {
  const random = new Random(seed + 990_000);
  const zone = domain(random);
  const language = random.pick(LANGUAGES);
  const phrases = PHRASES[language];
  const habit = habitOf(random, zone, language);
  const wanted = wantedRecords(random);
  const servers: string[] = [];
  const addresses: string[] = [];
  const parts: string[] = [];
  let truth: readonly TextRecord[] = [];
  const say = (phrase: string, value: string): void => void parts.push(phrase.replace('%v', value).replace('%d', zone));
  const list = (values: readonly string[]): string =>
    values.length < 2 ? values.join('') : `${values.slice(0, -1).join(', ')} ${AND[language]} ${values.at(-1)!}`;
  const form = random.pick(['table', 'fields', 'sentences', 'servers below', 'servers in a sentence', 'servers in a series', 'address', 'lines'] as const);
  if (random.chance(0.6)) parts.push(random.pick(phrases.hello).replace('%d', zone));
  switch (form) {
    case 'table': {
      const columns = columnsOf(random, habit, { noise: random.chance(0.3) });
      // Pages of help show a domain of nobody, or the client's.
      const stand = random.chance(0.3) ? 'example.com' : zone;
      const hasHead = random.chance(0.8);
      const rows = wanted.map((record) => cellsOf(random, record, columns, { ...habit, zone: stand }));
      parts.push(
        drawTable(
          random,
          hasHead ? [headOf(random, columns, language), ...rows] : rows,
          hasHead,
          random.pick(PARTINGS.filter((one) => one !== 'html' && one !== 'below')),
        ),
      );
      truth = wanted;
      break;
    }
    case 'fields':
      parts.push(fields(random, wanted, habit, ['type', 'name', 'value']));
      truth = wanted;
      break;
    case 'sentences': {
      const web = wanted.filter(({ type }) => type === 'A')[0]!;
      const alias: TextRecord = { owner: 'www', type: 'CNAME', ttl: 3600, data: hostName(random) };
      if (random.chance(0.5)) {
        say(random.pick(phrases.both), web.data);
        truth = [web, { ...web, owner: 'www' }];
      } else {
        say(random.pick(phrases.a), web.data);
        say(random.pick(phrases.alias), alias.data.slice(0, -1));
        truth = [web, alias];
      }
      if (random.chance(0.4)) {
        const token = `hearth-site=${random.hex(16)}`;
        say(random.pick(phrases.text), token);
        truth = [...truth, { owner: '@', type: 'TXT', ttl: 3600, data: `"${token}"` }];
      }
      break;
    }
    case 'address':
      addresses.push(address(random));
      say(random.pick(phrases.address), addresses[0]!);
      break;
    case 'lines':
      parts.push(
        wanted.map((record) => `${nameOf(record, { ...habit, names: 'relative' })} ${record.type} ${valueOf(record, { ...habit, quotes: true })}`).join('\n'),
      );
      truth = wanted;
      break;
    default: {
      const host = `${random.pick(['quillmere', 'hearth-dns', 'thornwick'])}.example`;
      const count = 2 + random.below(3);
      const names = Array.from({ length: count }, (_, index) => `ns${index + 1}.${host}`);
      servers.push(...names);
      if (form === 'servers below')
        parts.push(
          `${HEADINGS[language].name[0] === 'Nom' ? 'Serveurs DNS' : 'Nameserver'}:\n${names.map((name, index) => (random.chance(0.5) ? name : `${index + 1}. ${name}`)).join('\n')}`,
        );
      else if (form === 'servers in a series')
        say(
          random
            .pick(phrases.series)
            .replace('%s', list(names.map((name) => name.split('.')[0]!)))
            .replace('%z', host),
          '',
        );
      else say(random.pick(phrases.servers), list(names));
    }
  }
  if (random.chance(0.2)) parts.push(`${random.pick(ABOUT[language].old)}\n\n@\tA\t${address(random)}\nwww\tA\t${address(random)}`);
  if (random.chance(0.15)) parts.push(`${random.pick(ABOUT[language].example)}\n\nwww.example.com A ${address(random)}`);
  if (random.chance(0.5)) parts.push(random.pick(phrases.noise));
  if (random.chance(0.4)) parts.push(random.pick(FOOTERS[language]));
  let text = parts.join('\n\n');
  if (random.chance(0.2))
    text = text
      .split('\n')
      .map((line) => `> ${line}`)
      .join('\n');
  return { seed, about: `${form}, ${language}, names ${habit.names}`, as: 'new', text, zone, truth, notWhole: [], servers, addresses };
}
