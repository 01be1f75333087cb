import { ValueSlip, shown } from '../slip';

/** The panel took a short target for a whole name: `web.` for `web.choir.example.` */
export const targetLostZone: ValueSlip = ({ is, was, wrong: { zone } }) =>
  `${is}.${shown(zone)}`.toLowerCase() === was.toLowerCase()
    ? { code: 'target lost the zone', cost: 1, text: `The target lost the domain: ${is}. Type it whole: ${was}.` }
    : undefined;

/**
 * The target without the domain that the panel appended to it; undefined where none was appended. What is left may be wrong besides.
 *
 *     withoutZone('edge.host.example.choir.example', 'choir.example.')  // 'edge.host.example'
 */
export function withoutZone(target: string, zone: string): string | undefined {
  const end = `.${shown(zone)}`.toLowerCase();
  return target.toLowerCase().endsWith(end) ? target.slice(0, -end.length) : undefined;
}

export const gainedZone = (is: string, was: string): { readonly code: string; readonly text: string } => ({
  code: 'target gained the zone',
  text: `The domain was appended to the target: ${is}. Put a dot at its end, ${was}., or choose the field for whole names.`,
});
