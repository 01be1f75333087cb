import fc from 'fast-check';
import { readNameserverSet } from '../slips/nameserverSet';
import { FORM_CONFIRM, FORM_DOT, FORM_ENTRY, RegistrarForm, USUAL_FORM, registrarSheet } from './registrarForm';

const NEW = ['ns1.quillmere.example.', 'ns2.quillmere.example.', 'ns3.quillmere.example.'];
const OLD = ['ns1.oldquay.example.', 'ns2.oldquay.example.'];

const forms: fc.Arbitrary<RegistrarForm> = fc.record({
  entry: fc.constantFrom(...FORM_ENTRY),
  shown: fc.integer({ min: 1, max: 5 }),
  least: fc.constant(2),
  most: fc.integer({ min: 3, max: 13 }),
  dot: fc.constantFrom(...FORM_DOT),
  emptyFirst: fc.boolean(),
  apart: fc.boolean(),
  consent: fc.boolean(),
  confirm: fc.constantFrom(...FORM_CONFIRM),
  warnings: fc.constantFrom([], ['Your website may stop']),
});

/** A page with these habits and a person who does what the sheet says, to the letter; what it sends to the registry. */
function sends(form: RegistrarForm, old: readonly string[], steps: ReturnType<typeof registrarSheet>): string[] | string {
  let fields: string[] = old.map((name) => name.replace(/\.$/, ''));
  let saved = false;
  let next = 0;
  for (const step of steps) {
    if (step.id === 'empty') fields = [];
    else if (step.id === 'list') fields = step.copy!.split('\n');
    else if (step.isName) fields[next++] = step.copy!;
    else if (step.id === 'spare') fields = fields.slice(0, next);
    else if (step.id === 'save') saved = true;
  }
  if (form.emptyFirst && old.length > 0 && !steps.some((step) => step.id === 'empty')) return 'it takes no others before the old ones are gone';
  if (form.dot === 'refused' && fields.some((one) => one.endsWith('.'))) return 'a dot at the end';
  if (form.dot === 'required' && fields.some((one) => !one.endsWith('.'))) return 'no dot at the end';
  return saved ? fields.map((one) => (one.endsWith('.') ? one : `${one}.`)) : 'not saved';
}

describe('a sheet for a registrar', () => {
  it('done to the letter sends the wanted set and nothing else, whatever the page’s habits and whatever stood there', () => {
    fc.assert(
      fc.property(forms, fc.array(fc.constantFrom(...OLD, ...NEW, 'ns3.oldquay.example.', 'ns4.oldquay.example.'), { maxLength: 5 }), (form, stood) => {
        const old = [...new Set(stood)];
        const sent = sends(form, old, registrarSheet(form, NEW, old));
        expect(sent).toEqual(NEW);
        expect(readNameserverSet({ zone: 'choir.example.', wanted: NEW, old: OLD, others: [] }, sent as string[]).asPlanned).toBe(true);
      }),
    );
  });

  it('says which fields have to be asked for, what is left over, and what comes after saving', () => {
    const form: RegistrarForm = { ...USUAL_FORM, shown: 2, apart: true, consent: true, confirm: 'mail', warnings: ['“These servers do not answer”'] };
    expect(registrarSheet(form, NEW, [...OLD, 'ns3.oldquay.example.', 'ns4.oldquay.example.']).map((step) => [step.id, step.text])).toEqual([
      ['ns1.quillmere.example', 'Nameserver 1.'],
      ['ns2.quillmere.example', 'Nameserver 2.'],
      ['ns3.quillmere.example', 'Nameserver 3. There is a button for one more field.'],
      ['spare', 'Empty the field after that: ns4.oldquay.example stands there.'],
      ['warnings', 'To be expected although everything is right: “These servers do not answer”.'],
      ['consent', 'Tick the consent.'],
      ['save', 'Save, and send the change on the page that follows: saved alone it is not sent.'],
      ['confirm', 'Open the link in the mail that follows: before that nothing is changed. It goes to the owner of the domain.'],
    ]);
  });

  it('names what stands in the fields that are emptied, also where a wanted name stands among the old ones', () => {
    const steps = registrarSheet(USUAL_FORM, NEW.slice(0, 2), [OLD[0]!, OLD[1]!, NEW[0]!]);
    expect(steps.find((step) => step.id === 'spare')!.text).toBe('Empty the field after that: ns1.quillmere.example stands there.');
  });

  it('says that a page takes fewer names than the host gives, or more', () => {
    expect(registrarSheet(USUAL_FORM, NEW.slice(0, 1), []).map((step) => step.id)).toEqual(['too few', 'ns1.quillmere.example', 'save']);
    expect(registrarSheet({ ...USUAL_FORM, most: 2 }, NEW, OLD).map((step) => step.id)).toEqual([
      'too many',
      'ns1.quillmere.example',
      'ns2.quillmere.example',
      'left',
      'save',
    ]);
  });
});
