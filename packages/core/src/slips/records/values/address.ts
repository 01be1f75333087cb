import { distance } from '../../names';
import { ValueSlip } from '../slip';

/** Numbers of an address in another order, or a digit of it lost, doubled, exchanged or hit beside; two digits that differ make another address. */
export const address: ValueSlip = ({ is, was, type }) => {
  if (type !== 'A' && type !== 'AAAA') return undefined;
  const parts = (text: string): string[] => text.toLowerCase().split(type === 'A' ? '.' : ':');
  const [here, there] = [parts(is), parts(was)];
  if (is !== was && [...here].sort().join() === [...there].sort().join())
    return { code: 'octets swapped', cost: 1, text: `The numbers of ${is} stand in another order: it is ${was}.` };
  if (distance(is.toLowerCase(), was.toLowerCase()) !== 1) return undefined;
  const what = type === 'A' ? 'digit' : 'character';
  const isExchanged = is.length === was.length && [...is].sort().join('') === [...was].sort().join('');
  return { code: 'misspelt', cost: 1.3, text: `${is} ${isExchanged ? `has two ${what}s exchanged` : `differs in one ${what}`}: it is ${was}.` };
};
