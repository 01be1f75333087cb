import { Body, Controller, Get, HttpCode, Param, Post, Put } from '@nestjs/common';
import {
  DriftView,
  MoveView,
  answerHintSchema,
  driftSchema,
  inHandSchema,
  moveSchema,
  nameHintSchema,
  pagesSchema,
  purposeSchema,
  storedSchema,
} from '@wanderon/contract';
import { createZodDto, ZodResponse } from 'nestjs-zod';
import { MoveViews } from '../moves/move.view';
import { MoveActs } from '../moves/moveActs';
import { Allow, Caller, Person } from '../people/allow';
import { SurveyActs } from './surveyActs';
import { SurveyStore } from './survey.store';
import { driftOf } from './driftOf';

class MoveDto extends createZodDto(moveSchema) {}
class InHandDto extends createZodDto(inHandSchema) {}
class AnswerHintDto extends createZodDto(answerHintSchema) {}
class NameHintDto extends createZodDto(nameHintSchema) {}
class PurposeDto extends createZodDto(purposeSchema) {}
class StoredDto extends createZodDto(storedSchema) {}
class PagesDto extends createZodDto(pagesSchema) {}
class DriftDto extends createZodDto(driftSchema) {}

@Controller('api/moves/:id')
export class SurveyController {
  constructor(
    private readonly service: SurveyActs,
    private readonly acts: MoveActs,
    private readonly views: MoveViews,
    private readonly surveys: SurveyStore,
  ) {}

  @Post('in-hand')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: MoveDto, description: 'Gives what a person has in hand of the zone, and takes the survey again with it.' })
  async inHand(@Param('id') id: string, @Body() input: InHandDto, @Person() person: Caller): Promise<MoveView> {
    return this.after(id, () => this.service.giveInHand(id, input, person));
  }

  @Post('hints')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: MoveDto, description: 'Answers a hint of the survey, or takes the answer back.' })
  async answerHint(@Param('id') id: string, @Body() input: AnswerHintDto, @Person() person: Caller): Promise<MoveView> {
    return this.after(id, () => this.service.answerHint(id, input, person));
  }

  @Post('hints/name')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: MoveDto, description: 'Gives the name behind a hint, and takes the survey again with it.' })
  async nameHint(@Param('id') id: string, @Body() input: NameHintDto, @Person() person: Caller): Promise<MoveView> {
    return this.after(id, () => this.service.nameHint(id, input, person));
  }

  @Put('pages')
  @Allow('technician')
  @ZodResponse({ type: MoveDto, description: 'Lists pages whose answers are kept, and takes the survey again with them.' })
  async pages(@Param('id') id: string, @Body() input: PagesDto, @Person() person: Caller): Promise<MoveView> {
    return this.after(id, () => this.service.listPages(id, input, person));
  }

  @Put('purposes')
  @Allow('technician')
  @ZodResponse({ type: MoveDto, description: 'Says what a record set is for.' })
  async purpose(@Param('id') id: string, @Body() input: PurposeDto, @Person() person: Caller): Promise<MoveView> {
    return this.after(id, () => this.service.setPurpose(id, input, person));
  }

  @Put('stored')
  @Allow('technician')
  @ZodResponse({ type: MoveDto, description: 'Says what a fronted record set holds at its host.' })
  async stored(@Param('id') id: string, @Body() input: StoredDto, @Person() person: Caller): Promise<MoveView> {
    return this.after(id, () => this.service.setStored(id, input, person));
  }

  @Post('survey')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: MoveDto, description: 'Takes the survey again.' })
  async again(@Param('id') id: string, @Person() person: Caller): Promise<MoveView> {
    return this.after(id, () => this.service.again(id, person));
  }

  @Post('stop-survey')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: MoveDto, description: 'Stops a survey under way.' })
  async stop(@Param('id') id: string, @Person() person: Caller): Promise<MoveView> {
    return this.after(id, () => this.service.stop(id, person));
  }

  @Get('drift/:earlier')
  @Allow('viewer')
  @ZodResponse({ type: DriftDto, description: 'What is otherwise in the latest survey than in an earlier one of the move.' })
  async drift(@Param('id') id: string, @Param('earlier') earlier: string): Promise<DriftView> {
    return driftOf(await this.views.get(id), earlier, this.surveys);
  }

  private async after(id: string, act: () => Promise<void>): Promise<MoveView> {
    await this.acts.exclusive(id, act);
    return this.views.get(id);
  }
}
