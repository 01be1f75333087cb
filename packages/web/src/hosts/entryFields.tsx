import { FieldErrors, UseFormRegister } from 'react-hook-form';
import { inputLook } from '../ui/field';
import { Choice } from './choice';
import { TypedHost } from './typedHost';

/** Each habit of a panel as a question, with what is seen there as answers; the first answer is that nobody knows it yet. */
const QUESTIONS: readonly {
  readonly field: 'names' | 'apex' | 'targetDot' | 'text' | 'longText' | 'priority' | 'ttl';
  readonly question: string;
  readonly answers: Readonly<Record<string, string>>;
}[] = [
  { field: 'names', question: 'What is typed as the name of www?', answers: { relative: 'www', whole: 'www.choir.example' } },
  { field: 'apex', question: 'And for the domain itself?', answers: { '@': '@', empty: 'nothing: the field stays empty', whole: 'choir.example' } },
  {
    field: 'targetDot',
    question: 'Is there a dot at the end of where a record leads?',
    answers: { either: 'with it or without', required: 'yes: mail.post.example.', refused: 'no: mail.post.example' },
  },
  { field: 'text', question: 'How is a text typed?', answers: { bare: 'v=spf1 -all', quoted: '"v=spf1 -all"' } },
  { field: 'longText', question: 'And one of more than 255 characters?', answers: { whole: 'in one piece', parts: 'in parts: "abc" "def"' } },
  {
    field: 'priority',
    question: 'Where does the priority of an MX go?',
    answers: { 'own field': 'in a field of its own', 'in value': 'before the value: 10 mail.post.example' },
  },
  { field: 'ttl', question: 'Which TTLs can be set?', answers: { any: 'any', list: 'those of a list', none: 'none' } },
];

/** How the panel of a DNS host wants names and values typed: sheets are written so. */
export function EntryFields({ register, ttl, errors }: { register: UseFormRegister<TypedHost>; ttl: string; errors: FieldErrors<TypedHost>['style'] }) {
  const typed = (label: string, field: 'lacks' | 'ttls' | 'leastTtl', placeholder: string) => {
    const problem = errors?.[field]?.message;
    return (
      <label>
        <span className="block text-sm text-faded">{label}</span>
        <input {...register(`style.${field}`)} aria-invalid={problem !== undefined} placeholder={placeholder} className={`${inputLook} mono`} />
        {problem && <span className="text-rust">{problem}</span>}
      </label>
    );
  };
  return (
    <div className="grid grid-cols-4 gap-x-4 gap-y-2 max-lg:grid-cols-2 max-md:grid-cols-1">
      {QUESTIONS.map(({ field, question, answers }) => (
        <Choice key={field} label={question} field={`style.${field}`} register={register} choices={{ '': 'not known yet', ...answers }} />
      ))}
      {typed('Which types can it not hold?', 'lacks', 'TLSA CAA')}
      {ttl === 'list' && typed('The list, in seconds', 'ttls', '300 3600 86400')}
      {ttl === 'any' && typed('The least, in seconds', 'leastTtl', 'none')}
    </div>
  );
}
