import { Dialog } from '../ui/dialog';

const KEYS: readonly [string, string][] = [
  ['Ctrl-K', 'find anything'],
  ['?', 'these keys'],
  ['1 … 5', 'chapters of a move'],
  ['j / k, ↓ / ↑', 'next and previous row of the survey and the plan'],
  ['← / →', 'hide and show the names below one'],
  ['/', 'filter the names of a survey'],
  ['x / X', 'mark the row of the plan, or all that are shown: what you decide counts for all of them'],
  ['c', 'keep the row as it is, and go on to the next'],
  ['r', 'change the row: give it a new value'],
  ['R', 'rule every row of a kind, such as all that leads to a range of addresses'],
  ['d', 'leave the row out, and go on to the next'],
  ['n', 'new record set'],
  ['g', 'group the rows of the plan by name, or by purpose'],
  ['N', 'write a comment beside the row, for everybody'],
  ['p', 'push the plan to the new host'],
  ['f', 'whether the DNS host answers the row’s name with its own addresses: no, once verified, yes'],
  ['o / O', 'the next, or the last, row of the plan with an open remark'],
  ['m / M', 'make the first, or the second, fix that is shown in the row'],
  ['w', 'let the remark of the row be, with a reason'],
  ['y', 'copy the value found, or planned, in the row; at the switch, the next nameserver'],
  ['u / U', 'undo the last decision, and do it again'],
  ['Enter', 'open the row: its evidence, or its values; in a handover sheet, copy the next field'],
  ['t', 'tick the row of a handover sheet'],
  ['o', 'on a sheet, open the panel in which it is typed'],
  ['Esc', 'close what is open'],
];

export function KeysHelp({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Dialog open={open} onClose={onClose} title="Keys">
      <table className="w-full">
        <tbody>
          {KEYS.map(([key, what]) => (
            <tr key={key} className="border-t border-rule">
              <td className="py-1 pr-6">
                <kbd className="mono">{key}</kbd>
              </td>
              <td className="py-1">{what}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Dialog>
  );
}
