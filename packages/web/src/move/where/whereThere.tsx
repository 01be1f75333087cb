import { Host } from '@wanderon/contract';
import { PLACE_ACT_WORDS, PlaceAct, wasAsked, wayThere } from '@wanderon/core';
import { useState } from 'react';
import { Button } from '../../ui/button';
import { FreshPlace, NoteWhere } from './noteWhere';
import { WayThereLine } from './wayThereLine';

/**
 * Where at a place something is done, as somebody noted it; or that it can be noted. Once a sheet was `used` it is asked for, one time: whoever
 * typed it has the way there before him.
 */
export function WhereThere({
  host,
  name,
  act,
  domain,
  used = false,
  keyed = true,
  may,
  fresh,
  onMade,
}: {
  host: Host | undefined;
  /** What the place is made of, where nobody described it: noting the way there makes it a host. Left out: it cannot be noted then. */
  fresh?: FreshPlace | undefined;
  name: string;
  act: PlaceAct;
  domain: string;
  used?: boolean;
  keyed?: boolean;
  may: boolean;
  onMade?: (host: Host) => void;
}) {
  const [noting, setNoting] = useState(false);
  const [dismissed, setDismissed] = useState(false);
  const way = host && wayThere(host, act, domain);
  const form = (asked: boolean) => (
    <NoteWhere host={host} fresh={fresh} name={name} act={act} asked={asked} onMade={onMade} onDone={() => (asked ? setDismissed(true) : setNoting(false))} />
  );
  if (noting) return form(false);
  if (way)
    return (
      <WayThereLine way={way} name={name} keyed={keyed}>
        {may && (
          <Button kind="quiet" className="print:hidden" onClick={() => setNoting(true)}>
            Change
          </Button>
        )}
      </WayThereLine>
    );
  if (!may || (!host && !fresh)) return null;
  if (used && !dismissed && !(host && wasAsked(host.where, act))) return form(true);
  return (
    <p className="text-faded print:hidden">
      Where to click {act === 'records' || act === 'nameservers' ? '' : `for ${PLACE_ACT_WORDS[act]} `}is not noted yet.{' '}
      <Button kind="quiet" onClick={() => setNoting(true)}>
        Note it
      </Button>
    </p>
  );
}
