import { Host, LegView, StepView } from '@wanderon/contract';
import { placeOfStep } from '@wanderon/core';
import { Link } from 'react-router';
import { useHosts } from '../../api';
import { freshPlace, placeHost, placeName } from './placeHost';
import { WhereThere } from './whereThere';

/** Where a person does a step that has come, and the sheet for it; nothing where Wanderon does it. */
export function StepPlaceNote({ step, leg, move, domain, may }: { step: StepView; leg: LegView; move: string; domain: string; may: boolean }) {
  const where = placeOfStep(step.id);
  const hosts = useHosts(move);
  if (!where || !hosts.data || (step.state !== 'ready' && step.state !== 'stopped' && !(step.id === 'lowered' && step.state === 'doing'))) return null;
  const host: Host | undefined = placeHost(hosts.data, leg, where.place);
  // Where a key is held nobody types.
  if (host && host.keyName !== null) return null;
  const { sheet } = where;
  return (
    <div className="mb-2 pl-4">
      {sheet && sheet !== 'registrar' && (
        <p>
          <Link className="text-accent underline" to={`/moves/${move}/${sheet === 'records' ? 'sheet' : sheet}`}>
            {SHEET_LINKS[sheet]}
          </Link>
          : each field as the panel wants it, to copy and tick.
        </p>
      )}
      <WhereThere host={host} name={placeName(host, leg, where.place)} act={where.act} domain={domain} may={may} fresh={freshPlace(leg, where.place)} />
    </div>
  );
}

const SHEET_LINKS = { records: 'Handover sheet', lower: 'Sheet of the TTLs to lower', raise: 'Sheet of the TTLs to raise' };
