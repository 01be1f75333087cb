import { decision, legOf } from '../../testing/moving';
import { Decision, GivenRegistration } from '../said';
import { Seen } from '../seen';
import { Line } from './line';
import { registration } from './registration';

const DAY = 86_400;
const NOW = 1000;

function lineOf(seen: Seen['registration'], given?: GivenRegistration, kind: 'delegation' | 'repoint' = 'delegation'): Line | undefined {
  const decisions: Decision[] = [decision('hosts'), ...(given ? [decision('registration', '', given)] : [])];
  return registration(legOf({ now: NOW, decisions, plan: { kind }, seen: { registration: seen } }));
}
const seen = (...statuses: string[]): NonNullable<Seen['registration']> => ({ at: 900, statuses, problem: null, expires: NOW + 400 * DAY });

describe('the registration', () => {
  it('is no matter where nothing is known of it, nor where nothing changes at the registrar', () => {
    expect(lineOf(undefined)).toBeUndefined();
    expect(lineOf(seen('client hold'), undefined, 'repoint')).toBeUndefined();
  });

  it('is in the way by what the registry tells, whatever a person says', () => {
    expect(lineOf(seen('active'))).toMatchObject({ holds: true });
    const given = { registrar: null, expires: null, locked: false };
    expect(lineOf(seen('active', 'client update prohibited'), given)).toMatchObject({ holds: false, about: ['client update prohibited'] });
  });

  it('is in the way where it ends before the move may be over, and told in words', () => {
    expect(lineOf({ ...seen('active'), expires: NOW + 60 })).toMatchObject({ holds: false, text: 'The registration is in the way: it ends in 1 min.' });
    expect(lineOf({ ...seen('active'), expires: NOW - DAY })).toMatchObject({ holds: false, text: 'The registration is in the way: it has run out.' });
    expect(lineOf({ ...seen('active'), expires: null })).toMatchObject({ holds: true });
  });

  it('is what a person says where no registry tells', () => {
    const said = (given: Partial<GivenRegistration>): Line | undefined => lineOf(undefined, { registrar: null, expires: null, locked: null, ...given });
    expect(said({ locked: false })).toMatchObject({ holds: true, seenAt: null, text: 'Somebody looked at the registrar: changes are not locked.' });
    expect(said({ locked: true })).toMatchObject({ holds: false, waivable: true, evidence: 'Have the lock taken off at the registrar.' });
    expect(said({ expires: NOW + 30 })).toMatchObject({ holds: false });
  });

  it('is not good by a word that leaves open whether changes are locked', () => {
    const open = { registrar: 'Names', expires: NOW + 400 * DAY, locked: null };
    expect(lineOf(undefined, open)).toBeUndefined();
    expect(lineOf({ at: 900, statuses: [], problem: 'it answers with status 500' }, open)).toMatchObject({ holds: false, about: ['it was not seen'] });
  });

  it('does not end too soon because no end of the move is known', () => {
    const unbounded = { ...seen('active'), expires: NOW + 30 * DAY };
    const leg = legOf({ now: NOW, decisions: [decision('hosts')], seen: { registration: unbounded } });
    Object.defineProperty(leg, 'times', { value: { ...leg.times, last: { ...leg.times.last, at: Infinity } } });
    expect(registration(leg)).toMatchObject({ holds: true });
  });

  it('that could not be looked up asks for a person’s word, and takes it', () => {
    const failed = { at: 900, statuses: [], problem: 'it answers with status 500' };
    expect(lineOf(failed)).toMatchObject({ holds: false, waivable: true, text: 'The registration could not be looked up: it answers with status 500.' });
    expect(lineOf(failed, { registrar: 'Names', expires: null, locked: false })).toMatchObject({ holds: true });
  });
});
