import { Host } from '@wanderon/contract';
import { plain } from '@wanderon/core';
import { useQueryClient } from '@tanstack/react-query';
import { FormEvent, useState } from 'react';
import { call, useHosts } from '../api';
import { Button } from '../ui/button';
import { inputLook } from '../ui/field';
import { useToast } from '../ui/toast';

/** Places that this move knows by what was given for it; each becomes a host of the agency with one name, and is known in the next move. */
export function KeepPlaces({ move, may }: { move: string; may: boolean }) {
  const hosts = useHosts(move);
  const places = (hosts.data ?? []).filter((host) => host.ofMove !== null);
  if (!may || places.length === 0) return null;
  return (
    <div className="mt-4">
      <h3 className="smallcaps border-b border-ink">Where it goes</h3>
      {places.map((place) => (
        <Place key={place.id} place={place} />
      ))}
      <p className="py-1 text-sm text-faded">What is saved as a host is known by its nameservers, addresses and alias in the next move.</p>
    </div>
  );
}

function Place({ place }: { place: Host }) {
  const [name, setName] = useState(place.name);
  const [isNaming, setNaming] = useState(false);
  const queries = useQueryClient();
  const { fail, say } = useToast();
  const submit = (event: FormEvent): void => {
    event.preventDefault();
    call<Host>('POST', `/api/hosts/${place.id}/keep`, { name })
      .then(async () => {
        say(`${name} is one of your hosts now.`);
        await queries.invalidateQueries({ queryKey: ['hosts'] });
      })
      .catch(fail);
  };
  return (
    <div className="border-b border-rule py-1">
      <p className="flex items-baseline gap-3">
        <span>
          <b className="font-semibold">{place.name}</b>{' '}
          <span className="text-sm text-faded">
            {place.role === 'dns' ? 'DNS host' : 'web host'} ·{' '}
            {[...place.nameservers, ...place.addresses, place.aliasTarget ?? ''].filter(Boolean).map(plain).join(', ')}
          </span>
        </span>
        {!isNaming && (
          <Button kind="quiet" className="ml-auto px-0" onClick={() => setNaming(true)}>
            Save as a host
          </Button>
        )}
      </p>
      {isNaming && (
        <form className="mt-1 flex gap-2" onSubmit={submit}>
          <input autoFocus aria-label="Name of the host" className={`${inputLook} py-0.5`} value={name} onChange={(event) => setName(event.target.value)} />
          <Button type="submit" disabled={name.trim() === ''}>
            Save
          </Button>
        </form>
      )}
    </div>
  );
}
