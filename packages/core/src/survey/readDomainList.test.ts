import { DOMAIN_LIST_LIMIT, readDomainList } from './readDomainList';

describe('a list of domains', () => {
  it('is read from lines, addresses of pages and tables, each domain once', () => {
    const { domains, bad, doubles } = readDomainList(
      `Domain;Client\r\nwww.reed-bank.example;Reed bank\n\n# a comment\nhttps://tern.example/visit\tTern\n"REED-BANK.example"\nCrème.example, accented\n42;heron.example\n`,
    );
    expect([domains, bad, doubles]).toEqual([['reed-bank.example', 'tern.example', 'xn--crme-6oa.example', 'heron.example'], [], 1]);
  });

  it('says which lines hold none, and goes on', () => {
    const { domains, bad } = readDomainList('192.0.2.1\nheron.example\nnothing here\n<script>\n');
    expect(domains).toEqual(['heron.example']);
    expect(bad.map(({ line, problem }) => [line, problem.slice(0, 22)])).toEqual([
      [1, '192.0.2.1 is an addres'],
      [3, '"nothing" has no dot. '],
      [4, '"<script>" is not a do'],
    ]);
  });

  it('takes so many and no more', () => {
    const { domains, leftOut } = readDomainList(Array.from({ length: DOMAIN_LIST_LIMIT + 5 }, (_, i) => `d${i}.example`).join('\n'));
    expect([domains.length, leftOut]).toEqual([DOMAIN_LIST_LIMIT, 5]);
    const endless = readDomainList('d.example\n'.repeat(1_000_000));
    expect([endless.domains.length, endless.doubles + endless.leftOut]).toEqual([1, 999_999]);
  });
});
