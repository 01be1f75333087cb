import { RESOLVER_OVER, ResolverInput, resolverInputSchema } from '@wanderon/contract';
import { FormEvent, useState } from 'react';
import { Button } from '../ui/button';
import { Field, inputLook } from '../ui/field';
import { problemAt } from '../ui/problemAt';
import { Failed } from '../ui/states';
import { useToast } from '../ui/toast';
import { ProblemError } from '../api';
import { OVER_WORDS } from './resolvers';
import { useResolverAct } from './useResolvers';

const EMPTY = { name: '', address: '', over: 'udp', tlsName: '', path: '', stands: '', note: '' } as const;
type Typed = { [K in keyof typeof EMPTY]: K extends 'over' ? ResolverInput['over'] : string };
const FIELDS: readonly (keyof Typed)[] = ['name', 'address', 'tlsName', 'path', 'stands', 'note'];

/** One more resolver: it is asked before it is added. */
export function AddResolver() {
  const [typed, setTyped] = useState<Typed>(EMPTY);
  const [wrong, setWrong] = useState<Readonly<Record<string, string>>>({});
  const act = useResolverAct();
  const { say } = useToast();
  const isSecret = typed.over === 'tls' || typed.over === 'https';
  const change = (part: Partial<Typed>): void => {
    setTyped({ ...typed, ...part });
    setWrong({});
    act.reset();
  };
  const add = (anyway: boolean): void => {
    const read = resolverInputSchema.safeParse({ ...typed, anyway });
    if (!read.success) return setWrong(Object.fromEntries(read.error.issues.map((issue) => [String(issue.path[0]), issue.message])));
    act.mutate(
      { kind: 'add', input: read.data },
      {
        onSuccess: () => {
          say(`${typed.name.trim()} is asked from now on.`);
          setTyped(EMPTY);
        },
      },
    );
  };
  const problemOf = (field: keyof Typed): string | undefined => wrong[field] ?? problemAt(act.error, field);
  const field = (name: keyof Typed, label: string, hint = '') => (
    <Field
      label={label}
      hint={hint}
      value={typed[name]}
      spellCheck={false}
      autoCapitalize="none"
      mono={name === 'address' || name === 'tlsName' || name === 'path'}
      problem={problemOf(name)}
      onChange={(event) => change({ [name]: event.target.value })}
    />
  );
  const isSilent = act.error instanceof ProblemError && problemAt(act.error, 'address') !== undefined;
  return (
    <form
      className="max-w-3xl"
      onSubmit={(event: FormEvent) => {
        event.preventDefault();
        add(false);
      }}
    >
      <h2 className="smallcaps mb-2 border-b border-ink">Add a resolver</h2>
      <div className="grid grid-cols-2 gap-x-6 max-md:grid-cols-1">
        {field('name', 'Name', 'As it is called on your screens.')}
        {field('address', 'Address', 'IPv4 or IPv6.')}
        <div className="mb-3">
          <label htmlFor="over" className="mb-0.5 block font-semibold">
            Asked over
          </label>
          <select id="over" className={inputLook} value={typed.over} onChange={(event) => change({ over: event.target.value as Typed['over'] })}>
            {RESOLVER_OVER.map((over) => (
              <option key={over} value={over}>
                {OVER_WORDS[over]}
              </option>
            ))}
          </select>
        </div>
        {isSecret && field('tlsName', 'Name of its certificate', 'Such as dns.resolver.example.')}
        {typed.over === 'https' && field('path', 'Path', '/dns-query where it is left empty.')}
        {field('stands', 'Where it stands', 'A city, a provider, an office.')}
        {field('note', 'Note')}
      </div>
      {act.error && !FIELDS.some((name) => problemAt(act.error, name) !== undefined) && <Failed error={act.error} />}
      <div className="flex gap-2">
        <Button type="submit" kind="main" disabled={act.isPending}>
          {act.isPending ? 'Asking it …' : 'Add it'}
        </Button>
        {isSilent && <Button onClick={() => add(true)}>Add it anyway</Button>}
      </div>
    </form>
  );
}
