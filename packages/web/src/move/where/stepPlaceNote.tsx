import { LegView, StepView } from '@wanderon/contract';
import { PlaceOfStep, placesOfStep } from '@wanderon/core';
import { Link } from 'react-router';
import { useHosts } from '../../api';
import { freshPlace, placeHost, placeName } from './placeHost';
import { WhereThere } from './whereThere';

interface Props {
  readonly step: StepView;
  readonly leg: LegView;
  readonly move: string;
  readonly domain: string;
  readonly may: boolean;
}

/** Where a person does a step that has come, and the sheet for it; nothing where Wanderon does it. */
export function StepPlaceNote(props: Props) {
  const { step, leg } = props;
  const hasCome = step.state === 'ready' || step.state === 'stopped' || (step.id === 'lowered' && step.state === 'doing');
  if (!hasCome) return null;
  // Where a key is held nobody types. The sheet for the registrar is on the page of its step, and leads there itself.
  const isDoneThere = ({ place, act, sheet }: PlaceOfStep): boolean =>
    place === 'registrar' ? sheet === undefined : act === 'sign' || (place === 'live DNS' ? leg.oldByHand : leg.byHand);
  return placesOfStep(step.id)
    .filter(isDoneThere)
    .map((where) => <Place key={where.act} {...props} where={where} />);
}

function Place({ leg, move, domain, may, where }: Props & { where: PlaceOfStep }) {
  const hosts = useHosts(move);
  if (!hosts.data) return null;
  const host = placeHost(hosts.data, leg, where.place);
  const { sheet } = where;
  return (
    <div className="mb-2 pl-4">
      {sheet && (
        <p>
          <Link className="text-accent underline" to={`/moves/${move}/${SHEET_PATHS[sheet]}`}>
            {SHEET_LINKS[sheet]}
          </Link>
          : each field as the panel wants it, to copy and tick.
        </p>
      )}
      <WhereThere
        host={host}
        name={placeName(host, leg, where.place)}
        act={where.act}
        domain={domain}
        may={may}
        keyed={where.place !== 'registrar'}
        fresh={freshPlace(leg, where.place)}
      />
    </div>
  );
}

const SHEET_LINKS = {
  records: 'Handover sheet',
  lower: 'Sheet of the TTLs to lower',
  raise: 'Sheet of the TTLs to raise',
  registrar: 'Sheet for the registrar',
};
const SHEET_PATHS = { records: 'sheet', lower: 'lower', raise: 'raise', registrar: 'switch' };
