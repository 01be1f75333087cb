import { Remark, WhatIf } from '@wanderon/core';
import { ownerBelow } from '../owner';

/** Remarks that are shown of each kind, the weightiest first. */
const SHOWN = 4;

/** What is said of the plan as it would be, before it is so. */
export function WhatIfNote({ said, domain, of }: { said: WhatIf | undefined; domain: string; of?: { readonly owner: string; readonly type: string } }) {
  if (!said || said.comes.length + said.goes.length === 0) return <div role="status" aria-label="What the checks would say" />;
  const comes = [...said.comes].sort((a, b) => Number(b.weight === 'stop') - Number(a.weight === 'stop'));
  const at = (one: Remark): string =>
    of && one.type === of.type && one.owner.toLowerCase() === of.owner.toLowerCase() ? '' : `${ownerBelow(one.owner, domain)} ${one.type}: `;
  return (
    <div role="status" aria-label="What the checks would say" className="my-2 border-l-4 border-rule pl-3 text-sm leading-snug">
      {comes.slice(0, SHOWN).map((one) => (
        <p key={at(one) + one.code + one.text} className={one.weight === 'stop' ? 'font-semibold text-rust' : ''}>
          {one.weight === 'stop' ? 'Would stop the move' : 'To look at'}: {at(one)}
          {one.text}
        </p>
      ))}
      {comes.length > SHOWN && <p className="text-faded">and {comes.length - SHOWN} remarks more</p>}
      {said.goes.slice(0, SHOWN).map((one) => (
        <p key={at(one) + one.code + one.text} className="text-faded">
          No longer said: {at(one)}
          {one.text}
        </p>
      ))}
      {said.goes.length > SHOWN && <p className="text-faded">and {said.goes.length - SHOWN} more</p>}
    </div>
  );
}
