import { Body, Controller, Delete, HttpCode, Param, Post, Put } from '@nestjs/common';
import {
  Acted,
  actedSchema,
  editRulingSchema,
  editRulingsSchema,
  givenSchema,
  letBeSchema,
  makeRuleSchema,
  mendSchema,
  newRulingSchema,
  planReadSchema,
  takeRuleSchema,
} from '@wanderon/contract';
import { ApiBody } from '@nestjs/swagger';
import { createZodDto, ZodResponse } from 'nestjs-zod';
import { Allow, Caller, Person } from '../people/allow';
import { PlanReadService } from './planRead.service';
import { RemarkService } from './remarks.service';
import { RuleService } from './rules.service';
import { RulingService } from './rulings.service';

class EditRulingDto extends createZodDto(editRulingSchema) {}
class NewRulingDto extends createZodDto(newRulingSchema) {}
class EditRulingsDto extends createZodDto(editRulingsSchema) {}
class GivenDto extends createZodDto(givenSchema) {}
class PlanReadDto extends createZodDto(planReadSchema) {}
class MendDto extends createZodDto(mendSchema) {}
class MakeRuleDto extends createZodDto(makeRuleSchema) {}
class TakeRuleDto extends createZodDto(takeRuleSchema) {}
class LetBeDto extends createZodDto(letBeSchema) {}
class ActedDto extends createZodDto(actedSchema) {}

/** What becomes of the rows of a ledger. */
@Controller('api/legs/:leg')
export class RulingsController {
  constructor(
    private readonly rulings: RulingService,
    private readonly planRead: PlanReadService,
    private readonly remarks: RemarkService,
    private readonly rules: RuleService,
  ) {}

  @Put('rulings/:ruling')
  @Allow('technician')
  @ZodResponse({ type: ActedDto, description: 'Changes one ruling.' })
  async ruling(@Param('leg') leg: string, @Param('ruling') ruling: string, @Body() input: EditRulingDto, @Person() person: Caller): Promise<Acted> {
    return this.rulings.editRuling(leg, ruling, input, person);
  }

  @Put('rulings')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: ActedDto, description: 'Rules many rows at once, as one decision.' })
  async editRulings(@Param('leg') leg: string, @Body() input: EditRulingsDto, @Person() person: Caller): Promise<Acted> {
    return this.rulings.editRulings(leg, input, person);
  }

  @Put('rules')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: ActedDto, description: 'Rules every row of a kind, as one decision, and offers the same to rows that come later.' })
  async makeRule(@Param('leg') leg: string, @Body() input: MakeRuleDto, @Person() person: Caller): Promise<Acted> {
    return this.rules.make(leg, input, person);
  }

  @Post('rules/:rule')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: ActedDto, description: 'Rules rows that came later by a rule that was made before.' })
  async takeRule(@Param('leg') leg: string, @Param('rule') rule: string, @Body() input: TakeRuleDto, @Person() person: Caller): Promise<Acted> {
    return this.rules.take(leg, rule, input, person);
  }

  @Delete('rules/:rule')
  @Allow('technician')
  @ZodResponse({ type: ActedDto, description: 'A rule is offered to no more rows; what was ruled by it stays so.' })
  async endRule(@Param('leg') leg: string, @Param('rule') rule: string, @Person() person: Caller): Promise<Acted> {
    return this.rules.end(leg, rule, person);
  }

  @Post('rulings')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: ActedDto, description: 'Adds a record set that was not found.' })
  async addRuling(@Param('leg') leg: string, @Body() input: NewRulingDto, @Person() person: Caller): Promise<Acted> {
    return this.rulings.addRuling(leg, input, person);
  }

  @Post('undo')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: ActedDto, description: 'Takes the last decision back.' })
  async undo(@Param('leg') leg: string, @Person() person: Caller): Promise<Acted> {
    return this.rulings.undo(leg, person);
  }

  @Post('redo')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: ActedDto, description: 'Makes the last decision that was taken back again.' })
  async redo(@Param('leg') leg: string, @Person() person: Caller): Promise<Acted> {
    return this.rulings.redo(leg, person);
  }

  @Post('given')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: ActedDto, description: 'Takes the value into the plan that the web host gave for this site.' })
  async given(@Param('leg') leg: string, @Body() input: GivenDto, @Person() person: Caller): Promise<Acted> {
    return this.rulings.given(leg, input, person);
  }

  @Put('plan')
  @Allow('technician')
  @ApiBody({ type: PlanReadDto })
  @ZodResponse({ type: ActedDto, description: 'Makes the plan what was read of one that was edited elsewhere, as one decision.' })
  async take(@Param('leg') leg: string, @Body() body: unknown, @Person() person: Caller): Promise<Acted> {
    return this.planRead.take(leg, body, person);
  }

  @Post('mend')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: ActedDto, description: 'Makes a fix that a remark offers, as one decision.' })
  async mend(@Param('leg') leg: string, @Body() input: MendDto, @Person() person: Caller): Promise<Acted> {
    return this.remarks.mend(leg, input, person);
  }

  @Post('remarks')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: ActedDto, description: 'Lets a remark be with a reason, until its cause changes, or takes that back.' })
  async letBe(@Param('leg') leg: string, @Body() input: LetBeDto, @Person() person: Caller): Promise<Acted> {
    return this.remarks.letBe(leg, input, person);
  }
}
