import { Body, Controller, Get, HttpCode, Param, Post, Put } from '@nestjs/common';
import {
  DriftView,
  Acted,
  actedSchema,
  answerHintSchema,
  driftSchema,
  inHandSchema,
  MoveSurvey,
  moveSurveySchema,
  nameHintSchema,
  pagesSchema,
  purposeSchema,
  storedSchema,
} from '@wanderon/contract';
import { ApiBody } from '@nestjs/swagger';
import { createZodDto, ZodResponse } from 'nestjs-zod';
import { z } from 'zod';
import { Allow, Caller, Person } from '../people/allow';
import { SurveyActs } from './surveyActs';
import { SurveyStore } from './survey.store';
import { driftOf } from './driftOf';

class ActedDto extends createZodDto(actedSchema) {}
class InHandDto extends createZodDto(inHandSchema) {}
class AnswerHintDto extends createZodDto(answerHintSchema) {}
class NameHintDto extends createZodDto(nameHintSchema) {}
class PurposeDto extends createZodDto(purposeSchema) {}
class StoredDto extends createZodDto(storedSchema) {}
class PagesDto extends createZodDto(pagesSchema) {}
class MoveSurveyDto extends createZodDto(z.object({ survey: moveSurveySchema.nullable() })) {}
class DriftDto extends createZodDto(driftSchema) {}

@Controller('api/legs/:leg')
export class SurveyController {
  constructor(
    private readonly service: SurveyActs,
    private readonly surveys: SurveyStore,
  ) {}

  @Post('in-hand')
  @HttpCode(200)
  @Allow('technician')
  @ApiBody({ type: InHandDto })
  @ZodResponse({ type: ActedDto, description: 'Gives what a person has in hand of the zone, and takes the survey again with it.' })
  async inHand(@Param('leg') leg: string, @Body() body: unknown, @Person() person: Caller): Promise<Acted> {
    return this.service.giveInHand(leg, body, person);
  }

  @Post('hints')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: ActedDto, description: 'Answers a hint of the survey, or takes the answer back.' })
  async answerHint(@Param('leg') leg: string, @Body() input: AnswerHintDto, @Person() person: Caller): Promise<Acted> {
    return this.service.answerHint(leg, input, person);
  }

  @Post('hints/name')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: ActedDto, description: 'Gives the name behind a hint, and takes the survey again with it.' })
  async nameHint(@Param('leg') leg: string, @Body() input: NameHintDto, @Person() person: Caller): Promise<Acted> {
    return this.service.nameHint(leg, input, person);
  }

  @Put('pages')
  @Allow('technician')
  @ZodResponse({ type: ActedDto, description: 'Lists pages whose answers are kept, and takes the survey again with them.' })
  async pages(@Param('leg') leg: string, @Body() input: PagesDto, @Person() person: Caller): Promise<Acted> {
    return this.service.listPages(leg, input, person);
  }

  @Put('purposes')
  @Allow('technician')
  @ZodResponse({ type: ActedDto, description: 'Says what a record set is for.' })
  async purpose(@Param('leg') leg: string, @Body() input: PurposeDto, @Person() person: Caller): Promise<Acted> {
    return this.service.setPurpose(leg, input, person);
  }

  @Put('stored')
  @Allow('technician')
  @ZodResponse({ type: ActedDto, description: 'Says what a fronted record set holds at its host.' })
  async stored(@Param('leg') leg: string, @Body() input: StoredDto, @Person() person: Caller): Promise<Acted> {
    return this.service.setStored(leg, input, person);
  }

  @Post('survey')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: ActedDto, description: 'Takes the survey again.' })
  async again(@Param('leg') leg: string, @Person() person: Caller): Promise<Acted> {
    return this.service.again(leg, person);
  }

  @Post('stop-survey')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: ActedDto, description: 'Stops a survey under way.' })
  async stop(@Param('leg') leg: string, @Person() person: Caller): Promise<Acted> {
    return this.service.stop(leg, person);
  }

  @Get('drift/:earlier')
  @Allow('viewer')
  @ZodResponse({ type: DriftDto, description: 'What is otherwise in the latest survey than in an earlier one of the move.' })
  async drift(@Param('leg') leg: string, @Param('earlier') earlier: string): Promise<DriftView> {
    return driftOf(await this.service.latest(leg), earlier, this.surveys);
  }

  @Get('survey')
  @Allow('viewer')
  @ZodResponse({ type: MoveSurveyDto, description: 'The latest survey, with what people said of it; null before there is one.' })
  async latest(@Param('leg') leg: string): Promise<{ survey: MoveSurvey | null }> {
    return { survey: await this.service.latest(leg) };
  }
}
