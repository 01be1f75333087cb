import fc from 'fast-check';
import { passwordProblem } from './passwordRule';

describe('a password', () => {
  it.each([
    ['short-one', /at least 12/],
    ['1234567890', /at least 12/],
    ['unbelievable', /commonest/],
    ['Password2026!!', /commonest passwords, dressed up/],
    ['!!letmein!!2026', /dressed up/],
    ['aaaaaaaaaaaaaa', /over and over/],
    ['abcabcabcabc', /over and over/],
    ['fennelfennel', /over and over/],
    ['111222333444', /over and over/],
    ['wanderon-2026', /name of this program/],
    ['boatswain-boatswain!', /the login/],
    ['Boatswain1234567', /the login/],
  ])('%p is refused', (password, why) => expect(passwordProblem(password, 'boatswain')).toMatch(why));

  it.each(['fennel-and-tide', 'correct lighthouse otter', 'Żółw płynie do portu', '7f3a91c04be2d865', '4071-8825-3396', 'wanderon is where I move domains'])(
    '%p is taken',
    (password) => expect(passwordProblem(password, 'boatswain')).toBeUndefined(),
  );

  it('that a generator made is taken', () => {
    const letters = [...'abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789_-'];
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...letters), { minLength: 20, maxLength: 40 }), (drawn) => {
        fc.pre(new Set(drawn.join('').toLowerCase()).size >= 8);
        expect(passwordProblem(drawn.join(''), 'boatswain')).toBeUndefined();
      }),
    );
  });
});
