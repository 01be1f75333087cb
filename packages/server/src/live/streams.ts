import { Injectable } from '@nestjs/common';
import { Observable, Subject } from 'rxjs';

/** Open pages of one person that are told of changes by one process: nobody looks at more. */
const MOST = 12;

/** The streams of events that are open, by person; one too many ends the oldest. */
@Injectable()
export class Streams {
  private readonly open = new Map<string, Set<Subject<void>>>();

  /** Counts a stream for as long as what is given is watched; it tells when the stream has to end. */
  opened(person: string): Observable<void> {
    return new Observable((watcher) => {
      const ends = new Subject<void>();
      const all = this.open.get(person) ?? new Set();
      this.open.set(person, all.add(ends));
      const watching = ends.subscribe(watcher);
      if (all.size > MOST) [...all][0]!.next();
      return () => {
        watching.unsubscribe();
        all.delete(ends);
        if (all.size === 0) this.open.delete(person);
      };
    });
  }
}
