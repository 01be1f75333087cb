import { plain } from '../survey/words';

export const FORM_ENTRY = ['each', 'list'] as const;
export const FORM_DOT = ['refused', 'required', 'either'] as const;
export const FORM_CONFIRM = ['none', 'mail', 'identity'] as const;

/** How a registrar's page wants a nameserver set. */
export interface RegistrarForm {
  /** One field a name, or one for all of them with a name a line. */
  readonly entry: (typeof FORM_ENTRY)[number];
  /** Fields that are there at first; more of them have to be asked for. */
  readonly shown: number;
  /** Names that it takes at the least and at the most. */
  readonly least: number;
  readonly most: number;
  readonly dot: (typeof FORM_DOT)[number];
  /** Names from before have to be taken out and saved first. */
  readonly emptyFirst: boolean;
  /** The change has to be sent on a further page. */
  readonly apart: boolean;
  readonly consent: boolean;
  /** What it asks for before the change goes to the registry. */
  readonly confirm: (typeof FORM_CONFIRM)[number];
  /** Warnings to expect although everything is right. */
  readonly warnings: readonly string[];
}

/** What most registrars' pages are like; taken where nothing is known of one. */
export const USUAL_FORM: RegistrarForm = {
  ...{ entry: 'each', shown: 4, least: 2, most: 13, dot: 'either', emptyFirst: false, apart: false, consent: false, confirm: 'none', warnings: [] },
};

/** One thing to do at the registrar, in its order. `copy`: what is typed or pasted there; `row`: stands for a name that is typed. */
export interface RegistrarStep {
  readonly id: string;
  readonly text: string;
  readonly copy: string | undefined;
  readonly isName: boolean;
}

/**
 * What a person does on a registrar's page, in order: the names as the page wants them, what goes, and what comes after typing.
 * `old` is what stands there now. Names absolute with final dot. Throws nothing: that the page takes fewer names is told as a step.
 *
 *     registrarSheet(USUAL_FORM, ['ns1.quillmere.example.'], ['ns1.oldquay.example.']).map((step) => step.copy)
 *     // ['ns1.quillmere.example', undefined]
 */
export function registrarSheet(form: RegistrarForm, wanted: readonly string[], old: readonly string[]): RegistrarStep[] {
  const typed = wanted.map((name) => (form.dot === 'required' ? name : plain(name)));
  const left = old.filter((name) => !wanted.some((one) => one.toLowerCase() === name.toLowerCase())).map(plain);
  const steps: RegistrarStep[] = [];
  const say = (id: string, text: string, copy?: string, isName = false): void => void steps.push({ id, text, copy, isName });
  if (form.emptyFirst && old.length > 0) say('empty', `Take out ${old.map(plain).join(', ')} and save: only then does it take others.`);
  if (wanted.length < form.least) say('too few', `It takes ${form.least} names at the least, and the host gives ${wanted.length}: ask the host for more.`);
  if (wanted.length > form.most)
    say('too many', `It takes ${form.most} names and the host gives ${wanted.length}: type the first ${form.most}, and ask the host whether that is enough.`);
  if (form.entry === 'list')
    say(
      'list',
      `Replace everything in the field by ${typed.length === 1 ? 'this line' : `these ${typed.length} lines`}.`,
      typed.slice(0, form.most).join('\n'),
      true,
    );
  else
    for (const [index, name] of typed.slice(0, form.most).entries()) {
      const field = index < form.shown ? '' : index === form.shown ? ' There is a button for one more field.' : ' One more field.';
      say(name, `Nameserver ${index + 1}.${field}`, name, true);
    }
  if (!form.emptyFirst && form.entry === 'each') {
    const spare = old.slice(typed.length).map(plain);
    if (spare.length > 0)
      say(
        'spare',
        `Empty the ${spare.length === 1 ? 'field' : `${spare.length} fields`} after that: ${spare.join(', ')} ${spare.length === 1 ? 'stands' : 'stand'} there.`,
      );
    else if (left.length > 0) say('left', `Nothing of the old set stays: ${left.join(', ')}.`);
  }
  if (form.warnings.length > 0) say('warnings', `To be expected although everything is right: ${form.warnings.join('; ')}.`);
  if (form.consent) say('consent', 'Tick the consent.');
  say('save', form.apart ? 'Save, and send the change on the page that follows: saved alone it is not sent.' : 'Save, and look whether it says so.');
  if (form.confirm === 'mail') say('confirm', 'Open the link in the mail that follows: before that nothing is changed. It goes to the owner of the domain.');
  if (form.confirm === 'identity') say('confirm', 'Prove who you are, as the page asks: before that nothing is changed.');
  return steps;
}
