import { Name, RegistrarForm, readNameserverSet, registrarSheet } from '@wanderon/core';
import { Lab } from './lab';
import { REGISTRAR_FORMS, registrarOf } from './registrars';
import { DOMAINS } from './scenario/domains';
import { nameserversAt } from './scenario/hosts';

const WANTED = nameserversAt('quillmere').map((one) => one.name);
/** One domain at each registrar. */
const ZONES = ['seed-library.example.', 'tidewater-choir.example.'];
const domainOf = (zone: string): (typeof DOMAINS)[number] => DOMAINS.find((one) => one.zone === zone)!;

/** The forms of the lab's registrars, filled in by a stand-in person; what the parent publishes afterwards is read back. */
describe.each(ZONES)('the form of the registrar of %s', (zone) => {
  const id = registrarOf(domainOf(zone));
  const form: RegistrarForm = REGISTRAR_FORMS[id];
  const isList = form.entry === 'list';
  const others = [{ of: 'Heronsgate DNS', nameservers: nameserversAt('heronsgate').map((one) => one.name) }];
  let lab: Lab;
  let old: string[];
  beforeAll(async () => {
    lab = await Lab.open();
    old = published();
  });
  afterAll(() => lab.close());
  beforeEach(() => lab.changeNameservers(zone, old));

  function published(): string[] {
    const [parent] = [...lab.registry.zones.values()];
    const set = parent!.all().find((one) => one.type === 2 && one.owner.equals(Name.parse(zone)));
    return (set?.data ?? []).map((data) => {
      const labels: string[] = [];
      for (let at = 0; data[at]! > 0; at += data[at]! + 1) labels.push(Buffer.from(data.slice(at + 1, at + 1 + data[at]!)).toString('latin1'));
      return `${labels.join('.')}.`;
    });
  }

  /** Sends what stands in the fields, and opens the mail where one comes. Gives the page that follows. */
  async function send(fields: readonly string[], confirms = true): Promise<string> {
    const body = new URLSearchParams([['name', zone], ...(isList ? [fields.join('\n')] : fields).map((field): [string, string] => ['ns', field])]);
    const answer = await fetch(`${lab.address}/registrar/domain`, { method: 'POST', body });
    if (form.confirm === 'mail' && confirms && answer.ok)
      await fetch(`${lab.address}/registrar/mail`, { method: 'POST', body: new URLSearchParams({ name: zone }) });
    return answer.text();
  }

  const readBack = (): ReturnType<typeof readNameserverSet> => readNameserverSet({ zone, wanted: WANTED, old, others }, published());
  const dotted = (name: string): string => (form.dot === 'required' ? name : name.replace(/\.$/, ''));

  it('filled in as its sheet says publishes the wanted set', async () => {
    const names = registrarSheet(form, WANTED, old).flatMap((step) => (step.isName ? step.copy!.split('\n') : []));
    await send(names);
    expect(published().sort()).toEqual([...WANTED].sort());
    expect(readBack()).toEqual({ asPlanned: true, unchanged: false, slips: [] });
  });

  const slips: [string, string, (names: string[]) => string[]][] = [
    ['a third name left from before', 'left over', (names) => [...names, dotted(old[0]!)]],
    ['a number that was not changed', 'number', ([one, two]) => [one!, two!, dotted('ns9.quillmere.example.')]],
    ['a name misspelt into another domain', 'misspelt', ([one, two]) => [one!, two!, dotted('ns3.quilmere.example.')]],
    ['a name of another host', 'other set', ([one, two]) => [one!, two!, dotted('one.heronsgate.example.')]],
    ['only some fields saved', 'missing', ([one, two]) => [one!, two!]],
    ...(isList
      ? [
          ['a dot that was forgotten', 'appended', ([one, two, three]: string[]) => [one!, two!, three!.replace(/\.$/, '')]] as [
            string,
            string,
            (names: string[]) => string[],
          ],
        ]
      : []),
  ];
  it.each(slips)('%s is named from what the parent publishes', async (_what, code, slip) => {
    await send(slip(WANTED.map(dotted)));
    const { asPlanned, slips: found } = readBack();
    expect([asPlanned, found.map((one) => one.code)]).toEqual([false, expect.arrayContaining([code])]);
  });

  it('not saved, or saved and not confirmed, reads as the names from before', async () => {
    if (form.confirm === 'mail') expect(await send(WANTED.map(dotted), false)).toContain('Nothing changes before the link');
    expect(readBack()).toMatchObject({ asPlanned: false, unchanged: true });
  });

  it('takes a URL for a name, which is named, and refuses what can be none', async () => {
    await send(['https://ns1.quillmere.example/', ...WANTED.slice(1).map(dotted)]);
    expect(readBack().slips.map((slip) => slip.code)).toContain('url');
    const before = published();
    const said = await send(['ns1..quillmere.example.', dotted(WANTED[1]!)]);
    // Where a mail comes in between, it is refused when the link is opened.
    expect(said).toContain(isList ? 'Please confirm' : 'That did not work');
    expect(published()).toEqual(before);
  });
});
