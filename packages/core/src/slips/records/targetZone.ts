import { RecordSlip, shown, without } from './slip';

/** Types whose data end in a name that is typed. */
const NAMED: ReadonlySet<string> = new Set(['CNAME', 'MX', 'SRV', 'NS', 'PTR', 'DNAME']);

/** The panel appended the zone to a target without a final dot; or took a short target for a whole name. */
export const targetZone: RecordSlip = ({ zone, type, planned, served }) => {
  if (!NAMED.has(type)) return undefined;
  for (const there of without(served, planned))
    for (const wanted of planned) {
      if (there.toLowerCase() === `${wanted}${zone}`.toLowerCase())
        return {
          code: 'target gained the zone',
          text: `The domain was appended to the target: ${shown(there)}. Put a dot at its end, ${targetOf(wanted)}, or choose the field for whole names.`,
        };
      if (`${shown(there)}.${zone}`.toLowerCase() === wanted.toLowerCase())
        return { code: 'target lost the zone', text: `The target lost the domain: ${shown(there)}. Type it whole: ${shown(targetOf(wanted))}.` };
    }
  return undefined;
};

/** The name in `10 mail.zone.example.` */
function targetOf(data: string): string {
  return data.slice(data.lastIndexOf(' ') + 1);
}
