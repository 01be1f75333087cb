import { utf8 } from '../dns/bytes';
import { Name } from '../dns/name';
import { parseRdata } from '../dns/rdata';
import { TYPE_CODES } from '../dns/typeNames';
import { meaningsOf } from './purpose';
import { namesInText } from './namesInText';

const { TXT } = TYPE_CODES;
const names = (text: string): string[] => namesInText(TXT, parseRdata(TXT, text)).map((name) => name.toString());

/** Strings of 255 octets each, as much as a record holds. */
function filled(start: string, unit: string): Uint8Array {
  const text = utf8(start + unit.repeat(65_000 / unit.length));
  const strings = Array.from({ length: Math.floor(text.length / 255) }, (_, i) => [255, ...text.subarray(i * 255, i * 255 + 255)]);
  return Uint8Array.from(strings.flat());
}

describe('names that a text leads to', () => {
  it('are those of a sender policy, over all its strings (RFC 7208)', () => {
    expect(
      names('"v=spf1 include:_spf.zone.ex" "ample a:out.zone.example/28 ?mx:in.zone.example exists:%{i}.zone.example redirect=last.zone.example"'),
    ).toEqual(['_spf.zone.example.', 'out.zone.example.', 'in.zone.example.', 'last.zone.example.']);
    expect(names('"v=spf10 include:_spf.zone.example"')).toEqual([]);
  });

  it('are where reports go (RFC 7489)', () =>
    expect(names('"v=DMARC1; p=none; rua=mailto:a@one.example!10m,mailto:b@two.example; ruf=mailto:c@three.example"')).toEqual([
      'one.example.',
      'two.example.',
      'three.example.',
    ]));

  it('are read as fast from hostile texts as from any, and so is what they are for', () => {
    const zone = Name.parse('reed-bank.example.');
    for (const data of [filled('v=DMARC1;', 'mailto:'), filled('v=spf1 ', 'include:'), filled('', 'verif'), filled('v=spf1', ' a:')]) {
      // Once from each word to the end would take many minutes.
      const sets = Array.from({ length: 60 }, (_, i) => ({ owner: zone.child(`n${i}`), type: TXT, cls: 1, ttl: 60, data: [data] }));
      for (const set of sets) expect(namesInText(TXT, set.data[0]!).length).toBeLessThan(22_000);
      expect(meaningsOf(zone, sets).size).toBe(60);
    }
  });
});
