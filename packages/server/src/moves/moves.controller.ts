import { Body, Controller, Delete, Get, HttpCode, Param, Post, Put, Query } from '@nestjs/common';
import {
  EventView,
  HorizonsView,
  LedgerPage,
  MoveSummary,
  MoveView,
  Acted,
  AnsweringView,
  AnswersView,
  FrontView,
  actedSchema,
  approveSchema,
  backSchema,
  chooseHostsSchema,
  domainChoiceSchema,
  eventListSchema,
  horizonsSchema,
  ledgerPageSchema,
  ledgerQuerySchema,
  moveListSchema,
  moveQuerySchema,
  moveSchema,
  newMoveSchema,
  readDomainResultSchema,
  readDomainSchema,
  takeWaySchema,
  frontingSchema,
  namedSchema,
  panelShownSchema,
  typedSchema,
  lookNowSchema,
  moveNoteSchema,
  ownTaskSchema,
  registrarSchema,
  givenRegistrationSchema,
  askFrontSchema,
  frontSchema,
  answeringSchema,
  answersSchema,
  waiveSchema,
} from '@wanderon/contract';
import { ApiBody } from '@nestjs/swagger';
import { createZodDto, ZodResponse } from 'nestjs-zod';
import { z } from 'zod';
import { EventStore } from '../events/event.store';
import { Allow, Caller, Person } from '../people/allow';
import { BeginService } from './begin.service';
import { ChoosingService } from './choosing.service';
import { FrontService } from './front.service';
import { MoveStore } from './move.store';
import { MoveService } from './moves.service';
import { WaysService } from './ways.service';
import { MovePages } from './moves.pages';
import { MoveViews } from './moves.view';

class ReadDomainDto extends createZodDto(readDomainSchema) {}
class ReadDomainResultDto extends createZodDto(readDomainResultSchema) {}
class NewMoveDto extends createZodDto(newMoveSchema) {}
class MoveQueryDto extends createZodDto(moveQuerySchema) {}
class MoveListDto extends createZodDto(moveListSchema) {}
class MoveDto extends createZodDto(moveSchema) {}
class ActedDto extends createZodDto(actedSchema) {}
class LedgerDto extends createZodDto(ledgerPageSchema) {}
class HorizonsDto extends createZodDto(horizonsSchema) {}
class LedgerQueryDto extends createZodDto(ledgerQuerySchema) {}
class ChooseHostsDto extends createZodDto(chooseHostsSchema) {}
class ApproveDto extends createZodDto(approveSchema) {}
class TakeWayDto extends createZodDto(takeWaySchema) {}
class WaiveDto extends createZodDto(waiveSchema) {}
class AnsweringDto extends createZodDto(answeringSchema) {}
class AnswersDto extends createZodDto(answersSchema) {}
class NamedDto extends createZodDto(namedSchema) {}
class FrontingDto extends createZodDto(frontingSchema) {}
class PanelShownDto extends createZodDto(panelShownSchema) {}
class TypedDto extends createZodDto(typedSchema) {}
class GivenRegistrationDto extends createZodDto(givenRegistrationSchema) {}
class LookDto extends createZodDto(lookNowSchema) {}
class MoveNoteDto extends createZodDto(moveNoteSchema) {}
class OwnTaskDto extends createZodDto(ownTaskSchema) {}
class RegistrarDto extends createZodDto(registrarSchema) {}
class BackDto extends createZodDto(backSchema) {}
class AskFrontDto extends createZodDto(askFrontSchema) {}
class FrontDto extends createZodDto(frontSchema) {}
class EventListDto extends createZodDto(eventListSchema) {}

@Controller('api')
export class MovesController {
  constructor(
    private readonly beginning: BeginService,
    private readonly service: MoveService,
    private readonly choosing: ChoosingService,
    private readonly frontDoor: FrontService,
    private readonly ways: WaysService,
    private readonly store: MoveStore,
    private readonly pages: MovePages,
    private readonly views: MoveViews,
    private readonly events: EventStore,
  ) {}

  @Post('domains/read')
  @HttpCode(200)
  @Allow('viewer')
  @ZodResponse({ type: ReadDomainResultDto, description: 'What a pasted text means as a domain.' })
  read(@Body() input: ReadDomainDto): { choices: z.infer<typeof domainChoiceSchema>[] } {
    return { choices: this.beginning.read(input.text).map((choice) => ({ ...choice, names: [...choice.names] })) };
  }

  @Get('moves')
  @Allow('viewer')
  @ZodResponse({ type: MoveListDto, description: 'Summaries of moves, the newest first, a page at a time.' })
  async list(@Query() query: MoveQueryDto): Promise<{ moves: MoveSummary[]; next: string | null }> {
    return this.pages.list(query);
  }

