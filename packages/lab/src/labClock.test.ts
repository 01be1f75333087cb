import { LabClock } from './labClock';

describe('the lab clock', () => {
  it('pauses, hurries and jumps, and never goes back', () => {
    let real = 0;
    const clock = new LabClock(1000, 1, () => real);
    real = 10;
    expect(clock.now()).toBe(1010);
    clock.setRate(60);
    real = 11;
    expect(clock.now()).toBe(1070);
    clock.setRate(0);
    real = 100;
    expect(clock.now()).toBe(1070);
    clock.jump(3600);
    expect(clock.now()).toBe(4670);
    expect(() => clock.jump(-1)).toThrow(RangeError);
    expect(() => clock.setRate(-1)).toThrow(RangeError);
    clock.stop();
  });

  it('lets so much time pass and no more, however late anybody looks, and tells its end beforehand', () => {
    let real = 0;
    const clock = new LabClock(1000, 60, () => real);
    clock.forward(7200);
    expect(clock.state()).toEqual({ at: 1000, rate: 7200, then: { at: 8200, rate: 60 } });
    real = 11;
    expect(clock.state()).toEqual({ at: 8200 + 10 * 60, rate: 60 });
    // Once more while it hurries: the speed afterwards is the one before the first.
    clock.forward(7200);
    real = 11.5;
    clock.forward(7200);
    expect(clock.state().then).toEqual({ at: 8800 + 3600 + 7200, rate: 60 });
    clock.setRate(0);
    expect(clock.state()).toEqual({ at: 8800 + 3600, rate: 0 });
    clock.stop();
  });

  it('rings what a jump passes, in the order of time, once', () => {
    const clock = new LabClock(0, 0, () => 0);
    const rung: string[] = [];
    clock.alarm(20, () => rung.push('second'));
    clock.alarm(10, () => rung.push('first'));
    clock.alarm(99, () => rung.push('later'));
    clock.jump(50);
    clock.jump(10);
    expect(rung).toEqual(['first', 'second']);
    clock.stop();
  });

  it('tells of every change', () => {
    const clock = new LabClock(0, 0, () => 0);
    let told = 0;
    const off = clock.onChange(() => (told += 1));
    clock.jump(1);
    clock.setRate(0);
    off();
    clock.jump(1);
    expect(told).toBe(2);
    clock.stop();
  });
});
