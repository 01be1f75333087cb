import { createContext, ReactNode, useCallback, useContext, useMemo, useState } from 'react';
import { Toast as Primitive } from 'radix-ui';
import { ProblemError } from '../api';

interface Note {
  readonly id: number;
  readonly title: string;
  readonly detail?: string | undefined;
  readonly bad: boolean;
}

const Context = createContext<{ say: (title: string) => void; fail: (error: unknown) => void }>({ say: () => undefined, fail: () => undefined });

export const useToast = () => useContext(Context);

/** Short words at the foot of the screen: what was done, or what was refused and what was kept. */
export function ToastPlace({ children }: { children: ReactNode }) {
  const [notes, setNotes] = useState<Note[]>([]);
  const add = useCallback((note: Omit<Note, 'id'>) => setNotes((all) => [...all.slice(-2), { ...note, id: Date.now() + Math.random() }]), []);
  const value = useMemo(
    () => ({
      say: (title: string) => add({ title, bad: false }),
      fail: (error: unknown) => {
        const problem = error instanceof ProblemError ? error.problem : undefined;
        add({
          title: problem?.title ?? (error instanceof Error ? error.message : 'Something went wrong.'),
          detail: [problem?.detail, problem?.kept].filter(Boolean).join(' ') || undefined,
          bad: true,
        });
      },
    }),
    [add],
  );
  return (
    <Context.Provider value={value}>
      <Primitive.Provider duration={6000}>
        {children}
        {notes.map((note) => (
          <Primitive.Root
            key={note.id}
            duration={note.bad ? 12_000 : 4000}
            onOpenChange={(open) => !open && setNotes((all) => all.filter((one) => one.id !== note.id))}
            className={`border-l-4 bg-ink px-3 py-2 text-paper ${note.bad ? 'border-rust' : 'border-accent'}`}
          >
            <Primitive.Title className="font-semibold">{note.title}</Primitive.Title>
            {note.detail && <Primitive.Description className="opacity-85">{note.detail}</Primitive.Description>}
          </Primitive.Root>
        ))}
        <Primitive.Viewport className="fixed bottom-4 right-4 z-50 flex w-96 max-w-[calc(100vw-2rem)] flex-col gap-2" />
      </Primitive.Provider>
    </Context.Provider>
  );
}
