import { Dialog as Primitive } from 'radix-ui';
import { ReactNode } from 'react';

export function Dialog({
  open,
  onClose,
  title,
  children,
  wide = false,
}: {
  open: boolean;
  onClose: () => void;
  title: string;
  children: ReactNode;
  wide?: boolean;
}) {
  return (
    <Primitive.Root open={open} onOpenChange={(next) => !next && onClose()}>
      <Primitive.Portal>
        <Primitive.Overlay className="fixed inset-0 z-40 bg-black/40" />
        <Primitive.Content
          aria-describedby={undefined}
          className={`fixed left-1/2 top-[12vh] z-50 max-h-[76vh] w-[calc(100vw-2rem)] -translate-x-1/2 overflow-y-auto border border-ink bg-sheet p-5 ${wide ? 'max-w-3xl' : 'max-w-lg'}`}
        >
          <Primitive.Title className="mb-3 text-lg font-semibold">{title}</Primitive.Title>
          {children}
        </Primitive.Content>
      </Primitive.Portal>
    </Primitive.Root>
  );
}
