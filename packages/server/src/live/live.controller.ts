import { Controller, Inject, MessageEvent, Req, Sse } from '@nestjs/common';
import { Observable, filter, interval, map, merge, switchMap, takeUntil } from 'rxjs';
import { CONFIG, Config } from '../config';
import { CLOCK, Clock } from '../clock/clock';
import { Allow, Caller, Person, SignedRequest } from '../people/allow';
import { tokenOf } from '../people/cookie';
import { SessionService } from '../people/sessions.service';
import { LiveService } from './live.service';
import { Streams } from './streams';

/** Milliseconds after which it is looked whether a session goes on that nobody ended: its time may be over. */
const SESSION_LOOK = 60_000;

@Controller('api/live')
export class LiveController {
  constructor(
    private readonly live: LiveService,
    private readonly sessions: SessionService,
    private readonly streams: Streams,
    @Inject(CONFIG) private readonly config: Config,
    @Inject(CLOCK) clock: Clock,
  ) {
    clock.onChange(() => void this.live.tell({ topic: 'clock' }));
  }

  /**
   * Server-sent events: what changed. A comment every 20 s keeps proxies from closing the connection. The stream ends with the session
   * that it was opened in; of one person only the newest few go on.
   */
  @Sse()
  @Allow('viewer')
  stream(@Req() request: SignedRequest, @Person() person: Caller): Observable<MessageEvent> {
    const told = this.live.changes.pipe(filter((change) => change.topic !== 'sessions'));
    const beats = interval(20_000).pipe(map(() => ({ type: 'beat', data: '' })));
    const ended = merge(this.live.changes.pipe(filter((change) => change.topic === 'sessions' && change.person === person.id)), interval(SESSION_LOOK)).pipe(
      switchMap(() => this.sessions.callerOf(tokenOf(request, this.config), false)),
      filter((caller) => caller?.must !== null),
    );
    return merge(told.pipe(map((change) => ({ data: change }))), beats).pipe(takeUntil(merge(ended, this.streams.opened(person.id))));
  }
}
