import { Controller, Inject, MessageEvent, Sse } from '@nestjs/common';
import { Observable, interval, map, merge } from 'rxjs';
import { CLOCK, Clock } from '../clock/clock';
import { Allow } from '../people/allow';
import { LiveService } from './live.service';

@Controller('api/live')
export class LiveController {
  constructor(
    private readonly live: LiveService,
    @Inject(CLOCK) clock: Clock,
  ) {
    clock.onChange(() => void this.live.tell({ topic: 'clock' }));
  }

  /** Server-sent events: what changed. A comment every 20 s keeps proxies from closing the connection. */
  @Sse()
  @Allow('viewer')
  stream(): Observable<MessageEvent> {
    return merge(this.live.changes.pipe(map((change) => ({ data: change }))), interval(20_000).pipe(map(() => ({ type: 'beat', data: '' }))));
  }
}
