import { Dialog as Primitive } from 'radix-ui';
import { ReactNode } from 'react';

const WIDTHS = {
  false: 'top-[12vh] max-h-[76vh] max-w-lg',
  true: 'top-[12vh] max-h-[76vh] max-w-3xl',
  whole: 'top-[4vh] max-h-[92vh] max-w-6xl',
};

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
  /** `whole`: as much as the window has. */
  wide?: boolean | 'whole';
}) {
  return (
    <Primitive.Root open={open} onOpenChange={(next) => !next && onClose()}>
      <Primitive.Portal>
        <Primitive.Overlay className="fixed inset-0 z-40 bg-black/40" />
        <Primitive.Content
          aria-describedby={undefined}
          className={`fixed left-1/2 z-50 w-[calc(100vw-2rem)] -translate-x-1/2 overflow-y-auto border border-ink bg-sheet p-5 ${WIDTHS[String(wide) as keyof typeof WIDTHS]}`}
        >
          <Primitive.Title className="mb-3 text-lg font-semibold">{title}</Primitive.Title>
          {children}
        </Primitive.Content>
      </Primitive.Portal>
    </Primitive.Root>
  );
}
