import { Host, HostInput } from '@wanderon/contract';
import { PlaceAct, linkProblem } from '@wanderon/core';
import { FormEvent, useState } from 'react';
import { useNoteOfHost, useSaveHost } from '../../api';
import { Button } from '../../ui/button';
import { Field } from '../../ui/field';
import { Failed } from '../../ui/states';
import { useToast } from '../../ui/toast';

const NOTHING = { link: '', path: '', first: '' };

/** Takes down where something is done at a place; one that nobody described becomes a host with it. */
export function NoteWhere({
  host,
  fresh,
  name,
  act,
  asked,
  onMade,
  onDone,
}: {
  host: Host | undefined;
  fresh: FreshPlace | undefined;
  name: string;
  act: PlaceAct;
  /** It is asked for, and can be refused for good. */
  asked: boolean;
  onMade: ((host: Host) => void) | undefined;
  onDone: () => void;
}) {
  const [typed, setTyped] = useState(host?.where.find((one) => one.act === act) ?? NOTHING);
  const [called, setCalled] = useState(fresh?.name ?? '');
  const note = useNoteOfHost();
  const make = useSaveHost();
  const { say } = useToast();
  const { link, path, first } = typed;
  const problem = linkProblem(link.trim());
  const saved = (place: Host, { link: page, path: clicks, first: before }: typeof NOTHING): void =>
    note.mutate(
      { id: place.id, of: `where/${act}`, note: { link: page, path: clicks, first: before } },
      {
        onSuccess: () => {
          if (!host) onMade?.(place);
          if (page + clicks + before !== '') say(`Noted for ${place.name}.`);
          onDone();
        },
      },
    );
  const submit = (event: FormEvent): void => {
    event.preventDefault();
    if (host) saved(host, typed);
    // What was made before the note failed is there already.
    else if (make.data) saved(make.data, typed);
    else if (fresh) make.mutate({ id: undefined, input: newPlace(fresh, called) }, { onSuccess: (made) => saved(made, typed) });
  };
  const isEmpty = [link, path, first].every((text) => text.trim() === '');
  const failed = make.error ?? note.error;
  return (
    <form onSubmit={submit} aria-label={`Where to click at ${name}`} className="my-2 max-w-2xl border-l-4 border-accent bg-shade px-3 py-2 print:hidden">
      <p className="mb-1">
        {asked ? <b className="font-semibold">Where was it? </b> : null}
        Note the way there once: the next sheet for {host?.name ?? name} leads to it.
      </p>
      {!host && (
        <Field
          label={fresh?.role === 'registrar' ? 'Which registrar is it?' : 'Which host is it?'}
          value={called}
          onChange={(event) => setCalled(event.target.value)}
        />
      )}
      <Field
        label="What you click"
        placeholder="Domains › {zone} › Name servers"
        value={path}
        onChange={(event) => setTyped({ ...typed, path: event.target.value })}
        hint="One after the other, with › or > between. {zone} stands for the domain."
      />
      <div className="grid grid-cols-2 gap-x-4 max-md:grid-cols-1">
        <Field
          label="Link"
          mono
          placeholder="https://"
          value={link}
          problem={problem}
          onChange={(event) => setTyped({ ...typed, link: event.target.value })}
          hint="Of that page, or where one logs in."
        />
        <Field
          label="What has to be done first"
          value={first}
          onChange={(event) => setTyped({ ...typed, first: event.target.value })}
          hint="Such as: choose nameservers of your own."
        />
      </div>
      {failed && <Failed error={failed} />}
      <div className="flex gap-2">
        <Button type="submit" disabled={isEmpty || problem !== undefined || (!host && called.trim() === '') || note.isPending || make.isPending}>
          Note it
        </Button>
        {asked && host ? <Button onClick={() => saved(host, NOTHING)}>Do not ask again</Button> : <Button onClick={onDone}>Not now</Button>}
      </div>
    </form>
  );
}

/** A place that becomes a host, by its role and what of it is known. */
export interface FreshPlace {
  readonly role: 'dns' | 'registrar';
  readonly nameservers: readonly string[];
  /** As a registry calls it; null: nobody has said it. */
  readonly name: string | null;
}

function newPlace({ role, nameservers }: FreshPlace, name: string): HostInput {
  return { ...{ name, role, note: '' }, nameservers: [...nameservers], addresses: [], requires: [], aliasTarget: null, updateAddress: null };
}
