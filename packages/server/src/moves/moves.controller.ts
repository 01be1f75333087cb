import { Body, Controller, Delete, Get, HttpCode, Param, Post, Put } from '@nestjs/common';
import {
  EventView,
  MoveSummary,
  MoveView,
  approveSchema,
  chooseHostsSchema,
  domainChoiceSchema,
  editRulingSchema,
  eventListSchema,
  moveListSchema,
  moveSchema,
  newMoveSchema,
  newRulingSchema,
  readDomainResultSchema,
  readDomainSchema,
  stepActionSchema,
} from '@wanderon/contract';
import { createZodDto, ZodResponse } from 'nestjs-zod';
import { z } from 'zod';
import { EventStore } from '../events/event.store';
import { Allow, Caller, Person } from '../people/allow';
import { MoveService } from './move.service';
import { MoveStore } from './move.store';
import { MoveViews } from './move.view';
import { MoveActs } from './moveActs';

class ReadDomainDto extends createZodDto(readDomainSchema) {}
class ReadDomainResultDto extends createZodDto(readDomainResultSchema) {}
class NewMoveDto extends createZodDto(newMoveSchema) {}
class MoveListDto extends createZodDto(moveListSchema) {}
class MoveDto extends createZodDto(moveSchema) {}
class ChooseHostsDto extends createZodDto(chooseHostsSchema) {}
class EditRulingDto extends createZodDto(editRulingSchema) {}
class NewRulingDto extends createZodDto(newRulingSchema) {}
class ApproveDto extends createZodDto(approveSchema) {}
class StepActionDto extends createZodDto(stepActionSchema) {}
class EventListDto extends createZodDto(eventListSchema) {}

@Controller('api')
export class MovesController {
  constructor(
    private readonly service: MoveService,
    private readonly acts: MoveActs,
    private readonly store: MoveStore,
    private readonly views: MoveViews,
    private readonly events: EventStore,
  ) {}

  @Post('domains/read')
  @HttpCode(200)
  @Allow('viewer')
  @ZodResponse({ type: ReadDomainResultDto, description: 'What a pasted text means as a domain.' })
  read(@Body() input: ReadDomainDto): { choices: z.infer<typeof domainChoiceSchema>[] } {
    return { choices: [...this.service.read(input.text)] };
  }

  @Get('moves')
  @Allow('viewer')
  @ZodResponse({ type: MoveListDto, description: 'Every move, the open ones first.' })
  async list(): Promise<{ moves: MoveSummary[] }> {
    return { moves: await this.views.list() };
  }

  @Post('moves')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: MoveDto, description: 'Begins a move; the survey follows by itself.' })
  async start(@Body() input: NewMoveDto, @Person() person: Caller): Promise<MoveView> {
    return this.views.get(await this.service.start(input.domain, input.scope, person));
  }

  @Get('moves/:id')
  @Allow('viewer')
  @ZodResponse({ type: MoveDto, description: 'One move, whole.' })
  async get(@Param('id') id: string): Promise<MoveView> {
    return this.views.get(id);
  }

  @Get('moves/:id/events')
  @Allow('viewer')
  @ZodResponse({ type: EventListDto, description: 'Who did what, the newest first.' })
  async trail(@Param('id') id: string): Promise<{ events: EventView[] }> {
    return { events: await this.events.ofMove((await this.store.get(id)).id) };
  }

  @Put('moves/:id/hosts')
  @Allow('technician')
  @ZodResponse({ type: MoveDto, description: 'Where the domain goes; proposes the rulings.' })
  async hosts(@Param('id') id: string, @Body() input: ChooseHostsDto, @Person() person: Caller): Promise<MoveView> {
    return this.after(id, () => this.service.chooseHosts(id, input, person));
  }

  @Put('moves/:id/rulings/:ruling')
  @Allow('technician')
  @ZodResponse({ type: MoveDto, description: 'Changes one ruling.' })
  async ruling(@Param('id') id: string, @Param('ruling') ruling: string, @Body() input: EditRulingDto, @Person() person: Caller): Promise<MoveView> {
    return this.after(id, () => this.service.editRuling(id, ruling, input, person));
  }

  @Post('moves/:id/rulings')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: MoveDto, description: 'Adds a record set that was not found.' })
  async addRuling(@Param('id') id: string, @Body() input: NewRulingDto, @Person() person: Caller): Promise<MoveView> {
    return this.after(id, () => this.service.addRuling(id, input, person));
  }

  @Post('moves/:id/undo')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: MoveDto, description: 'Takes the last change of a ruling back.' })
  async undo(@Param('id') id: string, @Person() person: Caller): Promise<MoveView> {
    return this.after(id, () => this.service.undo(id, person));
  }

  @Post('moves/:id/push')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: MoveDto, description: 'Decides the push of the new zone.' })
  async push(@Param('id') id: string, @Person() person: Caller): Promise<MoveView> {
    return this.after(id, () => this.service.push(id, person));
  }

  @Post('moves/:id/approve')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: MoveDto, description: 'Approves the timetable: what Wanderon does by itself, and when.' })
  async approve(@Param('id') id: string, @Body() input: ApproveDto, @Person() person: Caller): Promise<MoveView> {
    return this.after(id, () => this.service.approve(id, input, person));
  }

  @Post('moves/:id/submitted')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: MoveDto, description: 'The nameservers were changed at the registrar.' })
  async submitted(@Param('id') id: string, @Person() person: Caller): Promise<MoveView> {
    return this.after(id, () => this.service.submitted(id, person));
  }

  @Post('moves/:id/steps')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: MoveDto, description: 'Tries a failed step again, or goes on without it.' })
  async step(@Param('id') id: string, @Body() input: StepActionDto, @Person() person: Caller): Promise<MoveView> {
    return this.after(id, () => this.service.act(id, input.step, input.action, person));
  }

  @Post('moves/:id/close')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: MoveDto, description: 'Closes a settled move.' })
  async close(@Param('id') id: string, @Person() person: Caller): Promise<MoveView> {
    return this.after(id, () => this.service.close(id, person));
  }

  @Delete('moves/:id')
  @Allow('technician')
  @ZodResponse({ type: MoveDto, description: 'Abandons a move; nothing outward is undone.' })
  async abandon(@Param('id') id: string, @Person() person: Caller): Promise<MoveView> {
    return this.after(id, () => this.service.abandon(id, person));
  }

  private async after(id: string, act: () => Promise<void>): Promise<MoveView> {
    await this.acts.exclusive(id, act);
    return this.views.get(id);
  }
}
