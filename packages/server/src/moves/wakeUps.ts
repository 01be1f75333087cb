import { Injectable } from '@nestjs/common';
import { Observable, Subject } from 'rxjs';

/** Moves that somebody has just acted on, in this process: they are looked at at once, without waiting for the pulse. */
@Injectable()
export class WakeUps {
  private readonly subject = new Subject<string>();

  get moves(): Observable<string> {
    return this.subject.asObservable();
  }

  say(move: string): void {
    this.subject.next(move);
  }
}
