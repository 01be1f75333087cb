import { csv } from './csv';

describe('a table as CSV', () => {
  it('holds nothing that a spreadsheet would run', () => {
    const rows = [
      ['-cmd.example.', 'A', '@evidence'],
      ['x.example.', '"=HYPERLINK(1)" "a,b \\"c\\""', '+1'],
      ['=1+1', '\tx', 'two\nlines'],
    ];
    const text = csv(['name', 'type', 'evidence'], rows);
    expect(text.split('\r\n').slice(0, 3)).toEqual([
      'name,type,evidence',
      `'-cmd.example.,A,'@evidence`,
      `x.example.,"""=HYPERLINK(1)"" ""a,b \\""c\\""""",'+1`,
    ]);
    expect(text).toContain(`'=1+1,'\tx,"two\nlines"\r\n`);
  });
});
