import { LINK_DAYS, MadeSheetLink } from '@wanderon/contract';
import { SheetKind } from '@wanderon/core';
import { useState } from 'react';
import { useMakeSheetLink, useSheetLinks, useWithdrawSheetLink } from '../../api';
import { shortTime } from '../../time';
import { Button } from '../../ui/button';
import { Copy } from '../../ui/copy';
import { Dialog } from '../../ui/dialog';
import { inputLook } from '../../ui/field';
import { Failed, Loading } from '../../ui/states';

/** Gives the sheet to somebody without an account, by a link that ends by date and can be withdrawn. */
export function SheetLinks({ leg, sheet, now, onClose }: { leg: string; sheet: SheetKind; now: number; onClose: () => void }) {
  const links = useSheetLinks(leg, sheet);
  const make = useMakeSheetLink(leg);
  const withdraw = useWithdrawSheetLink(leg);
  const [days, setDays] = useState<(typeof LINK_DAYS)[number]>(3);
  const [made, setMade] = useState<MadeSheetLink>();
  const address = made && `${window.location.origin}${made.path}`;
  const open = (links.data ?? []).filter((link) => link.withdrawnAt === null && link.endsAt > now);
  return (
    <Dialog open onClose={onClose} title="Give the sheet to somebody" wide>
      <p className="mb-2">Whoever has the link sees this sheet as it stands, and nothing else: no other page, no move, no account.</p>
      <p className="mb-3 flex items-end gap-3">
        <label>
          <span className="block text-sm text-faded">Good for</span>
          <select value={days} onChange={(event) => setDays(Number(event.target.value) as typeof days)} className={inputLook}>
            {LINK_DAYS.map((one) => (
              <option key={one} value={one}>
                {one === 1 ? '1 day' : `${one} days`}
              </option>
            ))}
          </select>
        </label>
        <Button kind="main" disabled={make.isPending} onClick={() => make.mutate({ days, sheet }, { onSuccess: setMade })}>
          Make a link
        </Button>
      </p>
      {make.isError && <Failed error={make.error} />}
      {address && (
        <p role="status" className="mb-3 border-l-4 border-accent bg-shade px-3 py-2">
          <span className="mono break-all">{address}</span> <Copy value={address} label="the link" />
          <span className="block text-sm text-faded">It is shown now and never again.</span>
        </p>
      )}
      {links.isPending && <Loading what="the links" />}
      {links.isError && <Failed error={links.error} retry={() => void links.refetch()} />}
      {links.data && (
        <>
          <h3 className="smallcaps border-b border-ink">Open links</h3>
          {open.length === 0 && <p className="py-1 text-faded">None.</p>}
          <ul>
            {open.map((link) => (
              <li key={link.id} className="flex items-baseline gap-3 border-b border-rule py-1">
                <span className="grow">
                  until {shortTime(link.endsAt)}{' '}
                  <span className="text-faded">
                    made {shortTime(link.madeAt)}, {link.madeBy}
                  </span>
                </span>
                <Button kind="quiet" disabled={withdraw.isPending} onClick={() => withdraw.mutate(link.id)}>
                  Withdraw
                </Button>
              </li>
            ))}
          </ul>
          {withdraw.isError && <Failed error={withdraw.error} />}
        </>
      )}
    </Dialog>
  );
}
