/** A stream in hand, and what it took so far. */
interface Guest {
  octets: number;
  readonly end: () => void;
  isOut: boolean;
}

/**
 * Room for all streams in hand, in octets: what strangers send is bounded however many of them send. Where there is too little, the one that
 * took most goes, so that a zone of usual size gets through beside any number of endless ones.
 */
export class StreamRoom {
  private readonly guests = new Set<Guest>();
  private octets = 0;

  constructor(private readonly most: number) {}

  /** A stream begins; `end` breaks it off. */
  enter(end: () => void): { take(octets: number): void; leave(): void; readonly isOut: boolean } {
    const guest: Guest = { octets: 0, end, isOut: false };
    this.guests.add(guest);
    return {
      take: (octets) => {
        if (guest.isOut) return;
        guest.octets += octets;
        this.octets += octets;
        while (this.octets > this.most) this.putOut([...this.guests].reduce((a, b) => (b.octets > a.octets ? b : a)));
      },
      leave: () => this.forget(guest),
      get isOut() {
        return guest.isOut;
      },
    };
  }

  private putOut(guest: Guest): void {
    guest.isOut = true;
    this.forget(guest);
    guest.end();
  }

  private forget(guest: Guest): void {
    if (this.guests.delete(guest)) this.octets -= guest.octets;
  }
}
