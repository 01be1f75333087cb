import { Body, Controller, Get, HttpCode, Param, Post, Put } from '@nestjs/common';
import { Acted, WatchView, actedSchema, siteSchema, watchSchema } from '@wanderon/contract';
import { createZodDto, ZodResponse } from 'nestjs-zod';
import { MoveService } from '../moves/moves.service';
import { MoveViews } from '../moves/moves.view';
import { Allow, Caller, Person } from '../people/allow';

class ActedDto extends createZodDto(actedSchema) {}
class SiteDto extends createZodDto(siteSchema) {}
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

  @Put('site')
  @Allow('technician')
  @ZodResponse({ type: ActedDto, description: 'Says at which spelling visitors are to end, and where the site stands beforehand.' })
  async site(@Param('leg') leg: string, @Body() input: SiteDto, @Person() person: Caller): Promise<Acted> {
    return this.service.site(leg, input, person);
  }

  @Post('website')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: ActedDto, description: 'Looks at the website now, where the plan leads.' })
  async lookAtWebsite(@Param('leg') leg: string, @Person() person: Caller): Promise<Acted> {
    return this.service.lookAtWebsite(leg, person);
  }
}