  @Post('moves')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: ActedDto, description: 'Begins a move; the survey follows by itself.' })
  async start(@Body() input: NewMoveDto, @Person() person: Caller): Promise<Acted> {
    return this.beginning.start(input, person);
  }

  @Get('moves/:id')
  @Allow('viewer')
  @ZodResponse({ type: MoveDto, description: 'The head of one move: its legs with their steps, times and gate.' })
  async get(@Param('id') id: string, @Person() person: Caller): Promise<MoveView> {
    return this.views.get(id, person.id);
  }

  @Get('moves/:id/ledger')
  @Allow('viewer')
  @ZodResponse({ type: LedgerDto, description: 'The rows of the latest leg of a move, for whoever does not know its id yet.' })
  async latestLedger(@Param('id') id: string, @Query() query: LedgerQueryDto): Promise<LedgerPage> {
    return this.views.latestLedger(id, query);
  }

  @Get('moves/:id/events')
  @Allow('viewer')
  @ZodResponse({ type: EventListDto, description: 'Who did what, the newest first.' })
  async trail(@Param('id') id: string): Promise<{ events: EventView[] }> {
    return { events: await this.events.ofMove((await this.store.get(id)).id) };
  }

  @Post('moves/:id/close')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: ActedDto, description: 'Closes a settled move.' })
  async close(@Param('id') id: string, @Person() person: Caller): Promise<Acted> {
    return this.service.close(id, person);
  }

  @Delete('moves/:id')
  @Allow('technician')
  @ZodResponse({ type: ActedDto, description: 'Abandons a move; nothing outward is undone.' })
  async abandon(@Param('id') id: string, @Person() person: Caller): Promise<Acted> {
    return this.service.abandon(id, person);
  }

  @Get('legs/:leg/ledger')
  @Allow('viewer')
  @ZodResponse({ type: LedgerDto, description: 'The rows of a leg: found, planned and served, with remarks; a page at a time.' })
  async ledger(@Param('leg') leg: string, @Query() query: LedgerQueryDto): Promise<LedgerPage> {
    return this.views.ledger(leg, query);
  }

  @Get('legs/:leg/horizons')
  @Allow('viewer')
  @ZodResponse({ type: HorizonsDto, description: 'Until when old answers to each set may be remembered, the latest first.' })
  async horizons(@Param('leg') leg: string): Promise<HorizonsView> {
    return this.views.horizons(leg);
  }

  @Post('legs/:leg/front')
  @HttpCode(200)
  @Allow('viewer')
  @ZodResponse({ type: FrontDto, description: 'How the domain stands, what was given for its move, and what follows: ways, names, and what is missing.' })
  async open(@Param('leg') leg: string, @Body() { given }: AskFrontDto): Promise<FrontView> {
    return this.frontDoor.view(leg, given);
  }

  @Put('legs/:leg/hosts')
  @Allow('technician')
  @ZodResponse({ type: ActedDto, description: 'In which way the domain moves and where it goes; proposes the rulings.' })
  async hosts(@Param('leg') leg: string, @Body() input: ChooseHostsDto, @Person() person: Caller): Promise<Acted> {
    return this.choosing.choose(leg, input, person);
  }

  @Post('legs/:leg/next')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: ActedDto, description: 'Begins the second leg of a move in two.' })
  async next(@Param('leg') leg: string, @Person() person: Caller): Promise<Acted> {
    return this.choosing.begin(leg, person);
  }

  @Post('legs/:leg/back')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: ActedDto, description: 'Sets back what a leg changed: its records, or the nameservers.' })
  async back(@Param('leg') leg: string, @Body() input: BackDto, @Person() person: Caller): Promise<Acted> {
    return this.choosing.backOut(leg, input, person);
  }

  @Post('legs/:leg/push')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: ActedDto, description: 'Decides the push of the new zone.' })
  async push(@Param('leg') leg: string, @Person() person: Caller): Promise<Acted> {
    return this.service.push(leg, person);
  }

  @Post('legs/:leg/typed')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: ActedDto, description: 'Ticks a row of the handover sheet, or takes the tick off.' })
  async typed(@Param('leg') leg: string, @Body() input: TypedDto, @Person() person: Caller): Promise<Acted> {
    return this.service.typed(leg, input, person);
  }

  @Put('moves/:id/note')
  @Allow('technician')
  @ZodResponse({ type: ActedDto, description: 'Says what colleagues are to know of a move.' })
  async note(@Param('id') id: string, @Body() input: MoveNoteDto, @Person() person: Caller): Promise<Acted> {
    return this.service.note(id, input, person);
  }

  @Post('legs/:leg/tasks')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: ActedDto, description: 'Notes something to do in a move.' })
  async addTask(@Param('leg') leg: string, @Body() input: OwnTaskDto, @Person() person: Caller): Promise<Acted> {
    return this.service.addTask(leg, input, person);
  }

  @Delete('legs/:leg/tasks/:task')
  @Allow('technician')
  @ZodResponse({ type: ActedDto, description: 'Takes away something that was noted to do.' })
  async dropTask(@Param('leg') leg: string, @Param('task') task: string, @Person() person: Caller): Promise<Acted> {
    return this.service.dropTask(leg, task, person);
  }

  @Post('legs/:leg/look')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: ActedDto, description: 'Has servers asked now, and not only when it is their turn.' })
  async look(@Param('leg') leg: string, @Body() input: LookDto, @Person() person: Caller): Promise<Acted> {
    return this.service.look(leg, input, person);
  }

  @Put('legs/:leg/registration')
  @Allow('technician')
  @ZodResponse({ type: ActedDto, description: 'Says what the registrar shows of the domain, where no registry tells it.' })
  async registration(@Param('leg') leg: string, @Body() input: GivenRegistrationDto, @Person() person: Caller): Promise<Acted> {
    return this.service.registration(leg, input, person);
  }

  @Put('legs/:leg/registrar')
  @Allow('technician')
  @ZodResponse({ type: ActedDto, description: 'Says at which registrar the nameservers are changed.' })
  async registrar(@Param('leg') leg: string, @Body() input: RegistrarDto, @Person() person: Caller): Promise<Acted> {
    return this.service.registrar(leg, input, person);
  }

  @Put('legs/:leg/nameservers')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: ActedDto, description: 'Says which nameservers the new DNS host gave this domain.' })
  async named(@Param('leg') leg: string, @Body() input: NamedDto, @Person() person: Caller): Promise<Acted> {
    return this.service.named(leg, input, person);
  }

  @Post('legs/:leg/fronting')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: ActedDto, description: 'Decides how a name is answered at a DNS host that fronts names.' })
  async front(@Param('leg') leg: string, @Body() input: FrontingDto, @Person() person: Caller): Promise<Acted> {
    return this.service.front(leg, input, person);
  }

  @Post('legs/:leg/panel')
  @HttpCode(200)
  @Allow('technician')
  @ApiBody({ type: PanelShownDto })
  @ZodResponse({ type: ActedDto, description: 'Takes what the panel of the DNS host shows: the sheet goes from there to the plan.' })
  async shown(@Param('leg') leg: string, @Body() body: unknown, @Person() person: Caller): Promise<Acted> {
    return this.service.shown(leg, body, person);
  }

  @Post('legs/:leg/approve')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: ActedDto, description: 'Approves the timetable: what Wanderon does by itself, and when.' })
  async approve(@Param('leg') leg: string, @Body() input: ApproveDto, @Person() person: Caller): Promise<Acted> {
    return this.service.approve(leg, input, person);
  }

  @Post('legs/:leg/withdraw')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: ActedDto, description: 'Takes the timetable back: what was not begun is not done.' })
  async withdraw(@Param('leg') leg: string, @Person() person: Caller): Promise<Acted> {
    return this.service.withdraw(leg, person);
  }

  @Post('legs/:leg/submitted')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({
    type: ActedDto,
    description: 'The nameservers were changed at the registrar, or the records are to change; everything is looked at once more first.',
  })
  async submitted(@Param('leg') leg: string, @Person() person: Caller): Promise<Acted> {
    return this.service.submitted(leg, person);
  }

  @Post('legs/:leg/ways')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: ActedDto, description: 'Takes a way on that a step or a line of the gate offers.' })
  async way(@Param('leg') leg: string, @Body() input: TakeWayDto, @Person() person: Caller): Promise<Acted> {
    return this.ways.takeWay(leg, input, person);
  }

  @Post('legs/:leg/waive')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: ActedDto, description: 'Lets a line of the gate pass with a reason, or takes that back.' })
  async waive(@Param('leg') leg: string, @Body() input: WaiveDto, @Person() person: Caller): Promise<Acted> {
    return this.ways.waive(leg, input, person);
  }

  @Get('legs/:leg/answers')
  @Allow('viewer')
  @ZodResponse({ type: AnsweringDto, description: 'Servers whose last answers are known.' })
  async answering(@Param('leg') leg: string): Promise<AnsweringView> {
    return this.views.answering(leg);
  }

  @Get('legs/:leg/answers/:address')
  @Allow('viewer')
  @ZodResponse({ type: AnswersDto, description: 'What one server answered last, set by set.' })
  async answers(@Param('leg') leg: string, @Param('address') address: string): Promise<AnswersView> {
    return this.views.answers(leg, address);
  }
}
