import { RowDecision } from '../rebuild/ledgerRow';
import { RulingsValue, rowsOf } from '../rebuild/rowWords';
import { ruleWords } from '../rebuild/standingRule';
import { plain, setWords } from '../survey/words';
import { Decision, DecisionKind, standing, OwnTask } from './said';

/** What undo takes back; acts that went out are set right by other acts. */
const UNDOABLE: ReadonlySet<DecisionKind> = new Set([
  'ruling',
  'rulings',
  'rule over',
  'waive',
  'aside',
  'accept TTLs',
  'hint',
  'purpose',
  'stored',
  'done',
  'front',
  'site',
]);

/** A person's last decision that stands and that undo takes back. Decisions are in the order in which they were made. */
export function undoable(decisions: readonly Decision[], person: string): Decision | undefined {
  return standing(decisions).findLast((one) => UNDOABLE.has(one.kind) && one.person === person);
}

/**
 * A person's last undo, where that person has decided nothing else since that undo could take back. Rulings that went when other hosts were
 * chosen do not come back: their rows are gone.
 */
export function redoable(decisions: readonly Decision[], person: string): Decision | undefined {
  const undoes = new Map(decisions.map((one) => [one.id, one.undoes]));
  const redone = new Set(undoes.values());
  // An undo of an undo says nothing of its own.
  const isRedo = (one: Decision): boolean => one.undoes !== null && (undoes.get(one.undoes) ?? null) !== null;
  const since = decisions.slice(decisions.findLastIndex((one) => one.kind === 'hosts') + 1);
  const last = since.findLast((one) => one.person === person && UNDOABLE.has(one.kind) && !isRedo(one) && !(one.undoes !== null && redone.has(one.id)));
  return last && last.undoes !== null ? last : undefined;
}

/**
 * What a decision was about, in words. `titleOf`: the title of a step, or of a line of the gate, by its id; what nobody knows any more is
 * told without it.
 */
export function decisionWords(decision: Decision, titleOf: (id: string) => string | undefined = () => undefined): string {
  const { kind, subject } = decision;
  const [owner = '', type = ''] = subject.split(/[\n/]/);
  const set = `${plain(owner)} ${type}`.trim();
  const step = titleOf(subject);
  switch (kind) {
    case 'ruling': {
      const row = (decision.value as { row: RowDecision } | null)?.row;
      return row ? setWords(row) : 'A row taken out';
    }
    case 'rulings': {
      const { rule } = decision.value as RulingsValue;
      return rule ? `“${ruleWords(rule)}”` : `${rowsOf(decision).length} rows`;
    }
    case 'rule over':
      return 'A rule that is over';
    case 'done':
      return step ? `${step}: done` : 'A step that was done';
    case 'leave':
      return step ? `${step}: left out` : 'A step that was left out';
    case 'retry':
      return step ? `${step}: again` : 'A step that is tried again';
    case 'waive':
      return step ? `A check that is skipped: ${step}` : 'A check that is skipped';
    case 'aside':
      return `Not waiting for ${plain(subject.replace(/^lookout /, ''))}`;
    case 'accept TTLs':
      return 'Not waiting for old TTLs';
    case 'assent':
      return `What stands at ${set}`;
    case 'hint':
      return `What is known of ${plain(owner)}`;
    case 'purpose':
      return `What ${set} is for`;
    case 'stored':
      return `What ${set} holds`;
    case 'front':
      return `How ${plain(subject)} is answered`;
    case 'site':
      return 'Where visitors are to end';
    case 'look':
      return 'A look';
    case 'own task':
      return decision.value ? `“${(decision.value as OwnTask).title}” to do` : 'A task taken away';
    case 'comment':
      return `A comment on ${set}`;
    case 'typed':
      return 'A row of the sheet that is typed';
    default:
      return OF_THE_LEG[kind];
  }
}

/** Decisions about the leg as a whole. */
const OF_THE_LEG: Readonly<
  Record<'hosts' | 'named' | 'push' | 'approve' | 'submitted' | 'survey' | 'website' | 'pages' | 'early' | 'panel' | 'registrar' | 'registration', string>
> = {
  hosts: 'Where it goes',
  named: 'The nameservers that the new host gave',
  push: 'Sending the new zone',
  approve: 'The timetable',
  submitted: 'The change',
  survey: 'Another survey',
  website: 'A look at the website',
  pages: 'The pages that are looked at',
  early: 'What goes into the live zone beforehand',
  panel: 'What the panel shows',
  registrar: 'Which registrar it is',
  registration: 'What is known of the registration',
};
