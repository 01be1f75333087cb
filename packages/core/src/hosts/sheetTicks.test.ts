import { SHEETS, sheetOfTick, tickOf, tickWords, tickedOn } from './sheetTicks';

describe('a tick on a sheet', () => {
  const row = 'lower.zone.example./A/ 192.0.2.1';

  it('is told apart from the same row on another sheet, and from a name that is called like one', () => {
    const ticks = SHEETS.map((sheet) => tickOf(sheet, row));
    expect(new Set(ticks).size).toBe(SHEETS.length);
    for (const [index, sheet] of SHEETS.entries()) {
      expect(sheetOfTick(ticks[index]!)).toBe(sheet);
      expect(tickedOn(sheet, ticks)).toEqual([row]);
    }
  });

  it.each([
    ['zone.example./MX/10 mail.zone.example.', 'zone.example MX 10 mail.zone.example'],
    ['www.zone.example./A/ 192.0.2.1', 'www.zone.example A 192.0.2.1'],
    ['0/25.2.0.192.in-addr.arpa./PTR/- old.zone.example.', '0/25.2.0.192.in-addr.arpa PTR old.zone.example'],
    [`zone.example./TXT/ "a/b/c"`, `zone.example TXT "a/b/c"`],
    ['registrar ns1.quillmere.example.', 'at the registrar, ns1.quillmere.example'],
    ['lower www.zone.example./A/ 192.0.2.1', 'lowered, www.zone.example A 192.0.2.1'],
  ])('%s is told as %s', (id, words) => expect(tickWords(id)).toBe(words));

  it('is cut where it is long, and says so', () => expect(tickWords(`zone.example./TXT/ ${'x'.repeat(500)}`)).toMatch(/^zone\.example TXT x+ …$/));
});
