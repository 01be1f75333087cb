import { Body, Controller, Get, HttpCode, Inject, Post } from '@nestjs/common';
import { ClockView, clockChangeSchema, clockSchema } from '@wanderon/contract';
import { createZodDto, ZodResponse } from 'nestjs-zod';
import { Allow, Caller, EvenUnready, Person } from '../people/allow';
import { EventStore } from '../events/event.store';
import { NotNow } from '../refusals';
import { CLOCK, Clock } from './clock';
import { LabClockFollower } from './labClock';

class ClockDto extends createZodDto(clockSchema) {}
class ClockChangeDto extends createZodDto(clockChangeSchema) {}

@Controller('api/clock')
export class ClockController {
  constructor(
    @Inject(CLOCK) private readonly clock: Clock,
    private readonly events: EventStore,
  ) {}

  @Get()
  @Allow('viewer')
  @EvenUnready()
  @ZodResponse({ type: ClockDto, description: 'The time by which the job runs.' })
  read(): ClockView {
    return { at: this.clock.now(), rate: this.clock.rate(), lab: this.clock instanceof LabClockFollower };
  }

  @Post()
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: ClockDto, description: 'In the lab: changes the speed of the clock, or jumps forward.' })
  async change(@Body() change: ClockChangeDto, @Person() person: Caller): Promise<ClockView> {
    if (!(this.clock instanceof LabClockFollower)) throw new NotNow('The clock can be moved in the lab only.');
    const before = { at: this.clock.now(), rate: this.clock.rate() };
    await this.clock.change(change);
    await this.events.add({
      person: person.id,
      kind: 'clock',
      text: change.jump !== undefined ? `The lab clock jumped ${change.jump} s.` : `The lab clock runs at speed ${change.rate}.`,
      before,
      after: change,
    });
    return this.read();
  }
}
