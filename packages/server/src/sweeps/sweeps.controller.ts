import { Body, Controller, Get, HttpCode, Param, Post } from '@nestjs/common';
import { SurveyPage, SweepSummary, SweepView, newSweepSchema, surveyPageSchema, sweepActionSchema, sweepListSchema, sweepSchema } from '@wanderon/contract';
import { ApiBody } from '@nestjs/swagger';
import { createZodDto, ZodResponse } from 'nestjs-zod';
import { Allow, Caller, Person } from '../people/allow';
import { SweepService } from './sweep.service';
import { SweepStore } from './sweep.store';

class NewSweepDto extends createZodDto(newSweepSchema) {}
class SweepDto extends createZodDto(sweepSchema) {}
class SweepListDto extends createZodDto(sweepListSchema) {}
class SweepActionDto extends createZodDto(sweepActionSchema) {}
class SurveyPageDto extends createZodDto(surveyPageSchema) {}

@Controller('api')
export class SweepsController {
  constructor(
    private readonly service: SweepService,
    private readonly store: SweepStore,
  ) {}

  @Get('sweeps')
  @Allow('viewer')
  @ZodResponse({ type: SweepListDto, description: 'Every sweep, the newest first.' })
  async list(): Promise<{ sweeps: SweepSummary[] }> {
    return { sweeps: await this.store.list() };
  }

  @Post('sweeps')
  @HttpCode(200)
  @Allow('technician')
  @ApiBody({ type: NewSweepDto })
  @ZodResponse({ type: SweepDto, description: 'Begins to survey a list of domains.' })
  async begin(@Body() body: unknown, @Person() person: Caller): Promise<SweepView> {
    return this.store.get(await this.service.begin(body, person));
  }

  @Get('sweeps/:id')
  @Allow('viewer')
  @ZodResponse({ type: SweepDto, description: 'One sweep with what came of each domain.' })
  async get(@Param('id') id: string): Promise<SweepView> {
    return this.store.get(id);
  }

  @Post('sweeps/:id')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: SweepDto, description: 'Pauses a sweep, goes on with it, ends it, or surveys again what failed.' })
  async act(@Param('id') id: string, @Body() input: SweepActionDto, @Person() person: Caller): Promise<SweepView> {
    await this.service.act(id, input, person);
    return this.store.get(id);
  }

  @Get('surveys/:id')
  @Allow('viewer')
  @ZodResponse({ type: SurveyPageDto, description: 'One survey alone.' })
  async survey(@Param('id') id: string): Promise<SurveyPage> {
    return this.service.survey(id);
  }
}
