import { machineResolvers, resolversIn } from './ownResolvers';

it.each([
  ['nameserver 192.0.2.53\n', ['This machine’s resolver 192.0.2.53']],
  [
    '# made by a program\nsearch office.example\nnameserver 192.0.2.53\nnameserver 2001:db8::53%eth0\noptions edns0\n',
    ['This machine’s resolver 1 192.0.2.53', 'This machine’s resolver 2 2001:db8::53'],
  ],
  ['nameserver 192.0.2.53\nnameserver 192.0.2.53\n', ['This machine’s resolver 192.0.2.53']],
  ['nameserver resolver.office.example\n;nameserver 192.0.2.53\n', []],
  [
    'nameserver 192.0.2.1\nnameserver 192.0.2.2\nnameserver 192.0.2.3\nnameserver 192.0.2.4\n',
    ['1 192.0.2.1', '2 192.0.2.2', '3 192.0.2.3'].map((one) => `This machine’s resolver ${one}`),
  ],
])('%j', (text, expected) => {
  expect(resolversIn(text).map(({ name, address }) => `${name} ${address}`)).toEqual(expected);
});

it('a machine without that file has none', async () => {
  expect(await machineResolvers('/nowhere/resolv.conf')).toEqual([]);
});
