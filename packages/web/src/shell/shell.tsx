import { Me } from '@wanderon/contract';
import { useQueryClient } from '@tanstack/react-query';
import { DropdownMenu } from 'radix-ui';
import { ReactNode, useEffect, useState } from 'react';
import { NavLink, useNavigate } from 'react-router';
import { call } from '../api';
import { useLive } from '../live';
import { ClockPanel } from './clockPanel';
import { Find } from './find';
import { KeysHelp } from './keysHelp';
import { UnsentNote } from './unsentNote';
import { FindIcon, NightIcon } from '../ui/icons';
import { isTyping } from '../ui/useKeys';
import { toggleTheme } from './theme';

export function Shell({ me, children }: { me: Me; children: ReactNode }) {
  useLive();
  const queries = useQueryClient();
  const go = useNavigate();
  const [finding, setFinding] = useState(false);
  const [keys, setKeys] = useState(false);
  useEffect(() => {
    const press = (event: KeyboardEvent): void => {
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
        event.preventDefault();
        setFinding(true);
      } else if (event.key === '?' && !isTyping(event)) setKeys(true);
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, []);
  const signOut = async (): Promise<void> => {
    await call('POST', '/api/sign-out');
    queries.clear();
    window.location.assign('/');
  };
  const place = ({ isActive }: { isActive: boolean }): string =>
    `px-3 py-2 leading-tight ${isActive ? 'border-b-2 border-accent font-semibold' : 'border-b-2 border-transparent hover:text-accent'}`;
  return (
    <div className="flex min-h-screen flex-col">
      <a href="#content" className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-sheet focus:p-2">
        Go to the content
      </a>
      <header className="flex flex-wrap items-stretch print:hidden border-b border-ink px-4">
        <span className="mr-4 self-center text-[1.15rem] font-semibold">Wanderon</span>
        <nav className="flex" aria-label="Places">
          <NavLink to="/" end className={place}>
            Desk
          </NavLink>
          <NavLink to="/moves" className={place}>
            Moves
          </NavLink>
          <NavLink to="/hosts" className={place}>
            Hosts
          </NavLink>
        </nav>
        <div className="ml-auto flex items-center gap-4">
          <ClockPanel me={me} />
          <button
            type="button"
            onClick={() => setFinding(true)}
            className="flex cursor-pointer items-center gap-1.5 text-faded hover:text-ink"
            title="Find anything (Ctrl-K)"
          >
            <FindIcon size={15} /> Find <kbd className="mono border border-rule px-1 max-md:hidden">Ctrl-K</kbd>
          </button>
          <DropdownMenu.Root>
            <DropdownMenu.Trigger className="cursor-pointer hover:text-accent">{me.name}</DropdownMenu.Trigger>
            <DropdownMenu.Portal>
              <DropdownMenu.Content align="end" sideOffset={6} className="z-50 min-w-48 border border-ink bg-sheet py-1">
                <p className="px-3 py-1 text-sm text-faded">
                  {me.login}, {me.role}
                </p>
                <DropdownMenu.Item onSelect={() => void go('/account')} className="cursor-pointer px-3 py-1 data-highlighted:bg-shade">
                  Your account
                </DropdownMenu.Item>
                {me.role === 'administrator' && (
                  <DropdownMenu.Item onSelect={() => void go('/people')} className="cursor-pointer px-3 py-1 data-highlighted:bg-shade">
                    People
                  </DropdownMenu.Item>
                )}
                <DropdownMenu.Item onSelect={toggleTheme} className="flex cursor-pointer items-center gap-2 px-3 py-1 data-highlighted:bg-shade">
                  <NightIcon size={14} /> Day or night
                </DropdownMenu.Item>
                <DropdownMenu.Item onSelect={() => setKeys(true)} className="cursor-pointer px-3 py-1 data-highlighted:bg-shade">
                  Keys
                </DropdownMenu.Item>
                <DropdownMenu.Item onSelect={() => void signOut()} className="cursor-pointer px-3 py-1 data-highlighted:bg-shade">
                  Sign out
                </DropdownMenu.Item>
              </DropdownMenu.Content>
            </DropdownMenu.Portal>
          </DropdownMenu.Root>
        </div>
      </header>
      <UnsentNote />
      <main id="content" className="flex grow flex-col">
        {children}
      </main>
      <Find open={finding} onClose={() => setFinding(false)} />
      <KeysHelp open={keys} onClose={() => setKeys(false)} />
    </div>
  );
}
