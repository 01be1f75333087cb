import { Me, Person } from '@wanderon/contract';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, Navigate } from 'react-router';
import { call } from '../api';
import { fullTime, shortTime } from '../time';
import { Button } from '../ui/button';
import { Dialog } from '../ui/dialog';
import { Failed, Loading } from '../ui/states';
import { NewPersonForm } from './newPersonForm';
import { PersonForm } from './personForm';

/** Everybody with an account, for administrators. */
export function PeoplePlace({ me }: { me: Me }) {
  const people = useQuery({ queryKey: ['people'], queryFn: async () => (await call<{ people: Person[] }>('GET', '/api/people')).people });
  const [adding, setAdding] = useState(false);
  const [open, setOpen] = useState<string>();
  const shown = people.data?.find((one) => one.id === open);
  if (me.role !== 'administrator') return <Navigate to="/" replace />;
  return (
    <div className="mx-auto w-full max-w-[1240px] px-4 py-5">
      <div className="mb-3 flex items-baseline gap-4">
        <h1>People</h1>
        <Link to="/trail" className="text-accent hover:underline">
          What is on record
        </Link>
        <Link to="/settings" className="text-accent hover:underline">
          Settings
        </Link>
        <Button className="ml-auto" onClick={() => setAdding(true)}>
          Add a person
        </Button>
      </div>
      {people.isPending && <Loading what="who there is" />}
      {people.isError && <Failed error={people.error} retry={() => void people.refetch()} />}
      {people.data && (
        <table className="w-full">
          <thead className="smallcaps text-left">
            <tr className="border-b border-ink">
              <th className="py-1 pr-4">Name</th>
              <th className="pr-4">Login</th>
              <th className="pr-4">Role</th>
              <th className="pr-4">Second factor</th>
              <th className="pr-4">Sessions</th>
              <th className="pr-4">Last active</th>
              <th>
                <span className="sr-only">What can be done</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {people.data.map((person) => (
              <tr key={person.id} className={`border-b border-rule align-baseline hover:bg-sheet ${person.disabled ? 'text-faded' : ''}`}>
                <td className="py-1.5 pr-4 font-semibold">
                  {person.name}
                  {person.id === me.id && <span className="font-normal text-faded"> (you)</span>}
                </td>
                <td className="mono pr-4">{person.login}</td>
                <td className="pr-4">{person.disabled ? `${person.role}, shut` : person.role}</td>
                <td className="pr-4">{factorWords(person)}</td>
                <td className="pr-4">{person.sessions === 0 ? 'none' : person.sessions}</td>
                <td className="pr-4 whitespace-nowrap" {...(person.lastSeen !== null && { title: fullTime(person.lastSeen) })}>
                  {person.lastSeen === null ? 'never' : shortTime(person.lastSeen)}
                  {person.mustChange && <span className="text-faded">, password to be changed</span>}
                </td>
                <td className="text-right">
                  <Button kind="quiet" onClick={() => setOpen(person.id)} aria-label={`Change ${person.name}`}>
                    Change
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <Dialog open={adding} onClose={() => setAdding(false)} title="Add a person">
        <NewPersonForm onDone={() => setAdding(false)} />
      </Dialog>
      <Dialog open={shown !== undefined} onClose={() => setOpen(undefined)} title={shown ? `${shown.name}, ${shown.login}` : ''}>
        {shown && <PersonForm key={shown.id} person={shown} me={me} onDone={() => setOpen(undefined)} />}
      </Dialog>
    </div>
  );
}

function factorWords({ factor, demanded }: Person): string {
  if (factor) return 'set up';
  return demanded ? 'asked for, not set up yet' : 'none';
}
