import { Command } from 'cmdk';
import { useDeferredValue, useState } from 'react';
import { useNavigate } from 'react-router';
import { useHosts, useFoundMoves, useSweeps } from '../api';
import { Dialog } from '../ui/dialog';

/** Find anything: moves by name, hosts, sweeps, places. Nothing is asked for until it is opened. */
export function Find({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Dialog open={open} onClose={onClose} title="Find">
      <Finder onClose={onClose} />
    </Dialog>
  );
}

function Finder({ onClose }: { onClose: () => void }) {
  const [text, setText] = useState('');
  const moves = useFoundMoves(useDeferredValue(text.trim()));
  const hosts = useHosts();
  const sweeps = useSweeps();
  const go = useNavigate();
  const choose = (path: string): void => {
    onClose();
    void go(path);
  };
  const item = 'cursor-pointer px-2 py-1 data-[selected=true]:bg-shade';
  return (
    <Command label="Find anything" loop>
      <Command.Input
        autoFocus
        value={text}
        onValueChange={setText}
        placeholder="A domain, a host, a place"
        className="mb-2 w-full border-b border-ink bg-transparent px-2 py-1.5 outline-none"
      />
      <Command.List className="max-h-[46vh] overflow-y-auto">
        <Command.Empty className="px-2 py-2 text-faded">Nothing goes by that name.</Command.Empty>
        {(moves.data ?? []).map((move) => (
          <Command.Item
            key={move.id}
            value={`${move.shown} ${move.domain} ${move.id}`}
            onSelect={() => choose(`/moves/${move.id}/${move.next?.chapter ?? 'watch'}`)}
            className={`${item} flex justify-between gap-3`}
          >
            <span>{move.shown}</span>
            <span className="truncate text-faded">{move.next?.text ?? move.state}</span>
          </Command.Item>
        ))}
        {(hosts.data ?? []).map((host) => (
          <Command.Item key={host.id} value={`${host.name} ${host.id}`} onSelect={() => choose(`/hosts/${host.id}`)} className={`${item} flex justify-between`}>
            <span>{host.name}</span>
            <span className="text-faded">host</span>
          </Command.Item>
        ))}
        {(sweeps.data ?? []).map((sweep) => (
          <Command.Item
            key={sweep.id}
            value={`${sweep.name} ${sweep.id}`}
            onSelect={() => choose(`/moves/sweeps/${sweep.id}`)}
            className={`${item} flex justify-between`}
          >
            <span>{sweep.name}</span>
            <span className="text-faded">sweep</span>
          </Command.Item>
        ))}
        {[
          ['Desk', '/'],
          ['Moves', '/moves'],
          ['Hosts', '/hosts'],
          ['Sweeps: survey many domains', '/moves/sweeps'],
        ].map(([name, path]) => (
          <Command.Item key={path} value={`place ${name}`} onSelect={() => choose(path!)} className={`${item} flex justify-between`}>
            <span>{name}</span>
            <span className="text-faded">place</span>
          </Command.Item>
        ))}
      </Command.List>
    </Command>
  );
}
