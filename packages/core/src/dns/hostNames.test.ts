import { isHostName, isMailbox } from './hostNames';
import { Name } from './name';

describe('names of hosts and mailboxes', () => {
  it.each([
    ['www.zone.example.', true],
    ['3com.example.', true],
    ['a-b.example.', true],
    ['-a.example.', false],
    ['a-.example.', false],
    ['_sip.example.', false],
    ['a\\.b.example.', false],
    ['*.example.', false],
    ['xn--kse-qla.example.', true],
    ['.', true],
  ])('%s may be a host: %s', (text, may) => expect(isHostName(Name.parse(text), false)).toBe(may));
  it('a wildcard stands for hosts', () =>
    expect([isHostName(Name.parse('*.a.example.'), true), isHostName(Name.parse('a.*.example.'), true)]).toEqual([true, false]));
  it.each([
    ['host.zone.example.', true],
    ['first\\.last.zone.example.', true],
    ['a\\032b.zone.example.', false],
    ['host.', false],
    ['host._x.example.', false],
    ['.', true],
  ])('%s may be a mailbox: %s', (text, may) => expect(isMailbox(Name.parse(text))).toBe(may));
});
