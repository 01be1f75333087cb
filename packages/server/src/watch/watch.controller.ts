import { Controller, Get, HttpCode, Param, Post } from '@nestjs/common';
import { Acted, WatchView, actedSchema, watchSchema } from '@wanderon/contract';
import { createZodDto, ZodResponse } from 'nestjs-zod';
import { MoveService } from '../moves/moves.service';
import { MoveViews } from '../moves/moves.view';
import { Allow, Caller, Person } from '../people/allow';

class ActedDto extends createZodDto(actedSchema) {}
class WatchDto extends createZodDto(watchSchema) {}

@Controller('api/legs/:leg')
export class WatchController {
  constructor(
    private readonly service: MoveService,
    private readonly views: MoveViews,
  ) {}

  @Get('watch')
  @Allow('viewer')
  @ZodResponse({ type: WatchDto, description: 'What lookouts, the parent and the website say.' })
  async watch(@Param('leg') leg: string): Promise<WatchView> {
    return this.views.watch(leg);
  }

  @Post('website')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: ActedDto, description: 'Looks at the website now, where the plan leads.' })
  async lookAtWebsite(@Param('leg') leg: string, @Person() person: Caller): Promise<Acted> {
    return this.service.lookAtWebsite(leg, person);
  }
}
